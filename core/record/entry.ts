import type { Point } from "../kernel/geometry/geometry";
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
  /** Written on another panel of the job: climate, gun and pot serve this panel too, but the entry is not of its ledger. */
  elsewhere?: true;
}
export type LedgerEntry = { [K in EntryKind]: EntryOf<K> }[EntryKind];

/** What serves all panels of a job until it is changed: entered on one of them, once. */
export const JOB_WIDE = ["climate", "gunSet", "mix", "coat", "matteMix"] as const satisfies readonly EntryKind[];

/** A panel's own entries, without what serves it from elsewhere. */
export const ownEntries = (entries: readonly LedgerEntry[]): LedgerEntry[] => entries.filter((e) => !e.elsewhere);

/** Entries of one kind, typed. */
export function ofKind<K extends EntryKind>(entries: readonly LedgerEntry[], kind: K): EntryOf<K>[] {
  return entries.filter((e): e is EntryOf<K> & LedgerEntry => e.kind === kind);
}

/** Places as an entry holds them, as points of the drawing. */
export const pointsOf = (at: readonly { x_m: number; y_m: number }[]): Point[] => at.map((p): Point => [p.x_m, p.y_m]);
