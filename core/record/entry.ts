import type { BodyOf, EntryKind } from "./bodies";

export interface EntryOf<K extends EntryKind> {
  id: string;
  panelId: string;
  kind: K;
  body: BodyOf<K>;
  /** Order of writing: what comes later has a higher number, whatever the clocks said. */
  seq: number;
  /** When it happened and when it was written down, ms since 1970 by the server. */
  at_ms: number;
  recordedAt_ms: number;
  by: string;
  simulated: boolean;
  supersedes: string | null;
}
export type LedgerEntry = { [K in EntryKind]: EntryOf<K> }[EntryKind];

/** Entries of one kind, typed. */
export function ofKind<K extends EntryKind>(entries: readonly LedgerEntry[], kind: K): EntryOf<K>[] {
  return entries.filter((e): e is EntryOf<K> & LedgerEntry => e.kind === kind);
}
