import { inRange } from "../kernel/guard";
import { remember } from "../kernel/remember";
import { SUBSTRATE_TEXTURE } from "../models/flow/constants";
import type { FlowCoat, ShopFactors } from "../models/flow/simulate-coats";
import { type ProductSheet, timesAt } from "../models/product/sheet";
import { type CoatPlanAsked, MOST_COATS, coatPlan } from "../models/ways/coat-plan";
import type { PlannedCoatRow } from "../models/ways/plan-rows";
import type { HouseWay } from "../models/ways/way";
import { volumeOfCoat } from "../models/ways/way-volumes";
import type { PanelBrief } from "../panel/brief";
import type { CoatState } from "../panel/builds";
import type { ShopFilm } from "../panel/shop-film";
import { newestCoat, nextSide } from "../panel/coats-on";
import type { PanelFacts } from "../panel/derive-panel";
import { wetBuild } from "../panel/wet-build";
import type { Side } from "../record/kinds";
import { airAt } from "./air-log";
import { coatTime_s } from "./coat-time";
import { handGun } from "./next-coat";
import { airOf, nextWait } from "./next-wait";
import { conditionsOf } from "./setting";

/** What the coats to come are worked out from. */
export interface CoatsAsked {
  brief: PanelBrief;
  sheet: ProductSheet;
  way: HouseWay;
  facts: PanelFacts;
  shop?: ShopFactors | undefined;
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
  const on = side === "front" ? facts.coats : facts.backCoats;
  if (on.length >= brief.coatsPlanned) return [];
  const coats = Math.min(MOST_COATS, brief.coatsPlanned);
  if (on.length >= coats) return null;
  const hand = handGun(asked);
  const conditions = conditionsOf(asked, { air_K: airAt(airOf(facts), asked.now_ms), reducer: hand.reducer });
  const rows = planOf({
    way,
    sheet,
    conditions: isOverSanded(facts, side) ? { ...conditions, below: SUBSTRATE_TEXTURE.sanded } : conditions,
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
      const volume = volumeOfCoat(brief.shape.outline, row.gun, { zone: row.zone, trigger: way.trigger });
      const laid = row.build.length >= lie + row.number - on.length ? lie : 0; // none of them once it was sanded between
      return { ...row, side, laid, volume_m3: volume.volume_m3, time_s: coatTime_s(facts, volume) };
    }) ?? null
  );
}

/** The next coat of a face goes on a surface, or on a build on one, that was sanded flat. */
const isOverSanded = ({ builds }: Pick<PanelFacts, "builds">, side: Side): boolean =>
  side === "front" && (builds.length > 1 || (builds.at(-1)?.thinning.length ?? 0) > 0);

/** Coats as they lie: the waits between them as logged, after the newest the least that its window asks for. */
export function laidOn(asked: CoatsAsked, side: Side): FlowCoat[] {
  const { facts, brief } = asked;
  const build: readonly CoatState[] = wetBuild(facts, side);
  const next = nextSide(facts, brief) === side && newestCoat(facts)?.entry.body.side === side ? nextWait(asked) : null;
  const air_K = airAt(airOf(facts), asked.now_ms);
  const least_s = next ? (next.least_ms - next.from_ms) / MS : timesAt(asked.sheet, air_K).flashMin_s;
  return build.map(({ entry }, i) => {
    const after = build[i + 1];
    return {
      gun: entry.body.settings,
      reducer: entry.body.reducer,
      flash_s: Math.max(0, after ? (after.entry.at_ms - entry.at_ms) / MS : least_s),
    };
  });
}
