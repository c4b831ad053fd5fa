import type { EntryOf } from "../record/entry";

/** A clock of a pot: until it is over, or until what settles in it is stirred again. It is the pot's, not the course's. */
export interface PotClock {
  kind: "pot" | "stir";
  entryId: string;
  /** What was mixed; empty where an older version did not say. */
  label: string;
  started_ms: number;
  due_ms: number;
  late_ms: number | null;
}

const MS = 1000;

/** The clocks that every mix started, also one that was taken out since: it may be put back. */
export const potClocksOf = (mixes: readonly EntryOf<"mix">[]): PotClock[] =>
  mixes.flatMap(({ id: entryId, at_ms: started_ms, body: { product: label, potLife_s, settles_s } }) => {
    const over_ms = started_ms + potLife_s * MS;
    const common = { entryId, label, started_ms };
    const pot: PotClock = { ...common, kind: "pot", due_ms: over_ms, late_ms: null };
    return settles_s === null ? [pot] : [pot, { ...common, kind: "stir", due_ms: started_ms + settles_s * MS, late_ms: over_ms }];
  });
