import { requireNumber } from "../../kernel/guard";
import { toSi } from "../../kernel/units/convert";
import type { ProductKind } from "../product/kinds";
import type { ProductSheet } from "../product/sheet";
import type { GunSettings } from "../spray/deposit";
import { fluidFromTurns } from "../spray/fluid-from-turns";
import { LAYER_NAMES, type LayerKey } from "./layer-names";
import type { UnderLayer, UnderStepId } from "./under-clear";

/** A gun as it is usual for a layer. */
export type LayerGun = GunSettings & { turns: number };

export interface LayerSpec {
  /** The layer of the section that it builds. */
  layer: UnderStepId;
  /** Products of the shelf that it is sprayed with. */
  kinds: readonly ProductKind[];
  /** A sheet of nobody's product, where no sheet is known: common practice. */
  sheet: ProductSheet;
  gun: LayerGun;
}

const MINUTE_S = 60;
const HOUR_S = 3600;
const DAY_S = 86_400;

/** What a sheet has where nobody says otherwise; the same as the schema of a sheet gives. */
const PLAIN = {
  density_kg_m3: null,
  voc_kg_m3: null,
  waterShare: 0,
  exemptShare: 0,
  exemptDensity_kg_m3: null,
  viscosity: null,
  window: null,
  keepsDays: null,
  secondPart: null,
  speed: "medium",
  dustFree_s: null,
  tape_s: null,
  polish_s: null,
  wax_s: null,
  bake: null,
  floor_m: null,
  blendWith: "",
  settles_s: null,
  carrier: null,
  gun: null,
} as const satisfies Partial<ProductSheet>;

interface Usual {
  name: string;
  kind: ProductSheet["kind"];
  solids: number;
  coats: number;
  /** Film a coat, µm; flash between its own coats, until another product, and when it must be scuffed. */
  film_um: readonly [number, number];
  flash_s: readonly [number, number];
  overcoat_s: readonly [number, number];
  pot_s?: number;
  ratio?: string;
  reducer?: readonly [number, number];
}

const usualSheet = ({
  name,
  kind,
  solids,
  coats,
  film_um,
  flash_s,
  overcoat_s,
  pot_s = 7 * DAY_S,
  ratio = "",
  reducer = [0, 0],
}: Usual): ProductSheet => ({
  ...PLAIN,
  flashAt: [],
  potLifeAt: [],
  goesWith: [],
  levels: [],
  name: `usual ${name}`,
  kind,
  ratio,
  reducerMin: reducer[0],
  reducerMax: reducer[1],
  volumeSolids: solids,
  coats,
  filmPerCoatMin_m: film_um[0] / 1e6,
  filmPerCoatMax_m: film_um[1] / 1e6,
  flashMin_s: flash_s[0],
  flashMax_s: flash_s[1],
  overcoat: { min_s: overcoat_s[0], max_s: overcoat_s[1] },
  potLife_s: pot_s,
  sandAfter_s: Math.max(3 * HOUR_S, overcoat_s[0]),
});

/** A gun by the turns of its needle, pressure at the gun, psi, distance and hand. */
const gun = ([turns, psi, distance_m, handSpeed_m_s]: readonly [number, number, number, number]): LayerGun => ({
  turns,
  fluidRate_m3_s: fluidFromTurns(turns).fluidRate_m3_s,
  pressure_Pa: toSi("pressure", psi, "psi"),
  distance_m,
  overlap: 0.5,
  handSpeed_m_s,
});

/**
 * What is sprayed below the clear, from below up: the layer it builds, what it is sprayed with where the sheet in the hand does not say, and with
 * which gun. Common practice: film a coat, flash, until another product goes on (within a day, then it is scuffed), at 20 °C.
 */
