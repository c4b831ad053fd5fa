import { requireInteger, requireNumber } from "../../kernel/guard";
import { FLOW } from "../flow/constants";
import { type FlowConditions, NO_SHOP_FACTORS, type ShopFactors, filmRates } from "../flow/simulate-coats";
import { SPRAY } from "../spray/constants";
import { freeVolumeOffset, viscosityAt } from "../spray/viscosity";
import { CELL_M, MOST_CELLS, SIDE_M } from "./constants";

/** What a coat is sprayed in, as the coat's owner sets it (core/coat). */
export type FilmConditions = Omit<FlowConditions, "edge" | "below" | "fanBeta">;

/**
 * A panel seen from above, in square cells, row by row from its upper edge; x to the right, y down the slope. Every array has one number for each
 * cell, so that all of it can be handed to a worker and back.
 */
export interface PanelFilm {
  readonly columns: number;
  readonly rows: number;
  readonly cell_m: number;
  readonly rates: FilmRates;
  /** ρg along the slope and into the panel at each row of cells, Pa/m; along is below zero where the face falls towards its upper edge. */
  readonly along_Pa_m: Float64Array;
  readonly into_Pa_m: Float64Array;
  /** 1 on the panel, 0 beside it. */
  readonly inside: Uint8Array;
  /** Which of the four cells beside it are on the panel, one bit each ({@link AROUND}). */
  readonly around: Uint8Array;
  /** Solids and solvent that can move, solids that cannot, m. */
  readonly solids_m: Float64Array;
  readonly solvent_m: Float64Array;
  readonly fixed_m: Float64Array;
  /** Solvent that the fixed film below still takes from what lands, m. */
  readonly thirst_m: Float64Array;
  /** Age of what moves, weighted by mass, s. */
  readonly age_s: Float64Array;
  /** How old what lay below was when this coat's first drops fell on it, s; {@link NOTHING_BELOW_S} where nothing did. */
  readonly wait_s: Float64Array;
  /** How far the surface of this coat has slid, and the farthest of the coats before, m. */
  readonly slide_m: Float64Array;
  readonly slideBefore_m: Float64Array;
  /** The coat that wetted a cell last; 0 where none has. */
  readonly coat: Int16Array;
  /** 1 where a film lies that no longer moves. */
  readonly still: Uint8Array;
  /** Work of one step: depth, mobility, pressure, and what comes and goes. */
  readonly depth_m: Float64Array;
  readonly mobility: Float64Array;
  readonly pressure_Pa: Float64Array;
  readonly solidsChange_m: Float64Array;
  readonly solventChange_m: Float64Array;
  readonly sums: FilmSums;
}

/** A wait after which what lies below is as hard as what never was wet, s. */
export const NOTHING_BELOW_S = 1e7;

/** Bits of {@link PanelFilm.around}. */
export const AROUND = { left: 1, right: 2, up: 4, down: 8, all: 15 } as const;

export interface FilmSums {
  time_s: number;
  /** Liquid through the nozzle, m³. */
  used_m3: number;
  /** Solids that left the nozzle, that landed, and that dripped off the lower edge, m³. */
  sprayed_m3: number;
  landed_m3: number;
  dripped_m3: number;
  /** Share of a cell that went over one of its faces in a second, at the most, in the last step. */
  fastest_1_s: number;
}

/** What drying, thickening and sliding go by under one set of conditions. */
export interface FilmRates {
  conditions: FilmConditions;
  shop: ShopFactors;
  evaporation_m_s: number;
  cure_1_s: number;
  /** ln η = this + B/(u + offset) + cure·age. */
  lnViscosity: number;
  offset: number;
}

/** How a face lies from its upper edge to its lower one, evenly between: a tank from flank to flank goes from −π/2 over 0 to π/2. Below zero it falls upwards. */
export interface FaceCurve {
  from_rad: number;
  to_rad: number;
}

/** @throws RangeError */
export function filmRatesOf(conditions: FilmConditions, shop: ShopFactors = NO_SHOP_FACTORS): FilmRates {
  for (const key of ["film", "levelling"] as const) requireNumber(`shop.${key}`, shop[key], { min: 0.05, max: 20 });
  const { air_K, volumeSolids } = conditions;
  const reference = { viscosity_Pa_s: conditions.viscosity22C_Pa_s ?? SPRAY.viscosityRef_Pa_s, volumeSolids };
  const offset = freeVolumeOffset(air_K);
  const at = 1; // any composition: what depends on it is taken off again
  return {
    conditions,
    shop,
    ...filmRates(conditions),
    offset,
    lnViscosity: Math.log((FLOW.filmFactor / shop.levelling) * viscosityAt(at, air_K, reference)) - SPRAY.freeVolumeB / (at + offset),
  };
}

/** Weight of a film along the slope of each row of cells (below zero: towards the upper edge) and into the panel, ρg sin α and ρg cos α, Pa/m. */
function weights(rows: number, tilt_rad: number, curve: FaceCurve | undefined): Pick<PanelFilm, "along_Pa_m" | "into_Pa_m"> {
  const flat = requireNumber("tilt_rad", tilt_rad, { min: 0, max: Math.PI });
  const [from, to] = curve ? [requireNumber("from_rad", curve.from_rad, TURN), requireNumber("to_rad", curve.to_rad, TURN)] : [flat, flat];
  const tilts = Float64Array.from({ length: rows }, (_, j) => from + ((to - from) * (j + 0.5)) / rows);
  const weight_Pa_m = FLOW.density_kg_m3 * FLOW.gravity_m_s2;
  return {
    along_Pa_m: tilts.map((t) => weight_Pa_m * Math.sin(t)),
    into_Pa_m: tilts.map((t) => weight_Pa_m * Math.max(0, Math.cos(t))),
  };
}
const TURN = { min: -Math.PI, max: Math.PI } as const;

