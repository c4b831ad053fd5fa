import { filmOf } from "#core/course/cure-status";
import { type ReleaseCheck, releaseCheck } from "#core/judge/release-check";
import { outQuestion } from "#core/judge/questions";
import type { ServerContext } from "../context";
import { loadOthersGloss } from "../views/finish-view";
import type { PanelView } from "../views/panel-view";
import { recordEntry } from "./record-entry";

/** Whether a panel goes out as it is now, by the one verdict. */
export async function verdictNow(ctx: ServerContext, view: PanelView): Promise<ReleaseCheck> {
  const others_GU = await loadOthersGloss(ctx, view.job.id, view.panel.id);
  return releaseCheck(outQuestion(view, { film: filmOf(view, ctx.now_ms()), others_GU }));
}

/** Hands a panel over, whatever speaks against it; what was against it, or was not looked at, is kept with it. @returns the entry's id */
export async function handOver(
  ctx: ServerContext,
  view: PanelView,
  { note, by, clientKey }: { note: string; by: string; clientKey: string | null },
): Promise<string> {
  const { points } = await verdictNow(ctx, view);
  const of = (state: "against" | "missing") => points.filter((p) => p.state === state).map((p) => p.what);
  return recordEntry(ctx, {
    panelId: view.panel.id,
    kind: "handOver",
    body: { note, against: of("against"), notLooked: of("missing") },
    by,
    clientKey,
    asked: { note },
  });
}
