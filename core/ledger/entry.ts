import type { BodyOf, EntryKind } from "./bodies";

export interface EntryOf<K extends EntryKind> {
  id: string;
  panelId: string;
  kind: K;
  body: BodyOf<K>;
  /** When it happened and when it was written down, ms since 1970 by the server. */
  at_ms: number;
  recordedAt_ms: number;
  by: string;
  simulated: boolean;
  supersedes: string | null;
}
export type LedgerEntry = { [K in EntryKind]: EntryOf<K> }[EntryKind];

/**
 * Entries that count now: those no living entry supersedes. A strike is an entry that supersedes another and is not shown itself;
 * striking the strike brings the entry back. Order is kept.
 */
export function livingEntries(entries: readonly LedgerEntry[]): LedgerEntry[] {
  const supersededBy = new Map<string, LedgerEntry[]>();
  for (const e of entries) if (e.supersedes) supersededBy.set(e.supersedes, [...(supersededBy.get(e.supersedes) ?? []), e]);
  const known = new Map<string, boolean>();
  const lives = (e: LedgerEntry): boolean => {
    const seen = known.get(e.id);
    if (seen !== undefined) return seen;
    known.set(e.id, true); // guards a cycle; the store never writes one
    const result = !(supersededBy.get(e.id) ?? []).some(lives);
    known.set(e.id, result);
    return result;
  };
  return entries.filter((e) => e.kind !== "strike" && lives(e));
}

/** Entries of one kind, typed. */
export function ofKind<K extends EntryKind>(entries: readonly LedgerEntry[], kind: K): EntryOf<K>[] {
  return entries.filter((e): e is EntryOf<K> & LedgerEntry => e.kind === kind);
}
