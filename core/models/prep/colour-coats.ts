import { keysOf } from "../../kernel/keys";
import { requireNumber } from "../../kernel/guard";
import { evaporationTime } from "../product/sheet";
import type { UnderLayer, UnderStepId } from "./under-clear";

/**
 * Coats below the clear, one at a time: the layer each builds, its film (mean, standard deviation) and its flash at 20 °C, before the next of them
 * and before clear. Common practice; the product's own sheet comes first.
 */
export const COLOUR_COATS = {
  seal: { name: "sealer", layer: "seal", film_m: [22e-6, 6e-6], flash_s: 900, beforeClear_s: 1200 },
  ground: { name: "ground coat", layer: "ground", film_m: [5e-6, 1.5e-6], flash_s: 480, beforeClear_s: 1200 },
  base: { name: "base coat", layer: "base", film_m: [6.5e-6, 2e-6], flash_s: 480, beforeClear_s: 1200 },
  blend: { name: "blend coat", layer: "base", film_m: [2e-6, 1e-6], flash_s: 300, beforeClear_s: 1200 },
  drop: { name: "drop coat", layer: "base", film_m: [2e-6, 1e-6], flash_s: 300, beforeClear_s: 900 },
} as const satisfies Record<
  string,
  { name: string; layer: UnderStepId; film_m: readonly [number, number]; flash_s: number; beforeClear_s: number }
>;
export type ColourCoat = keyof typeof COLOUR_COATS;
export const COLOUR_COAT_KEYS = keysOf<ColourCoat>(COLOUR_COATS);

const LAYERS = ["seal", "ground", "base"] as const;

/** Films that the logged coats add, from below up. */
export function colourLayers(coats: readonly ColourCoat[]): UnderLayer[] {
  return LAYERS.flatMap((step): UnderLayer[] => {
    const on = coats.map((c) => COLOUR_COATS[c]).filter((c) => c.layer === step);
    if (on.length === 0) return [];
    return [
      {
        step,
        film_m: on.reduce((a, c) => a + c.film_m[0], 0),
        // One hand, one gun: what is off in one coat is off in all of a layer.
        u_m: on.reduce((a, c) => a + c.film_m[1], 0),
        how: "usual",
      },
    ];
  });
}

/** Flash after a coat at a temperature: its solvent leaves as the flow model has it. @param before what goes on next @throws RangeError */
export const colourFlash = (coat: ColourCoat, before: "colour" | "clear", air_K: number): number =>
  evaporationTime(before === "clear" ? COLOUR_COATS[coat].beforeClear_s : COLOUR_COATS[coat].flash_s, air_K);

/** Coats of colour that a usual base takes: common practice. */
export const USUAL_BASE_COATS = 3;
/** Films of several layers together; one hand and one gun, so their doubts add. */
export const filmOfLayers = (layers: readonly Pick<UnderLayer, "film_m" | "u_m">[]): { film_m: number; u_m: number } => ({
  film_m: layers.reduce((a, l) => a + l.film_m, 0),
  u_m: layers.reduce((a, l) => a + l.u_m, 0),
});

/** Two ground coats below a dear colour save about half of it: common practice. */
export const GROUND_COATS = 2;
export const GROUND_SAVES = 0.5;

/**
 * Colour that the ground coats save, and what is still to spray. @param base_m3 the colour without them @throws RangeError
 */
export function groundSaves(coats: readonly ColourCoat[], base_m3: number): { saved_m3: number; left_m3: number } {
  const whole = requireNumber("base_m3", base_m3, { min: 0 });
  const ground = coats.filter((c) => c === "ground").length;
  const saved_m3 = GROUND_SAVES * Math.min(1, ground / GROUND_COATS) * whole;
  return { saved_m3, left_m3: whole - saved_m3 };
}
