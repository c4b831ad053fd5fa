import { type PotState, potsOf, sprayedVolume } from "#core/panel/pots";
import type { EntryOf, LedgerEntry } from "#core/record/entry";
import { ofKind } from "#core/record/entry";
import { livingEntries } from "#core/record/timeline";
import type { Side } from "#core/record/kinds";
import type { ServerContext } from "../context";
import { getJob } from "../repos/job-repo";
import { listEntries } from "../repos/ledger-repo";
import { listPanels } from "../repos/panel-repo";
import { getProductRevision } from "../repos/product-repo";

export interface PotView extends Omit<PotState, "taken"> {
  product: string;
  /** The panels it is for, and what each coat took, by the panels' names. */
  panels: string[];
  taken: (PotState["taken"][number] & { panel: string; side: Side | null })[];
}

/** Every pot of a job, newest first: what is in it, for what, and which coats came out of it; null when the job is not there. */
export async function loadPots(
  ctx: ServerContext,
  jobId: string,
): Promise<{ vehicle: string; panels: { id: string; name: string }[]; pots: PotView[] } | null> {
  const [job, panels] = await Promise.all([getJob(ctx.db, jobId), listPanels(ctx.db, jobId)]);
  if (!job) return null;
  const ledgers = await Promise.all(panels.map(async (p) => livingEntries(await listEntries(ctx.db, p.id))));
  const entries = ledgers.flat().sort((a, b) => a.seq - b.seq);
  const nameOf = (id: string) => panels.find((p) => p.id === id)?.name ?? id;
  const products = new Map(
    await Promise.all(
      panels.map(async (p) => [p.id, (await getProductRevision(ctx.db, p.productRevisionId))?.sheet.name ?? "mix"] as const),
    ),
  );
  const clearOf = (e: LedgerEntry) => products.get(e.panelId) ?? "mix";
  const productOf = (m: EntryOf<"mix">) => m.body.product || clearOf(m);
  const takenBy = (c: EntryOf<"coat">) => {
    const panel = panels.find((p) => p.id === c.panelId);
    return c.body.volume_m3 ?? (panel ? sprayedVolume(panel, job.way, c.body) : null);
  };
  /** Its number on its own face, and which face where there are two. */
  const placeOf = (coatId: string) => {
    const coat = coats.find((c) => c.id === coatId)!;
    const onFace = coats.filter((c) => c.panelId === coat.panelId && c.body.side === coat.body.side);
    const two = panels.find((p) => p.id === coat.panelId)?.sides === 2;
    return { number: onFace.indexOf(coat) + 1, side: two ? coat.body.side : null };
  };
  const mixes = ofKind(entries, "mix");
  const coats = ofKind(entries, "coat");
  const names = [...new Set(mixes.map(productOf))];
  // Pots of one product share its coats; a base's pot has none of the clear's.
  const pots = names.flatMap((product) => {
    const own = mixes.filter((m) => productOf(m) === product);
    const named = new Set<string | null>(own.map((m) => m.id));
    return potsOf(
      own,
      coats.filter((c) => clearOf(c) === product || named.has(c.body.potId)),
      { others: mixes.filter((m) => !own.includes(m)), volumeOf: takenBy },
    ).map((pot): PotView => ({
      ...pot,
      product,
      panels: (pot.entry.body.panels.length > 0 ? pot.entry.body.panels : [pot.entry.panelId]).map(nameOf),
      taken: pot.taken.map((t) => ({ ...t, ...placeOf(t.coatId), panel: nameOf(t.panelId) })),
    }));
  });
  return {
    vehicle: job.vehicle,
    panels: panels.map(({ id, name }) => ({ id, name })),
    pots: pots.sort((a, b) => b.entry.seq - a.entry.seq),
  };
}