export const LAYERS = {
  prime: {
    layer: "prime",
    kinds: ["primer"],
    sheet: usualSheet({
      name: LAYER_NAMES.prime,
      kind: "primer",
      solids: 0.42,
      coats: 2,
      film_um: [28, 45],
      flash_s: [8 * MINUTE_S, HOUR_S],
      overcoat_s: [3 * HOUR_S, 30 * DAY_S],
      pot_s: HOUR_S,
      ratio: "4:1",
      reducer: [0.1, 0.2],
    }),
    gun: gun([3, 28, 0.175, 0.3]),
  },
  seal: {
    layer: "seal",
    kinds: ["sealer", "primer"],
    sheet: usualSheet({
      name: LAYER_NAMES.seal,
      kind: "sealer",
      solids: 0.42,
      coats: 1,
      film_um: [16, 28],
      flash_s: [15 * MINUTE_S, HOUR_S],
      overcoat_s: [15 * MINUTE_S, DAY_S],
      pot_s: HOUR_S,
      ratio: "4:1",
      reducer: [0, 0.3],
    }),
    gun: gun([2.25, 24, 0.175, 0.34]),
  },
  ground: {
    layer: "ground",
    kinds: ["base"],
    sheet: usualSheet({
      name: LAYER_NAMES.ground,
      kind: "base",
      solids: 0.12,
      coats: 2,
      film_um: [3.5, 6.5],
      flash_s: [8 * MINUTE_S, HOUR_S],
      overcoat_s: [8 * MINUTE_S, DAY_S],
    }),
    gun: gun([2, 20, 0.175, 0.42]),
  },
  base: {
    layer: "base",
    kinds: ["base"],
    sheet: usualSheet({
      name: LAYER_NAMES.base,
      kind: "base",
      solids: 0.14,
      coats: 3,
      film_um: [4.5, 8.5],
      flash_s: [8 * MINUTE_S, HOUR_S],
      overcoat_s: [20 * MINUTE_S, DAY_S],
    }),
    gun: gun([2, 20, 0.175, 0.4]),
  },
  blend: {
    layer: "base",
    kinds: ["base", "blender"],
    sheet: usualSheet({
      name: LAYER_NAMES.blend,
      kind: "blender",
      solids: 0.06,
      coats: 1,
      film_um: [1, 3],
      flash_s: [5 * MINUTE_S, HOUR_S],
      overcoat_s: [20 * MINUTE_S, DAY_S],
    }),
    gun: gun([1.5, 15, 0.15, 0.5]),
  },
  drop: {
    layer: "base",
    kinds: ["base"],
    sheet: usualSheet({
      name: LAYER_NAMES.drop,
      kind: "base",
      solids: 0.14,
      coats: 1,
      film_um: [1, 3],
      flash_s: [5 * MINUTE_S, HOUR_S],
      overcoat_s: [15 * MINUTE_S, DAY_S],
    }),
    gun: gun([1.5, 20, 0.25, 0.55]),
  },
} as const satisfies Record<LayerKey, LayerSpec>;
export const layerSpec = (layer: LayerKey): LayerSpec => LAYERS[layer];

/** A sealer is reduced so much more than its sheet's least to lie flat, as far as the sheet allows it: common practice, 20 to 30 %. */
const SEALER_MORE = 0.25;

/** The reducer that a layer is mixed with where nobody has mixed it yet. */
export const usualReducer = (layer: LayerKey, { reducerMin, reducerMax }: Pick<ProductSheet, "reducerMin" | "reducerMax">): number =>
  layer === "seal" ? Math.max(reducerMin, Math.min(reducerMax, reducerMin + SEALER_MORE)) : reducerMin;

/** Until another product goes on it, and how long at most before it is scuffed; where a sheet does not say, as is usual for the layer. */
export const overcoatOf = (layer: LayerKey, sheet: Pick<ProductSheet, "overcoat" | "flashMin_s">): { min_s: number; max_s: number } => {
  if (sheet.overcoat) return sheet.overcoat;
  const { min_s, max_s } = layerSpec(layer).sheet.overcoat!;
  return { min_s: Math.max(min_s, sheet.flashMin_s), max_s };
};

/** Film of a coat whose settings nobody told: the middle of what its sheet says, its standard uncertainty half of that range. */
export const usualFilm = ({ filmPerCoatMin_m, filmPerCoatMax_m }: Pick<ProductSheet, "filmPerCoatMin_m" | "filmPerCoatMax_m">) => ({
  film_m: (filmPerCoatMin_m + filmPerCoatMax_m) / 2,
  u_m: (filmPerCoatMax_m - filmPerCoatMin_m) / 2,
});

/** Film of one coat of a layer with its standard uncertainty; by its settings, or as usual. */
export interface LayerFilm {
  layer: LayerKey;
  film_m: number;
  u_m: number;
  how: "forecast" | "usual";
}

const FROM_BELOW = ["prime", "seal", "ground", "base"] as const satisfies readonly UnderStepId[];

/** Films that the logged coats add, from below up. One hand, one gun: what is off in one coat is off in all of a layer. */
export function layersLaid(coats: readonly LayerFilm[]): UnderLayer[] {
  return FROM_BELOW.flatMap((step): UnderLayer[] => {
    const on = coats.filter((c) => LAYERS[c.layer].layer === step);
    if (on.length === 0) return [];
    return [{ step, ...filmOfLayers(on), how: on.every((c) => c.how === "forecast") ? "forecast" : "usual" }];
  });
}

/** Films of several layers together; one hand and one gun, so their doubts add. */
export const filmOfLayers = (layers: readonly Pick<UnderLayer, "film_m" | "u_m">[]): { film_m: number; u_m: number } => ({
  film_m: layers.reduce((a, l) => a + l.film_m, 0),
  u_m: layers.reduce((a, l) => a + l.u_m, 0),
});

/** Two ground coats below a dear colour save about half of it: common practice. */
const GROUND_COATS = 2;
const GROUND_SAVES = 0.5;
/** Share of a base that ground coats below it save. @throws RangeError */
export const groundShare = (ground: number): number =>
  GROUND_SAVES * Math.min(1, requireNumber("ground", ground, { min: 0 }) / GROUND_COATS);

/**
 * Colour that ground coats save, and what is still to spray. @param ground how many are on or planned @param base_m3 the colour without them
 * @throws RangeError
 */
export function groundSaves(ground: number, base_m3: number): { saved_m3: number; left_m3: number } {
  const whole = requireNumber("base_m3", base_m3, { min: 0 });
  const saved_m3 = groundShare(ground) * whole;
  return { saved_m3, left_m3: whole - saved_m3 };
}
