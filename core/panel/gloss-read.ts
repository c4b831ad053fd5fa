import { median } from "../kernel/stats/summary";
import type { EntryOf } from "../record/entry";

/** Gloss of the part as it is told everywhere: at 60° where it was read so, the newest, by the median of its readings. */
export interface PartGloss {
  GU: number;
  angle: EntryOf<"gloss">["body"]["angle"];
}

const asked = 60;

/** What readings of a gloss come to: their middle. */
export const glossOf = ({ body }: EntryOf<"gloss">): number => median(body.readings.map((r) => r.gloss_GU));

/** @returns the newest at 60°, else the newest at any angle; null where the part was not read */
export function partGloss(gloss: readonly EntryOf<"gloss">[]): PartGloss | null {
  const own = gloss.filter((g) => g.body.role === "part");
  const read = own.findLast((g) => g.body.angle === asked) ?? own.at(-1);
  return read ? { GU: glossOf(read), angle: read.body.angle } : null;
}

/** The same where only 60° can be held against another; null where it was not read so. */
export function partGloss60(gloss: readonly EntryOf<"gloss">[]): number | null {
  const read = partGloss(gloss);
  return read?.angle === asked ? read.GU : null;
}
