import { type DefectKind, DEFECT_KINDS, isFold, isInclusion } from "./kinds";

/** How high something stands over the panel, by things one has in hand. Common practice, no source; from memory: paper 80 g/m² about 0.1 mm, thin paper about 60 µm, a visiting card about 0.25 mm. */
export const HEIGHTS_BY_EYE = [
  { id: "nail", name: "a nail feels it", height_m: 20e-6 },
  { id: "paper", name: "thin paper", height_m: 60e-6 },
  { id: "card", name: "a card", height_m: 250e-6 },
] as const;

/** Peel by the light tube in it, peak to valley. Common practice, no source. */
export const PEEL_BY_EYE = [
  { id: "slight", name: "tube wavers", height_m: 4e-6 },
  { id: "plain", name: "tube breaks up", height_m: 9e-6 },
  { id: "heavy", name: "no tube left", height_m: 18e-6 },
] as const;

export type ByEye = (typeof HEIGHTS_BY_EYE)[number]["id"] | (typeof PEEL_BY_EYE)[number]["id"];
export interface SizeByEye {
  id: ByEye;
  name: string;
  height_m: number;
}

/** The heights that are asked for a fault by eye; none where its height says nothing. */
export function heightsByEye(kind: DefectKind): readonly SizeByEye[] {
  if (isFold(kind) || isInclusion(kind)) return HEIGHTS_BY_EYE;
  return DEFECT_KINDS[kind].sign === "ripple" ? PEEL_BY_EYE : [];
}

/** Length and width that a fault of the kind mostly has, where nobody measures it: the plan asks for a reading where something hangs on it. Common practice, no source. */
const USUAL: Partial<Record<DefectKind, { length_m: number; width_m: number }>> = {
  run: { length_m: 0.04, width_m: 0.01 },
  sag: { length_m: 0.08, width_m: 0.03 },
  curtain: { length_m: 0.2, width_m: 0.04 },
  nib: { length_m: 0.001, width_m: 0.001 },
  fibre: { length_m: 0.004, width_m: 0.0005 },
  crater: { length_m: 0.003, width_m: 0.003 },
};
export const usualSize = (kind: DefectKind): { length_m: number; width_m: number } | null => USUAL[kind] ?? null;

/** What is seen most, first. */
export const OFTEN: readonly DefectKind[] = ["run", "nib", "peel", "crater", "pop"];
