import type { FlowCoat, FlowConditions } from "../models/flow/simulate-coats";
import { coatsOf, nextSide } from "../panel/coats-on";
import { type CoatsAsked, coatsAhead, laidOn } from "./coats-ahead";
import { nextCoat } from "./next-coat";
import { airNow } from "./next-wait";
import { conditionsOf } from "./setting";

/** A coat that is asked whether it runs, as the flow model is asked. */
export interface WindowAhead {
  number: number;
  conditions: FlowConditions;
  /** The wet coats it goes on, with itself as the last. */
  coats: readonly FlowCoat[];
  /** Of them so many lie there already; those after them are to come, out of the same hand. */
  laid: number;
}

/**
 * The coat that *will it run?* is about: the next one, after all that are planned one more; before anything lies there the second, which may run where the
 * first cannot. As the coats' owner has it; where that lies beyond the model, as it would be sprayed.
 */
export function windowAhead(asked: CoatsAsked): WindowAhead {
  const { facts, brief } = asked;
  const side = nextSide(facts, brief);
  const on = coatsOf(facts, side).length;
  const one: CoatsAsked = { ...asked, brief: { ...brief, coatsPlanned: Math.max(brief.coatsPlanned, on + 1) } };
  const ahead = coatsAhead(one, side);
  const row = ahead && (on === 0 ? (ahead[1] ?? ahead[0]) : ahead[0]);
  if (row) return { number: row.number, conditions: row.conditions, coats: row.build, laid: row.laid };
  const { settings, reducer } = nextCoat(one);
  const laid = laidOn(one, side);
  return {
    number: on + 1,
    conditions: conditionsOf(asked, { air_K: airNow(asked), reducer }),
    coats: [...laid, { gun: settings, reducer, flash_s: 0 }],
    laid: laid.length,
  };
}
