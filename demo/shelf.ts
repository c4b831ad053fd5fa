import type { CardBody } from "#core/models/cards/card";
import { type SheetInput, SHEET_K } from "#core/models/product/sheet";

const C = 273.15;
const WARM_K = 303.15;
const HOUR_S = 3600;
const DAY_S = 24 * HOUR_S;
const window = (low_C: number, high_C: number) => ({ low_K: low_C + C, high_K: high_C + C });

/** Invented products of an invented shop. */
export const CLEAR_21 = {
  name: "Clear 21",
  kind: "clear",
  ratio: "2:1",
  reducerMin: 0.05,
  reducerMax: 0.1,
  volumeSolids: 0.48,
  speed: "medium",
  coats: 2,
  filmPerCoatMin_m: 25e-6,
  filmPerCoatMax_m: 32e-6,
  flashMin_s: 600,
  flashMax_s: 2700,
  flashAt: [{ temperature_K: WARM_K, min_s: 420, max_s: 1800 }],
  potLife_s: 5400,
  potLifeAt: [{ temperature_K: WARM_K, life_s: 2700 }],
  sandAfter_s: 57600,
  dustFree_s: 900,
  tape_s: 8 * HOUR_S,
  polish_s: 24 * HOUR_S,
  wax_s: 75 * DAY_S,
  bake: { part_K: 60 + C, time_s: 1800 },
  density_kg_m3: 990,
  voc_kg_m3: 470,
  viscosity: { cup: "iso4", efflux_s: 32, temperature_K: SHEET_K },
  window: window(15, 30),
  floor_m: null,
} satisfies SheetInput;
export const CLEAR_41 = {
  name: "Clear 41 slow",
  kind: "clear",
  ratio: "4:1",
  volumeSolids: 0.44,
  speed: "slow",
  coats: 3,
  filmPerCoatMin_m: 20e-6,
  filmPerCoatMax_m: 28e-6,
  flashMin_s: 900,
  flashMax_s: 3600,
  flashAt: [{ temperature_K: WARM_K, min_s: 600, max_s: 2400 }],
  potLife_s: 10800,
  potLifeAt: [{ temperature_K: WARM_K, life_s: 5400 }],
  sandAfter_s: 86400,
  dustFree_s: 1500,
  polish_s: 36 * HOUR_S,
  wax_s: 90 * DAY_S,
  bake: { part_K: 60 + C, time_s: 2400 },
  density_kg_m3: 1000,
  voc_kg_m3: 510,
  window: window(18, 32),
  floor_m: 38e-6,
} satisfies SheetInput;
export const MATTE_M = {
  name: "Matte M",
  kind: "matte clear",
  ratio: "2:1",
  reducerMin: 0.05,
  reducerMax: 0.1,
  volumeSolids: 0.42,
  speed: "medium",
  coats: 2,
  filmPerCoatMin_m: 22e-6,
  filmPerCoatMax_m: 28e-6,
  flashMin_s: 900,
  flashMax_s: 1800,
  potLife_s: 7200,
  potLifeAt: [{ temperature_K: WARM_K, life_s: 3600 }],
  sandAfter_s: 86400,
  density_kg_m3: 1010,
  voc_kg_m3: 520,
  window: window(18, 28),
  levels: [
    { share: 0, gloss60_GU: 88 },
    { share: 0.4, gloss60_GU: 44 },
    { share: 0.55, gloss60_GU: 30 },
    { share: 0.7, gloss60_GU: 20 },
    { share: 0.85, gloss60_GU: 13 },
    { share: 1, gloss60_GU: 8 },
  ],
  floor_m: null,
} satisfies SheetInput;
export const SHELF_PARTS = [
  { name: "Hardener H medium", kind: "hardener", speed: "medium", density_kg_m3: 1050, voc_kg_m3: 310, window: window(18, 28) },
  { name: "Hardener HS slow", kind: "hardener", speed: "slow", density_kg_m3: 1060, voc_kg_m3: 290, window: window(24, 35) },
  { name: "Hardener M matte", kind: "hardener", speed: "medium", density_kg_m3: 1040, voc_kg_m3: 330, keepsDays: 60 },
  { name: "Reducer R medium", kind: "reducer", speed: "medium", density_kg_m3: 870, voc_kg_m3: 870 },
  { name: "Reducer R slow", kind: "reducer", speed: "slow", density_kg_m3: 880, voc_kg_m3: 880 },
] satisfies SheetInput[];

const card = (
  share: number,
  gloss60: readonly number[],
  more: Partial<Omit<CardBody, "productName" | "productRevisionId">> = {},
): Omit<CardBody, "productName" | "productRevisionId"> => ({
  name: `Matte M ${Math.round(share * 100)} %`,
  mix: `M ${Math.round(share * 100)} : gloss ${Math.round((1 - share) * 100)}, 2:1 + 5 %`,
  mattingShare: share,
  reducer: 0.05,
  base: "graphite base",
  orientation: "vertical",
  coats: 2,
  dryFilm_m: 50e-6,
  cure: "air",
  place: "board by the mixing room",
  gloss: [
    ...gloss60.map((gloss_GU) => ({ angle: 60 as const, gloss_GU })),
    { angle: 85, gloss_GU: Math.round((gloss60[0]! * 1.3 + 12) * 10) / 10 },
  ],
  colour: "open",
  glossVerdict: "open",
  texture: "open",
  note: "",
  photoIds: [],
  ...more,
});
/** Six cards of one ladder, and one pair that shows what the oven does. */
export const MATTE_CARDS = [
  card(0, [88.1, 87.6]),
  card(0.4, [43.2, 44.1, 43.6]),
  card(0.6, [26.2, 25.6, 26.0]),
  card(0.75, [17.1, 17.8, 17.3]),
  card(0.85, [12.4, 12.9, 12.6], {
    glossVerdict: "match",
    colour: "match",
    texture: "match",
    note: "Nearest to the cargo box in daylight.",
  }),
  card(1, [7.9, 8.2]),
  card(0.75, [20.6, 21.3, 20.9], { cure: "forced", name: "Matte M 75 %, baked" }),
] as const;
