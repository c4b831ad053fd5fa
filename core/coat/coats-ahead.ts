import { inRange } from "../kernel/guard";
import { remember } from "../kernel/remember";
import type { FlowCoat } from "../models/flow/simulate-coats";
import { timesAt } from "../models/product/sheet";
import { type CoatPlanAsked, MOST_COATS, coatPlan } from "../models/ways/coat-plan";
import type { PlannedCoatRow } from "../models/ways/plan-rows";
import type { HouseWay } from "../models/ways/way";
import { volumeOfCoat } from "../models/ways/way-volumes";
import type { ShopFilm } from "../panel/shop-film";
import { coatsOf, newestCoat, nextSide } from "../panel/coats-on";
import { wetBuild } from "../panel/wet-build";
import type { Side } from "../record/kinds";
import { coatTime_s } from "./coat-time";
import { handGun } from "./next-coat";
import { type CourseAsked, airNow, nextWait } from "./next-wait";
import { asTheyLie, conditionsOn } from "./setting";

/** What the coats to come are worked out from. */
export interface CoatsAsked extends CourseAsked {
  /** Doubt of the film that this shop's coats lay; the model's own where none is learnt. */
  shopFilm?: Pick<ShopFilm, "u_log"> | undefined;
  now_ms: number;
}

/** A coat about to be sprayed, as every page has it. */
export interface CoatAhead extends PlannedCoatRow {
  side: Side;
  /** Of its build so many lie there already; the others, before it, are to come as well. */
  laid: number;
  /** Ready-to-spray material through the gun, and how long it takes with all that goes round it. */
  volume_m3: number;
  time_s: number;
}

const MS = 1000;
/** Course, lists and pages of a panel ask the same between two entries: so many panels' are remembered. */
const PANELS = 60;

const planOf = remember(PANELS, ({ way, ...asked }: CoatPlanAsked & { way: HouseWay }) => inRange(() => coatPlan(way, asked)) ?? null);

/**
 * The coats of one face that are still to come, from the coats that lie there as they were logged, what stands mixed and how the part hangs: the one
 * answer for course, coat plan, window, booth plan and mix. Null where a setting lies beyond the flow model.
 */
export function coatsAhead(asked: CoatsAsked, side: Side = nextSide(asked.facts, asked.brief)): readonly CoatAhead[] | null {
  const { brief, facts, way, sheet, shop } = asked;
  const on = coatsOf(facts, side);
  if (on.length >= brief.coatsPlanned) return [];
  const coats = Math.min(MOST_COATS, brief.coatsPlanned);
  if (on.length >= coats) return null;
  const hand = handGun(asked);
  const rows = planOf({
    way,
    sheet,
    conditions: conditionsOn(asked, side, { air_K: airNow(asked), reducer: hand.reducer }),
    gun: hand.settings,
    coats,
    on: on.length,
    laid: laidOn(asked, side),
    mixed: hand.mixed,
    shop,
    u_filmLog: asked.shopFilm?.u_log,
  });
  const lie = wetBuild(facts, side).length;
  return (
    rows?.map((row): CoatAhead => {
      const volume = volumeOfCoat(brief.shape.outline, row.gun, {
        zone: row.zone,
        trigger: way.trigger,
        rows: brief.rows,
        number: row.number,
      });
      const laid = row.build.length >= lie + row.number - on.length ? lie : 0; // none of them once it was sanded between
      return { ...row, side, laid, volume_m3: volume.volume_m3, time_s: coatTime_s(facts, volume) };
    }) ?? null
  );
}

/** Coats as they lie: the waits between them as logged, after the newest the least that its window asks for. */
export function laidOn(asked: CoatsAsked, side: Side): FlowCoat[] {
  const { facts, brief } = asked;
  const next = nextSide(facts, brief) === side && newestCoat(facts)?.entry.body.side === side ? nextWait(asked) : null;
  const least_s = next ? (next.least_ms - next.from_ms) / MS : timesAt(asked.sheet, airNow(asked)).flashMin_s;
  return asTheyLie(wetBuild(facts, side), least_s);
}
