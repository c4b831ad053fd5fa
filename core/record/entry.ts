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
  /** Who entered it and on which device, by their ids in the shop; absent where nobody signs in. */
  who?: { personId: string | null; deviceId: string | null };
  /** Written on another panel of the job: climate, gun and pot serve this panel too, but the entry is not of its ledger. */
  elsewhere?: true;
}
export type LedgerEntry = { [K in EntryKind]: EntryOf<K> }[EntryKind];

/** What serves all panels of a job until it is changed: entered on one of them, once. */
export const JOB_WIDE = ["climate", "gunSet", "mix", "coat", "colourCoat", "matteMix"] as const satisfies readonly EntryKind[];

/** A panel's own entries, without what serves it from elsewhere. */
export function ownEntries(entries: readonly LedgerEntry[]): readonly LedgerEntry[] {
  const known = own.get(entries);
  if (known) return known;
  const found = Object.freeze(entries.filter((e) => !e.elsewhere));
  if (Object.isFrozen(entries)) own.set(entries, found);
  return found;
}
const own = new WeakMap<readonly LedgerEntry[], readonly LedgerEntry[]>();

/** Entries of one kind, typed. */
export function ofKind<K extends EntryKind>(entries: readonly LedgerEntry[], kind: K): readonly EntryOf<K>[] {
  const sorted = Object.isFrozen(entries) ? byKind(entries) : null;
  return ((sorted ? sorted.get(kind) : entries.filter((e) => e.kind === kind)) ?? NONE) as readonly EntryOf<K>[];
}

const NONE: readonly LedgerEntry[] = [];
/** Of a ledger that cannot change any more: looked through once, for whatever kinds it is asked. */
const kinds = new WeakMap<readonly LedgerEntry[], Map<EntryKind, LedgerEntry[]>>();
function byKind(entries: readonly LedgerEntry[]): Map<EntryKind, LedgerEntry[]> {
  const known = kinds.get(entries);
  if (known) return known;
  const sorted = new Map<EntryKind, LedgerEntry[]>();
  for (const e of entries) (sorted.get(e.kind) ?? sorted.set(e.kind, []).get(e.kind)!).push(e);
  kinds.set(entries, sorted);
  return sorted;
}

/** Places as an entry holds them, as points of the drawing. */
export const pointsOf = (at: readonly { x_m: number; y_m: number }[]): Point[] => at.map((p): Point => [p.x_m, p.y_m]);
