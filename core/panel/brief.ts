import type { PanelShape } from "../kernel/geometry/shapes";
import type { RowPlan } from "../models/spray/row-plan";
import type { StackWeights } from "../models/film/stack-prior";

export const SUBSTRATES = {
  factory: { name: "Factory finish below", weights: { factory: 1, refinish: 0 } },
  refinish: { name: "Refinished before", weights: { factory: 0, refinish: 1 } },
  plastic: { name: "Plastic or composite", weights: { factory: 0, refinish: 1 } },
  unknown: { name: "History not known", weights: { factory: 0.8, refinish: 0.2 } },
} as const satisfies Record<string, { name: string; weights: StackWeights }>;
/** No magnetic gauge reads there: a metal strip beside the part does, or the film is foretold. */
export const noGaugeReads = (substrate: Substrate): boolean => substrate === "plastic";
export type Substrate = keyof typeof SUBSTRATES;

/** A panel as planned: what does not change while it is worked on. */
export interface PanelBrief {
  shape: PanelShape;
  substrate: Substrate;
  /** Inclination of the surface: π/2 vertical, 0 horizontal. */
  tilt_rad: number;
  /** Where the rows of its coats lie, once somebody has planned them. */
  rows?: RowPlan | undefined;
  /** Coats on each face. */
  coatsPlanned: number;
  /** Faces that are sprayed; of two the back comes first, and only the front is read and judged. */
  sides?: 1 | 2 | undefined;
}