/** Low-shear viscosity of a film of this composition and age, Pa·s. */
export const filmViscosity = ({ lnViscosity, offset, cure_1_s }: FilmRates, composition: number, age_s: number): number =>
  Math.exp(lnViscosity + SPRAY.freeVolumeB / (composition + offset) + cure_1_s * age_s);

/** Share of what was wetted last at a cell that can still move, 0 to 1: 1/(1 + η/8 Pa·s), as the flow model has it. */
export const mobileShare = ({ rates, solids_m, solvent_m, age_s }: PanelFilm, cell: number): number =>
  solids_m[cell]! > 0 ? 1 / (1 + filmViscosity(rates, solvent_m[cell]! / solids_m[cell]!, age_s[cell]!) / FLOW.lock_Pa_s) : 0;

/**
 * A bare panel.
 * @param o.cell_m side of a cell; the panel is as many whole cells as come nearest @param o.inside whether a place is on the panel: its outline and what is cut out
 * @param o.curve of a face that does not lie flat: else all of it lies as the conditions say
 * @throws RangeError for a panel of no size or too many cells
 */
export function panelFilm(
  o: { width_m: number; height_m: number; cell_m: number; inside?: (x_m: number, y_m: number) => boolean; curve?: FaceCurve | undefined },
  conditions: FilmConditions,
  shop: ShopFactors = NO_SHOP_FACTORS,
): PanelFilm {
  const cell_m = requireNumber("cell_m", o.cell_m, CELL_M);
  const columns = requireInteger("columns", Math.round(requireNumber("width_m", o.width_m, SIDE_M) / cell_m), { min: 2 });
  const rows = requireInteger("rows", Math.round(requireNumber("height_m", o.height_m, SIDE_M) / cell_m), { min: 2 });
  const n = requireInteger("cells", columns * rows, { max: MOST_CELLS });
  const rates = filmRatesOf(conditions, shop);
  const inside = new Uint8Array(n);
  for (let j = 0; j < rows; j++)
    for (let i = 0; i < columns; i++) inside[j * columns + i] = (o.inside?.((i + 0.5) * cell_m, (j + 0.5) * cell_m) ?? true) ? 1 : 0;
  const on = (i: number, j: number, bit: number) =>
    i >= 0 && i < columns && j >= 0 && j < rows && inside[j * columns + i] === 1 ? bit : 0;
  const around = Uint8Array.from({ length: n }, (_, c) => {
    const [i, j] = [c % columns, Math.floor(c / columns)];
    return on(i - 1, j, AROUND.left) | on(i + 1, j, AROUND.right) | on(i, j - 1, AROUND.up) | on(i, j + 1, AROUND.down);
  });
  const each = () => new Float64Array(n);
  return {
    columns,
    rows,
    cell_m,
    rates,
    ...weights(rows, conditions.tilt_rad, o.curve),
    inside,
    around,
    solids_m: each(),
    solvent_m: each(),
    fixed_m: each(),
    thirst_m: each(),
    age_s: each(),
    wait_s: each(),
    slide_m: each(),
    slideBefore_m: each(),
    coat: new Int16Array(n),
    still: new Uint8Array(n),
    depth_m: each(),
    mobility: each(),
    pressure_Pa: each(),
    solidsChange_m: each(),
    solventChange_m: each(),
    sums: { time_s: 0, used_m3: 0, sprayed_m3: 0, landed_m3: 0, dripped_m3: 0, fastest_1_s: 0 },
  };
}

/** A panel that stands as this one does: what is done to one leaves the other alone. */
export function copyFilm(film: PanelFilm): PanelFilm {
  const copy: Record<string, unknown> = { ...film, sums: { ...film.sums } };
  for (const [key, value] of Object.entries(film)) if (ArrayBuffer.isView(value)) copy[key] = (value as Float64Array).slice();
  return copy as unknown as PanelFilm;
}

/** What lies there has gone hard and is sanded before the next coat: all of it fixed, none of it drinks. What the paper takes is not worked out here. */
export function hardened(film: PanelFilm): void {
  const { solids_m, solvent_m, fixed_m, thirst_m, slide_m, slideBefore_m } = film;
  for (let c = 0; c < solids_m.length; c++) {
    fixed_m[c]! += solids_m[c]!;
    solids_m[c] = solvent_m[c] = thirst_m[c] = 0;
    slideBefore_m[c] = Math.max(slideBefore_m[c]!, slide_m[c]!);
    slide_m[c] = 0;
  }
}

/** Film of a cell when every solvent has gone, m. */
export const dryFilm = (film: PanelFilm, cell: number): number => film.solids_m[cell]! + film.fixed_m[cell]!;
/** Farthest that the surface of any coat has slid there, m. */
export const farthestSlide = (film: PanelFilm, cell: number): number => Math.max(film.slide_m[cell]!, film.slideBefore_m[cell]!);
/** Solids on the panel, m³. */
export function solidsOn(film: PanelFilm): number {
  let sum = 0;
  for (let c = 0; c < film.solids_m.length; c++) sum += dryFilm(film, c);
  return sum * film.cell_m ** 2;
}
