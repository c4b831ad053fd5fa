import { GLOSS_ANGLES } from "../models/gloss/fresnel-gloss";
import { type GlossSummary, glossSummary } from "../models/gloss/gloss-statistics";
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

/** What was read of one surface at one angle: the newest reading counts, what was read before it stands by. */
export interface GlossRead {
  role: EntryOf<"gloss">["body"]["role"];
  summary: GlossSummary;
  newest: EntryOf<"gloss">;
  earlier: readonly EntryOf<"gloss">[];
}

/** Gloss as it was read, the vehicle's before the part's, each angle by itself. */
export const glossReads = (gloss: readonly EntryOf<"gloss">[]): GlossRead[] =>
  (["target", "part"] as const).flatMap((role) =>
    GLOSS_ANGLES.flatMap((angle): GlossRead[] => {
      const own = gloss.filter((g) => g.body.role === role && g.body.angle === angle);
      const newest = own.at(-1);
      if (!newest) return [];
      const summary = glossSummary(
        angle,
        newest.body.readings.map((r) => r.gloss_GU),
      );
      return [{ role, summary, newest, earlier: own.slice(0, -1) }];
    }),
  );

/** The vehicle's own gloss at 60°, of what was read. */
export const vehicleRead = (reads: readonly GlossRead[]): GlossRead | undefined =>
  reads.find((g) => g.role === "target" && g.summary.angle === asked);
