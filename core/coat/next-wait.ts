import type { ShopFactors } from "../models/flow/simulate-coats";
import type { ProductSheet } from "../models/product/sheet";
import { turnAfter_s } from "../models/ways/after-last-coat";
import { type HouseWay, plannedCoat } from "../models/ways/way";
import { type CoatWait, waitAfter } from "../models/ways/wait-after";
import type { PanelBrief } from "../panel/brief";
import type { CoatState } from "../panel/builds";
import type { PanelFacts } from "../panel/derive-panel";
import { asTheyLie, conditionsOn } from "./setting";
import { isAllOn, newestCoat, nextSide } from "../panel/coats-on";
import { type HandAsked, nextCoat } from "./next-coat";
import { isTurned, wetBuild } from "../panel/wet-build";
import { type AirLog, airAt, airLog, throughFrom } from "./air-log";
import { cureOf, stageAt } from "./cure";

/** What a panel's course is worked out from. */
export interface CourseAsked {
  brief: PanelBrief;
  sheet: ProductSheet;
  way: HouseWay;
  facts: PanelFacts;
  shop?: ShopFactors | undefined;
  /** What nobody's gun and mix begin with, where that is not the way's gun and the sheet's least. */
  start?: HandAsked["start"];
  tried?: HandAsked["tried"];
}

/** The wait before the next coat that is planned: since when, and its window. */
export interface NextWait {
  /** Between two coats of a face; cure before sanding flat; until the part may be turned over. */
  what: "flash" | "sand" | "turn";
  /** The coat it follows. */
  coat: CoatState;
  from_ms: number;
  least_ms: number;
  /** As the way means it until then; null: no end. */
  best_ms: number | null;
  /** Too late after this; null: never. */
  latest_ms: number | null;
  late: CoatWait["late"];
  /** The window in full; null where the part is turned. */
  window: CoatWait | null;
}

const MS = 1000;

/** Climates that were logged, as the air a part lay in. */
export const airOf = ({ climates }: Pick<PanelFacts, "climates">): AirLog =>
  airLog(climates.map((c) => ({ from_ms: c.at_ms, air_K: c.body.air_K })));

/** The air now, as it was logged last. @throws RangeError */
export const airNow = ({ facts, now_ms }: { facts: Pick<PanelFacts, "climates">; now_ms: number }): number => airAt(airOf(facts), now_ms);

const finite = (ms: number): number | null => (Number.isFinite(ms) ? ms : null);

/**
 * The one wait before a panel's next coat, which clock, booth view, booth plan, course and calendar go by; null before the first coat, when all
 * coats are on, and when the clear was sanded flat, or the part turned over, since the newest. @throws RangeError
 */
export function nextWait({ brief, sheet, way, facts, shop, start }: CourseAsked): NextWait | null {
  const coat = newestCoat(facts);
  if (!coat || isAllOn(facts, brief)) return null;
  const from_ms = coat.entry.at_ms;
  const air = airOf(facts);
  const side = nextSide(facts, brief);
  const cure = (at_ms: number) => cureOf(sheet, facts, at_ms)!;
  if (coat.entry.body.side !== side) {
    if (isTurned(facts)) return null; // it bore being turned: the other face waits for nothing
    const state = cure(from_ms);
    const hard_ms = sheet.kind === "matte clear" ? stageAt(state, "sand") : null;
    const turn_ms =
      stageAt(state, "tape") ??
      stageAt(state, "dustFree") ??
      hard_ms ??
      from_ms + throughFrom(air, from_ms)((T) => turnAfter_s(sheet, T)) * MS;
    return { what: "turn", coat, from_ms, least_ms: turn_ms, best_ms: null, latest_ms: null, late: null, window: null };
  }
  const build = wetBuild(facts, side);
  if (build.length === 0) return null; // sanded flat: the next coat needs no wait
  const next = nextCoat({ brief, sheet, way, facts, start });
  const planned = plannedCoat(way, coat.entry.body.number);
  const window = waitAfter({
    planned: { ...planned, role: coat.entry.body.role },
    sheet,
    through: throughFrom(air, from_ms),
    build: asTheyLie(build, 0),
    conditions: conditionsOn({ sheet, facts, brief, way }, side, { air_K: airAt(air, from_ms), reducer: next.reducer }),
    next: { gun: next.settings, reducer: next.reducer },
    shop,
  });
  const at = (s: number) => from_ms + s * MS;
  const sand_ms = window.sand ? stageAt(cure(from_ms), "sand") : null;
  return {
    what: window.sand ? "sand" : "flash",
    coat,
    from_ms,
    least_ms: sand_ms ?? at(window.least_s),
    best_ms: finite(at(window.best_s)),
    latest_ms: finite(at(window.latest_s)),
    late: window.late,
    window,
  };
}
