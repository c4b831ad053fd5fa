import type { SourceKey } from "../../kernel/sources";
import type { RemovalStep } from "./removal-plan";

export interface CorrectionStep {
  use: RemovalStep;
  tool: string;
  doThis: string;
  lookFor: string;
}
export interface CorrectionSchool {
  id: string;
  name: string;
  goodFor: string;
  price: string;
  source: SourceKey;
  steps: readonly CorrectionStep[];
}

const compound: CorrectionStep = {
  use: { polish: "compound" },
  tool: "wool or firm foam pad",
  doThis: "Panels of about 0.6 × 0.6 m, crosswise, pad flat, compound always between pad and paint",
  lookFor: "No sanding scratch under a moving light",
};
const polish: CorrectionStep = {
  use: { polish: "polish" },
  tool: "soft foam pad",
  doThis: "Light pressure, slow passes, wipe and look",
  lookFor: "No haze, no buffer trails in daylight",
};
const p3000: CorrectionStep = {
  use: { grit: "P3000", backing: "soft" },
  tool: "orbital sander, soft interface",
  doThis: "Light pressure, water with a drop of detergent",
  lookFor: "Gloss begins to return, no coarser scratch left",
};
const level = (grit: "P1000" | "P1500" | "P2000", backing: "medium" | "soft" = "medium"): CorrectionStep => ({
  use: { grit, backing },
  tool: backing === "medium" ? "orbital sander, medium interface" : "orbital sander, soft interface",
  doThis: "Light pressure, edges and body lines by hand or left",
  lookFor: grit === "P2000" ? "No coarser scratch left" : "Uniformly dull, no shiny low spot",
});
const byHand = (grit: "P1000" | "P1500" | "P2000"): CorrectionStep => ({
  ...level(grit),
  use: { grit, backing: "medium", tool: "hand" },
  tool: "hand block, medium backing, wet",
});

/** Grit-and-polish schools: common practice, named by us. Each step is cleared by the next. */
export const CORRECTION_SCHOOLS = [
  {
    id: "short",
    name: "Short sanding",
    goodFor: "Even peel on a panel with film to spare",
    price: "P3000 has to clear P1500: more passes",
    source: "common-practice",
    steps: [level("P1500"), p3000, compound, polish],
  },
  {
    id: "long",
    name: "Long sanding",
    goodFor: "Show flat: each scratch cleared by its neighbour",
    price: "One step more, about 1.4 µm more film",
    source: "common-practice",
    steps: [level("P1500"), level("P2000"), p3000, compound, polish],
  },
  {
    id: "two-papers",
    name: "Two papers",
    goodFor: "Light peel: P2000 goes straight to the compound",
    price: "The compound goes over it twice",
    source: "common-practice",
    steps: [level("P1500"), level("P2000"), compound, polish],
  },
  {
    id: "fine",
    name: "Fine start",
    goodFor: "Light peel, little film",
    price: "Slow; heavy peel stays",
    source: "common-practice",
    steps: [level("P2000"), p3000, compound, polish],
  },
  {
    id: "hand",
    name: "By hand",
    goodFor: "Small and curved parts, no machine",
    price: "Time, and the coarsest start of all",
    source: "common-practice",
    steps: [byHand("P1000"), byHand("P1500"), byHand("P2000"), compound, polish],
  },
  {
    id: "spot",
    name: "Spot only",
    goodFor: "A few nibs on an otherwise good panel",
    price: "Texture stays as it is",
    source: "common-practice",
    steps: [
      { ...level("P2000"), use: { grit: "P2000", backing: "medium", tool: "pad" }, tool: "small pad on the spot only, wet" },
      compound,
      polish,
    ],
  },
  {
    id: "polish",
    name: "Polish only",
    goodFor: "Haze or die-back, no texture to level",
    price: "Levels nothing",
    source: "common-practice",
    steps: [compound, polish],
  },
] as const satisfies readonly CorrectionSchool[];

export type CorrectionSchoolId = (typeof CORRECTION_SCHOOLS)[number]["id"];
/** The one for places alone. */
export const SPOT_SCHOOL = "spot" satisfies CorrectionSchoolId;
export const CORRECTION_SCHOOL_IDS = CORRECTION_SCHOOLS.map((s) => s.id) as [CorrectionSchoolId, ...CorrectionSchoolId[]];

/** One school. @throws RangeError for an unknown id. */
export function correctionSchool(id: string): CorrectionSchool {
  const found = CORRECTION_SCHOOLS.find((s) => s.id === id);
  if (!found) throw new RangeError(`school must be one of ${CORRECTION_SCHOOL_IDS.join(", ")}, got ${id}`);
  return found;
}

const POLISH_NAMES = { compound: "Compound", polish: "Polish", ultrafine: "Finest polish" } as const;
/** "P1500, medium" or "compound": how a step is called everywhere. */
export function stepName(step: RemovalStep): string {
  return "polish" in step ? POLISH_NAMES[step.polish] : `${step.grit} ${step.backing}`;
}

/** Whether a school goes over the whole panel with paper, only over spots, or only polishes. */
export function reachOf(school: CorrectionSchool): "panel" | "spots" | "polish" {
  const [first] = school.steps;
  if (!first || "polish" in first.use) return "polish";
  return first.use.tool === "pad" ? "spots" : "panel";
}

/** The school that levels a panel, or a part of it: the one asked for, or the short ladder where that goes over places alone or only polishes. */
export const levellingSchool = (id: string): string => (reachOf(correctionSchool(id)) === "panel" ? id : "short");
