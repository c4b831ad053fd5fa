import { type Bounds, requireNumber } from "../kernel/guard";

/** A span of what may be entered, both ends included. */
type Span = Required<Pick<Bounds, "min" | "max">>;
type Spans = Readonly<Record<string, Span>>;

/**
 * One bound for the door and for what lies behind it: the ledger's bodies, forms, files and devices take what lies in these spans, and the models
 * that work with it guard the same spans. Whatever is accepted can be worked with. SI. Gun: the deposition model's reach, docs/models.md.
 */
export const GUN_BOUNDS = {
  fluidRate_m3_s: { min: 10e-6 / 60, max: 1000e-6 / 60 },
  pressure_Pa: { min: 0.3e5, max: 6e5 },
  distance_m: { min: 0.05, max: 0.5 },
  overlap: { min: 0, max: 0.9 },
  handSpeed_m_s: { min: 0.05, max: 3 },
  fan_m: { min: 0.01, max: 1 },
  reducer: { min: 0, max: 1 },
} as const satisfies Spans;

/** Rows over a part: how far the first lies within its edge, and how far the gun runs past the ends. */
export const ROW_BOUNDS = {
  first_m: { min: -0.2, max: 0.5 },
  overrun_m: { min: 0, max: 0.5 },
} as const satisfies Spans;

/** Air and material as far as the spray models reach, a part up to a bake's end. */
export const CLIMATE_BOUNDS = {
  air_K: { min: 273.15, max: 323.15 },
  material_K: { min: 273.15, max: 333.15 },
  part_K: { min: 260, max: 373.15 },
} as const satisfies Spans;

/** Film: what a gauge shows at all; one layer below the clear, as it is told; what a step or a sanding takes off. */
export const FILM_BOUNDS = {
  total_m: { min: 0, max: 5e-3 },
  /** A total less all that was logged as taken off since it was read, or with all that was laid on. */
  changed_m: { min: -0.1, max: 0.1 },
  layer_m: { min: 0, max: 1e-3 },
  removal_m: { min: 0, max: 1e-3 },
  foil_m: { min: 1e-6, max: 5e-3 },
} as const satisfies Spans;

/** Wait after a coat: after a month it is dry, however much longer. */
export const FLASH_S = { min: 0, max: 30 * 86_400 } as const satisfies Span;

/** The number, when it lies in its span. @throws RangeError that names it */
export const requireWithin = <S extends Spans, K extends keyof S & string>(spans: S, name: K, value: number): number =>
  requireNumber(name, value, spans[name]);
