import type { CauseId } from "#core/models/defects/causes";
import type { Evidence } from "#core/models/defects/diagnose";
import type { DefectKind } from "#core/record/kinds";
import type { ServerContext } from "../context";
import type { PanelView } from "../views/panel-view";
import { recordEntry } from "./record-entry";

/** What has been answered about a kind of defect so far, and its final word. */
export function causeOf(view: Pick<PanelView, "state">, kind: DefectKind) {
  return view.state.causes.findLast((c) => c.body.kind === kind) ?? null;
}

/** Keeps an answer beside those given before; null takes it back. */
export function answerQuestion(
  ctx: ServerContext,
  view: PanelView,
  o: { kind: DefectKind; id: keyof Evidence; so: boolean | null; by: string },
): Promise<string> {
  const last = causeOf(view, o.kind);
  const answers = { ...last?.body.answers };
  if (o.so === null) delete answers[o.id];
  else answers[o.id] = o.so;
  return recordEntry(ctx, {
    panelId: view.panel.id,
    kind: "cause",
    by: o.by,
    body: { kind: o.kind, answers, causeId: last?.body.causeId ?? null },
    supersedes: last?.id ?? null,
  });
}

/** The painter's final word on what it was; it counts towards the shop's own figures. */
export function settleCause(ctx: ServerContext, view: PanelView, o: { kind: DefectKind; causeId: CauseId; by: string }): Promise<string> {
  const last = causeOf(view, o.kind);
  return recordEntry(ctx, {
    panelId: view.panel.id,
    kind: "cause",
    by: o.by,
    body: { kind: o.kind, answers: last?.body.answers ?? {}, causeId: o.causeId },
    supersedes: last?.id ?? null,
  });
}
