import type { LayerKey } from "../models/prep/layer-names";
import { LAYERS, overcoatOf } from "../models/prep/layers";
import { evaporationTime, timesAt } from "../models/product/sheet";
import { coatsOn, newestOf } from "../panel/coats-on";
import { coatsOfLayers, layerOf } from "../panel/layer-coats";
import type { LayerCoat, LayerState } from "../panel/layers";
import { throughFrom } from "./air-log";
import { asLayer, nextLayer, sheetNow } from "./as-layer";
import { type CourseAsked, airOf, nextWait } from "./next-wait";

/** The wait after the newest coat below the clear. */
export interface LayerWait {
  coat: LayerCoat;
  /** The layer that is sprayed next; null: nothing planned is left below the clear. */
  next: LayerKey | null;
  /** What goes below is planned: with nothing left of it the clear is what is waited for. */
  planned: boolean;
  /** Until the next coat below the clear, whichever layer it builds. */
  next_ms: number;
  /** Until another product, clear too, goes on what is on now; when it must be scuffed first. */
  over_ms: number;
  scuff_ms: number;
}

const MS = 1000;

/** Null where none was logged, and once clear is on. @throws RangeError */
export function layerWait(asked: CourseAsked): LayerWait | null {
  const { facts, brief } = asked;
  const coat = newestOf(coatsOfLayers(facts.below));
  if (!coat || coatsOn(facts) > 0 || facts.handedOver) return null;
  const layer = layerOf(facts.below, coat.layer)!;
  const from_ms = coat.entry.at_ms;
  const { over_ms, scuff_ms } = overcoatFrom(asked, layer, from_ms);
  const next = nextLayer(facts, brief);
  const own_ms = next ? (nextWait(asLayer(asked, next))?.least_ms ?? from_ms) : from_ms;
  const on_ms = next?.layer === layer.layer ? from_ms : goesOnFrom(asked, { layer, end_ms: from_ms, next: next?.layer ?? layer.layer });
  return { coat, next: next?.layer ?? null, planned: facts.layerPlan !== null, next_ms: Math.max(own_ms, on_ms), over_ms, scuff_ms };
}

/** From when on a layer goes on one that was finished then: more of the same colour after its flash, another product when it bears one. @throws RangeError */
export function goesOnFrom(
  asked: Pick<CourseAsked, "facts">,
  { layer, end_ms, next }: { layer: Pick<LayerState, "layer" | "sheet">; end_ms: number; next: LayerKey },
): number {
  if (LAYERS[next].layer !== LAYERS[layer.layer].layer) return overcoatFrom(asked, layer, end_ms).over_ms;
  const sheet = sheetNow(layer, asked.facts);
  return end_ms + throughFrom(airOf(asked.facts), end_ms)((T) => timesAt(sheet, T).flashMin_s) * MS;
}

/** From when on another product goes on a layer that was finished then, at the temperatures that were, and until when without scuffing. @throws RangeError */
export function overcoatFrom(
  { facts }: Pick<CourseAsked, "facts">,
  layer: Pick<LayerState, "layer" | "sheet">,
  end_ms: number,
): { over_ms: number; scuff_ms: number } {
  const { min_s, max_s } = overcoatOf(layer.layer, sheetNow(layer, facts));
  const over_ms = end_ms + throughFrom(airOf(facts), end_ms)((T) => evaporationTime(min_s, T)) * MS;
  return { over_ms, scuff_ms: Math.max(over_ms, end_ms + max_s * MS) };
}
