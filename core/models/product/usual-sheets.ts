import type { SheetInput } from "./sheet";
import { SHEET_K } from "./sheet-air";

const HOUR_S = 3600;
const DAY_S = 24 * HOUR_S;
const BAKE = { part_K: 333.15, time_s: 1800 } as const;
const WINDOW = { low_K: 288.15, high_K: 303.15 } as const;

const clear = (name: string, over: Partial<SheetInput> & { ratio: string; volumeSolids: number }) =>
  ({
    name,
    usual: true,
    kind: "clear",
    reducerMin: 0,
    reducerMax: 0.1,
    speed: "medium",
    coats: 2,
    filmPerCoatMin_m: 25e-6,
    filmPerCoatMax_m: 32e-6,
    flashMin_s: 600,
    flashMax_s: 2700,
    potLife_s: 1.5 * HOUR_S,
    sandAfter_s: 16 * HOUR_S,
    dustFree_s: 1200,
    polish_s: 24 * HOUR_S,
    wax_s: 60 * DAY_S,
    bake: BAKE,
    density_kg_m3: 1000,
    viscosity: { cup: "iso4", efflux_s: 32, temperature_K: SHEET_K },
    window: WINDOW,
    floor_m: null,
    ...over,
  }) as SheetInput;
const part = (name: string, kind: "hardener" | "reducer", density_kg_m3: number): SheetInput => ({
  name,
  usual: true,
  kind,
  speed: "medium",
  density_kg_m3,
  window: WINDOW,
});

const HARDENER = part("Usual hardener, medium", "hardener", 1050);
const REDUCER = part("Usual reducer, medium", "reducer", 870);
const goesWith = [HARDENER.name, REDUCER.name];

/**
 * First clears for a shop that has no sheet at hand, each with its hardener and reducer. Common practice of the trade, no source; from memory, nobody's
 * product: every figure is marked as usual until the product's own sheet takes its place.
 */
export const USUAL_SHEETS = {
  high: { sheets: [clear("Usual clear 2:1", { ratio: "2:1", volumeSolids: 0.48, goesWith }), HARDENER, REDUCER] },
  four: {
    sheets: [
      clear("Usual clear 4:1", { ratio: "4:1", volumeSolids: 0.42, coats: 3, filmPerCoatMin_m: 20e-6, filmPerCoatMax_m: 28e-6, goesWith }),
      HARDENER,
      REDUCER,
    ],
  },
  one: {
    sheets: [
      clear("Usual clear 1:1", { ratio: "1:1", volumeSolids: 0.44, speed: "fast", potLife_s: HOUR_S, sandAfter_s: 4 * HOUR_S, goesWith }),
      HARDENER,
      REDUCER,
    ],
  },
  matte: {
    sheets: [
      clear("Usual matte clear", {
        kind: "matte clear",
        ratio: "2:1",
        volumeSolids: 0.42,
        filmPerCoatMin_m: 22e-6,
        filmPerCoatMax_m: 28e-6,
        flashMin_s: 900,
        flashMax_s: 1800,
        bake: null,
        sandAfter_s: DAY_S,
        blendWith: "Usual clear 2:1",
        goesWith,
      }),
      clear("Usual clear 2:1", { ratio: "2:1", volumeSolids: 0.48, goesWith }),
      HARDENER,
      REDUCER,
    ],
  },
  single: {
    sheets: [clear("Usual single stage", { kind: "single stage", ratio: "2:1", volumeSolids: 0.5, goesWith }), HARDENER, REDUCER],
  },
} as const satisfies Record<string, { sheets: readonly SheetInput[] }>;
export type UsualSheet = keyof typeof USUAL_SHEETS;
export const USUAL_SHEET_IDS = Object.keys(USUAL_SHEETS) as [UsualSheet, ...UsualSheet[]];
