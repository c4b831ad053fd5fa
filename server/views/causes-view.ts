import { type Diagnosis, type Evidence, type FinalWords, diagnose } from "#core/models/defects/diagnose";
import { recordEvidence } from "#core/judge/record-evidence";
import type { DefectKind } from "#core/record/kinds";
import { causeOf } from "../commands/causes";
import type { ServerContext } from "../context";
import { loadCans } from "./cans-view";
import { countCauseWords } from "../repos/summary-repo";
import type { PanelView } from "./panel-view";

const DAY_MS = 86_400_000;

export interface CausesView {
  kind: DefectKind;
  /** What the record says, what was answered, and the shop's own count of final words for this kind. */
  record: Evidence;
  answers: Evidence;
  finalWords: FinalWords;
  diagnosis: Diagnosis;
  settled: string | null;
  entryId: string | null;
}

/** Causes of one kind of defect on a panel: its own record first, then what the painter answered, then the shop's final words. */
export async function loadCauses(ctx: ServerContext, view: PanelView, kind: DefectKind): Promise<CausesView> {
  const record = recordEvidence({
    brief: view.panel,
    state: view.state,
    sheet: view.product.sheet,
    way: view.job.way,
    finish: view.job.finish,
    shop: view.shopFactors,
    hardenerDays: await hardenerDays(ctx, view),
  });
  const last = causeOf(view, kind);
  const answers: Evidence = last?.body.answers ?? {};
  const finalWords = await finalWordsOf(ctx, kind, last?.id ?? null);
  return {
    kind,
    record,
    answers,
    finalWords,
    // What the painter says of it goes before what the record seems to say.
    diagnosis: diagnose(kind, { ...record, ...answers }, finalWords),
    settled: last?.body.causeId ?? null,
    entryId: last?.id ?? null,
  };
}

/** How long the oldest open can of a hardener in the mix had been open; null when none can be told. */
async function hardenerDays(ctx: ServerContext, { state }: PanelView): Promise<number | null> {
  const { mix } = state;
  if (!mix) return null;
  const names = new Set(mix.body.parts.map((p) => p.name));
  const cans = await loadCans(ctx);
  const days = cans.flatMap((c) =>
    c.kind === "hardener" && c.opened_ms !== null && c.opened_ms <= mix.at_ms && names.has(c.name)
      ? [(mix.at_ms - c.opened_ms) / DAY_MS]
      : [],
  );
  return days.length ? Math.max(...days) : null;
}

/** Final words of the shop on this kind of defect, without the panel's own newest. */
async function finalWordsOf(ctx: ServerContext, kind: DefectKind, except: string | null): Promise<FinalWords> {
  return Object.fromEntries((await countCauseWords(ctx.db, kind, except)).map(({ causeId, n }) => [causeId, n]));
}
