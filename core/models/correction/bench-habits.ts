import type { CorrectionSchool, CorrectionStep } from "./schools";

/** How the polishing is done: in how many stages, with which machine. Common practice. */
export const POLISHING = { two: "two stages: compound, polish", three: "three stages: compound, polish, finest polish" } as const;
export const POLISHERS = { orbital: "orbital polisher", rotary: "rotary polisher" } as const;
/** How machine paper is used, and how the filler that guards a run is cut. */
export const WET_OR_DRY = { wet: "wet", dry: "dry" } as const;
/** What takes a nib off before a panel is levelled. */
export const NIB_TOOLS = { pad: "small hard pad", denibber: "powered de-nibbing tool" } as const;

/** How a shop holds its tools, whichever ladder it climbs. */
export interface BenchHabits {
  polishing: keyof typeof POLISHING;
  polisher: keyof typeof POLISHERS;
  discs: keyof typeof WET_OR_DRY;
  guardCut: keyof typeof WET_OR_DRY;
  nibTool: keyof typeof NIB_TOOLS;
}
export const USUAL_HABITS: BenchHabits = { polishing: "two", polisher: "orbital", discs: "wet", guardCut: "wet", nibTool: "pad" };

/** A rotary cuts so much faster than an orbital, and burns an edge sooner: a default of ours. */
export const ROTARY_TIME = 0.7;
const ROTARY_CAUTION = "Rotary: never stand still, stay off edges and body lines";
const FINEST: CorrectionStep = {
  use: { polish: "ultrafine" },
  tool: "finest foam pad",
  doThis: "Hardly any pressure, slow passes, wipe and look in daylight",
  lookFor: "Deep and clear, nothing turns with the light",
};

/** A school as a shop with such habits works it: its polishing in two stages or three, by its own machine. */
export function schoolWith(school: CorrectionSchool, { polishing, polisher }: BenchHabits): CorrectionSchool {
  const polishes = school.steps.some((s) => "polish" in s.use);
  const steps = polishing === "three" && polishes ? [...school.steps, FINEST] : school.steps;
  return {
    ...school,
    steps: steps.map((s) =>
      "polish" in s.use
        ? {
            ...s,
            tool: `${POLISHERS[polisher]}, ${s.tool}`,
            ...(polisher === "rotary" ? { doThis: `${s.doThis}. ${ROTARY_CAUTION}` } : {}),
          }
        : s,
    ),
  };
}
