import { requireNumber } from "../../kernel/guard";

export const GLOSS_ANGLES = [20, 60, 85] as const;
export type GlossAngle = (typeof GLOSS_ANGLES)[number];

/** Black glass of the gloss scale: 100 GU by definition (ISO 2813, ASTM D523). */
export const STANDARD_INDEX = 1.567;
/** Wavelength at which roughness is taken. */
export const GLOSS_WAVELENGTH_M = 550e-9;

const DEGREE = Math.PI / 180;

/**
 * Unpolarised Fresnel reflectance of a smooth surface. @throws RangeError for an index below 1 or an angle outside 0…90°.
 * @example fresnelReflectance(1.567, 60°) // 0.100056
 */
export function fresnelReflectance(index: number, angle_rad: number): number {
  const n = requireNumber("index", index, { min: 1, max: 5 });
  const a = requireNumber("angle_rad", angle_rad, { min: 0, max: Math.PI / 2 });
  const c = Math.cos(a);
  const q = Math.sqrt(n * n - Math.sin(a) ** 2);
  return 0.5 * (((c - q) / (c + q)) ** 2 + ((n * n * c - q) / (n * n * c + q)) ** 2);
}

/**
 * Gloss in GU of a clear from its refractive index and its fine roughness: Fresnel against the standard glass, times the share that a
 * rough surface still reflects as a mirror, exp(−(4πσcosθ/λ)²) (Bennett & Porteus 1961). Holds for σ well below the wavelength; on matte
 * it is an effective figure for one angle only.
 * @throws RangeError
 */
export function roughGloss({ index, roughness_m, angle }: { index: number; roughness_m: number; angle: GlossAngle }): number {
  const theta = angle * DEGREE;
  const smooth = (100 * fresnelReflectance(index, theta)) / fresnelReflectance(STANDARD_INDEX, theta);
  const sigma = requireNumber("roughness_m", roughness_m, { min: 0, max: 1e-5 });
  return smooth * Math.exp(-(((4 * Math.PI * sigma * Math.cos(theta)) / GLOSS_WAVELENGTH_M) ** 2));
}

/** The roughness that one angle's gloss stands for: inverse of {@link roughGloss}. @throws RangeError when brighter than the smooth surface. */
export function roughnessFromGloss({ index, gloss_GU, angle }: { index: number; gloss_GU: number; angle: GlossAngle }): number {
  const smooth = roughGloss({ index, roughness_m: 0, angle });
  const g = requireNumber("gloss_GU", gloss_GU, { above: 0, max: smooth });
  return (GLOSS_WAVELENGTH_M / (4 * Math.PI * Math.cos(angle * DEGREE))) * Math.sqrt(Math.log(smooth / g));
}

/** Fine roughness each tool leaves, an illustration: defaults of ours, not measured. */
export const TOOL_ROUGHNESS_M = {
  P800: 220e-9,
  P1000: 200e-9,
  P1200: 180e-9,
  P1500: 150e-9,
  P2000: 125e-9,
  P2500: 100e-9,
  P3000: 78e-9,
  P5000: 55e-9,
  compound: 27e-9,
  polish: 14e-9,
  ultrafine: 7e-9,
} as const;
export type GlossTool = keyof typeof TOOL_ROUGHNESS_M;
/** Share of the earlier roughness (in squares) that one pass leaves behind. */
const LEFT_PER_PASS = 0.35;

/** Roughness after passes with a tool over an earlier roughness: σ² = σ_tool² + (σ_prev² − σ_tool²)·0.35^N. @throws RangeError */
export function roughnessAfter(previous_m: number, tool: GlossTool, passes: number): number {
  requireNumber("previous_m", previous_m, { min: 0, max: 1e-5 });
  requireNumber("passes", passes, { min: 0, max: 100 });
  const own = TOOL_ROUGHNESS_M[tool];
  return Math.sqrt(own * own + (previous_m * previous_m - own * own) * LEFT_PER_PASS ** passes);
}

/** Which angle to read by what 60° says (ISO 2813): above 70 GU read 20°, below 10 read 85°. @throws RangeError */
export function angleToRead(gloss60_GU: number): { angle: GlossAngle; why: string } {
  const g = requireNumber("gloss60_GU", gloss60_GU, { min: 0, max: 200 });
  if (g > 70) return { angle: 20, why: "above 70 GU at 60°, 20° tells finishes apart better" };
  if (g < 10) return { angle: 85, why: "below 10 GU at 60°, 85° tells finishes apart better" };
  return { angle: 60, why: "between 10 and 70 GU, 60° is the angle to read" };
}
