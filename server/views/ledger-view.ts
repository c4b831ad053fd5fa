import { format } from "date-fns";
import type { LedgerEntry } from "#core/record/entry";
import { isPutRight } from "#core/record/put-right";
import { livingEntries } from "#core/record/timeline";
import type { ServerContext } from "../context";
import { type EntryOutline, ledgerOutline, readEntries } from "../repos/ledger-repo";

export interface LedgerLine {
  id: string;
  kind: string;
  at: string;
  by: string;
  simulated: boolean;
  /** Entered on this device while the shop was away. */
  notYet: boolean;
  superseded: boolean;
  /** What it holds; null for what this version cannot read. */
  entry: LedgerEntry | null;
  /** The strike that keeps it out: striking that puts it back. Null for what counts, or was replaced by a correction. */
  struckBy: string | null;
  /** It counts, and is of a kind that is put right in place. */
  canBePutRight: boolean;
  /** Why this version cannot read it; null for every usual entry. */
  unread: string | null;
}

/** So many lines of a page: hardly any panel has more, so that its whole ledger is searched at once. */
export const LEDGER_LINES = 200;

/**
 * A panel's ledger in lines, newest first, a page of it; what was corrected, taken out or cannot be read is marked, not left away. It stands on the
 * rows alone: whatever the models cannot work with is listed here all the same.
 */
export async function loadLedgerLines(
  ctx: ServerContext,
  panelId: string,
  { page = 1 }: { page?: number } = {},
): Promise<{ lines: LedgerLine[]; count: number; pages: number }> {
  const all = await ledgerOutline(ctx.db, panelId);
  const living = new Set(livingEntries(all).map((e) => e.id));
  const listed = all.filter((e) => e.kind !== "strike").reverse();
  const shown = listed.slice((page - 1) * LEDGER_LINES, page * LEDGER_LINES);
  const read = await readEntries(
    ctx.db,
    shown.map((e) => e.id),
  );
  const at = (ms: number) => format(ms, "d MMM HH:mm");
  const lines = read.reverse().map((row): LedgerLine => {
    if ("unread" in row) {
      const { id, kind, at_ms, by, why } = row.unread;
      const strange = { entry: null, simulated: false, notYet: false, superseded: false, struckBy: null, canBePutRight: false };
      return { ...strange, id, kind, at: at(at_ms), by, unread: why };
    }
    const e = row.entry;
    return {
      id: e.id,
      kind: e.kind,
      at: at(e.at_ms),
      by: e.by,
      simulated: e.simulated,
      notYet: e.seq > ctx.withShopUpTo_seq,
      superseded: !living.has(e.id),
      entry: e,
      struckBy: living.has(e.id) ? null : strikeOf(e.id, all),
      canBePutRight: living.has(e.id) && isPutRight(e),
      unread: null,
    };
  });
  return { lines, count: listed.length, pages: Math.max(1, Math.ceil(listed.length / LEDGER_LINES)) };
}

/** The newest strike in force on an entry itself; null where it was only replaced. */
function strikeOf(id: string, entries: readonly EntryOutline[]): string | null {
  const strikes = entries.filter((s) => s.kind === "strike" && s.supersedes === id && !entries.some((u) => u.supersedes === s.id));
  return strikes.at(-1)?.id ?? null;
}
