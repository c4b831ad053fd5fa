import { inRange } from "../kernel/guard";
import type { LayerKey } from "../models/prep/layer-names";
import { flowsAsClear } from "../models/product/sheet";
import { facesOf } from "../panel/coats-on";
import { layerOf } from "../panel/layer-coats";
import type { LayerState } from "../panel/layers";
import { asLayer } from "./as-layer";
import { type CoatAhead, type CoatsAsked, coatsAhead } from "./coats-ahead";
import { type Litres, litresAgain, litresToCome } from "./litres";
import { potLifeNow } from "./pot-life";

/** A layer below the clear with its coats to come, as every page has it. */
export interface LayerAhead {
  layer: LayerKey;
  state: LayerState;
  /** The question as it is asked for this layer. */
  asked: CoatsAsked;
  /** Its coats to come, back before front; null: a setting lies beyond the flow model. */
  coats: readonly CoatAhead[] | null;
  /** The model knows how it flows. */
  flows: boolean;
  /** Null: nobody could have sprayed with what was logged. */
  litres: Litres | null;
  potLife_s: number;
}

/** The layers of the panel below its clear, from below up. @throws RangeError */
export function layersAhead(asked: CoatsAsked): LayerAhead[] {
  return asked.facts.below.map((state): LayerAhead => {
    const own = asLayer(asked, state);
    const faces = facesOf(own.brief).map((side) => coatsAhead(own, side));
    return {
      layer: state.layer,
      state,
      asked: own,
      coats: faces.every((f) => f !== null) ? faces.flat() : null,
      flows: flowsAsClear(state.sheet),
      litres: inRange(() => litresToCome(own)) ?? null,
      potLife_s: potLifeNow(own),
    };
  });
}

/** Colour that a panel's base, or single stage, takes in all from the first coat on: ground coats below save a share of this. @throws RangeError */
export function colourInAll_m3(asked: CoatsAsked): number {
  if (asked.facts.coloured) return litresAgain(asked).sprayed_m3;
  const base = layerOf(asked.facts.below, "base");
  return base ? litresAgain(asLayer(asked, base)).sprayed_m3 : 0;
}
