import type { PanelShape } from "#core/kernel/geometry/shapes";
import type { LedgerEntry } from "#core/record/entry";
import { livingEntries } from "#core/record/timeline";
import type { ServerContext } from "../context";
import { getJob } from "../repos/job-repo";
import { concerned, getEntry, listEntries } from "../repos/ledger-repo";
import { getPanel } from "../repos/panel-repo";

/** What became of an entry. */
export interface Stands {
  /** Its newest version, and whether that was taken out. */
  entry: LedgerEntry;
  takenOut: boolean;
  /** Who changed it last, and when. */
  by: string;
  at_ms: number;
  shape: PanelShape;
  /** Where it can be looked at among all others. */
  ledger: string;
}

/** What stands in an entry's place now, or in that of what it took out; null where its panel is not there any more. */
export async function loadStands(ctx: ServerContext, entryId: string): Promise<Stands | null> {
  const asked = await getEntry(ctx.db, entryId);
  const first = asked && (await concerned(ctx.db, asked)).entry;
  const panel = first && (await getPanel(ctx.db, first.panelId));
  const job = panel && (await getJob(ctx.db, panel.jobId));
  if (!first || !panel || !job) return null;
  const all = await listEntries(ctx.db, panel.id);
  const chain = [first];
  for (let next = newer(all, first); next; next = newer(all, next)) chain.push(next);
  const versions = chain.filter((e) => e.kind !== "strike");
  const entry = versions.at(-1)!;
  const { by, at_ms } = chain.at(-1)!;
  const takenOut = !livingEntries(all).some((e) => e.id === entry.id);
  return { entry, takenOut, by, at_ms, shape: panel.shape, ledger: `/jobs/${job.id}/panels/${panel.id}/ledger` };
}

/** What changed an entry last: another version of it before its being taken out. */
function newer(all: readonly LedgerEntry[], of: LedgerEntry): LedgerEntry | undefined {
  const on = all.filter((e) => e.supersedes === of.id);
  return on.findLast((e) => e.kind !== "strike") ?? on.at(-1);
}
