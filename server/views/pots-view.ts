import type { LayerKey } from "#core/models/prep/layer-names";
import { asCoat, sheetOfCoat } from "#core/panel/layers";
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
  taken: (PotState["taken"][number] & { panel: string; side: Side | null; layer: LayerKey | null })[];
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
  const products = new Map(
    await Promise.all(
      panels.map(async (p) => [p.id, (await getProductRevision(ctx.db, p.productRevisionId))?.sheet.name ?? "mix"] as const),
    ),
  );
  const nameOf = (id: string) => panels.find((p) => p.id === id)?.name ?? "a panel that was removed";
  const clearOf = (e: LedgerEntry) => products.get(e.panelId) ?? "mix";
  const productOf = (m: EntryOf<"mix">) => m.body.product || clearOf(m);
  const mixes = ofKind(entries, "mix");
  const coats = coatsTold(entries, clearOf);
  const volumeOf = (c: EntryOf<"coat">) => {
    const panel = panels.find((p) => p.id === c.panelId);
    const ofClear = coats.some((k) => k.entry.id === c.id && k.layer === null);
    return c.body.volume_m3 ?? (panel && ofClear ? sprayedVolume(panel, job.way, c.body) : null);
  };
  /** Which coat it is of its layer and face, and which face where there are two. */
  const placeOf = (coatId: string) => {
    const coat = coats.find((c) => c.entry.id === coatId)!;
    const { panelId, body } = coat.entry;
    const alike = coats.filter((c) => c.entry.panelId === panelId && c.entry.body.side === body.side && c.layer === coat.layer);
    const two = panels.find((p) => p.id === panelId)?.sides === 2;
    return { number: alike.indexOf(coat) + 1, side: two ? body.side : null, layer: coat.layer };
  };
  // Pots of one product share its coats; a base's pot has none of the clear's.
  const pots = [...new Set(mixes.map(productOf))].flatMap((product) => {
    const own = mixes.filter((m) => productOf(m) === product);
    const named = new Set<string | null>(own.map((m) => m.id));
    const from = coats.filter((c) => c.product === product || named.has(c.entry.body.potId)).map((c) => c.entry);
    return potsOf(own, from, { others: mixes.filter((m) => !own.includes(m)), volumeOf }).map((pot): PotView => ({
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

interface CoatTold {
  entry: EntryOf<"coat">;
  product: string;
  /** The layer below the clear that it builds; null: the clear. */
  layer: LayerKey | null;
}

/** The coats of all panels, of the clear and of what lies below it, oldest first. */
function coatsTold(entries: readonly LedgerEntry[], clearOf: (e: LedgerEntry) => string): CoatTold[] {
  const clear = ofKind(entries, "coat").map((entry): CoatTold => ({ entry, product: clearOf(entry), layer: null }));
  const below = ofKind(entries, "colourCoat").map((c): CoatTold => ({
    entry: asCoat(c),
    product: sheetOfCoat(c.body).name,
    layer: c.body.coat,
  }));
  return [...clear, ...below].sort((a, b) => a.entry.seq - b.entry.seq);
}
