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
    hardenerOver: await hardenerOver(ctx, view),
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

/** Whether the hardener in the mix came out of a can open longer than it keeps: of the batch that was poured, else only where all open cans of it agree. */
async function hardenerOver(ctx: ServerContext, { state }: PanelView): Promise<boolean | null> {
  const { mix } = state;
  if (!mix) return null;
  const cans = await loadCans(ctx);
  const over = mix.body.parts.flatMap(({ name, batch }) =>
    cans.flatMap((c) =>
      c.kind === "hardener" && c.name === name && (batch === "" || c.batch === batch) && c.opened_ms !== null && c.opened_ms <= mix.at_ms
        ? [(mix.at_ms - c.opened_ms) / DAY_MS > c.keeps_d]
        : [],
    ),
  );
  return over.length > 0 && over.every((o) => o === over[0]) ? over[0]! : null;
}

/** Final words of the shop on this kind of defect, without the panel's own newest. */
async function finalWordsOf(ctx: ServerContext, kind: DefectKind, except: string | null): Promise<FinalWords> {
  return Object.fromEntries((await countCauseWords(ctx.db, kind, except)).map(({ causeId, n }) => [causeId, n]));
}
