import type { BearsTape } from "../coat/bears-tape";
import { type JointPart, lowerColour } from "./joints";

/** In which order two colours go on one vehicle. */
export interface ColourOrder {
  goesFirst: "first" | "second";
  /** Whether it lies lower; else nothing that is known tells the two apart, and the job's first colour goes first. */
  lower: boolean;
  /** Until its parts bear tape: the longest of them. */
  tape_s: number;
  /** Whether every one of those sheets has a tape or dust-free time of its own. */
  fromSheet: boolean;
  /** Whether one clear goes over both in one go; single stages are each sprayed to their end. */
  together: boolean;
}

/** The order of two colours: the lower first, with a soft edge, then a fine line, then the upper. Common practice. @returns null unless parts have both */
export function colourOrder(parts: readonly (JointPart & { tape: BearsTape })[]): ColourOrder | null {
  const has = (...colours: JointPart["colour"][]) => parts.some((p) => colours.includes(p.colour));
  if (!has("both") && !(has("first") && has("second"))) return null;
  const lower = lowerColour(parts);
  const goesFirst = lower ?? "first";
  const taped = parts.filter((p) => p.colour === goesFirst || p.colour === "both").map((p) => p.tape);
  return {
    goesFirst,
    lower: lower !== null,
    tape_s: Math.max(...taped.map((t) => t.time_s)),
    fromSheet: taped.every((t) => t.fromSheet),
    together: !parts.some((p) => p.tape.single),
  };
}
