import { isInclusion } from "../defects/catalogue";
import type { PanelMap } from "../film/map-panel";
import { type PanelState, measuredRuns } from "../ledger/derive-panel";
import { type Polygon, polygonArea } from "../panel/geometry";
import type { Finish } from "../ways/house-ways";
import { DEFAULT_REMOVAL, type ShopRemoval, clearingPlan } from "./clearing";
import { textureOf, wantedTexture } from "./correction-input";
import { type Decision, type OptionCase, type ShopRates, decideOptions } from "./options";

export interface OptionInput {
  outline: Polygon;
  state: PanelState;
  finish: Finish;
  map: PanelMap;
  floor_m: number;
  /** Share of the cure to sanding reached. */
  cured: number;
  rates: ShopRates;
  shop?: ShopRemoval;
}

/** A panel as the options see it: its thinnest zone by the map, its worst run, its nibs and texture. */
export function optionCase({ outline, state, finish, map, floor_m, cured, rates, shop = DEFAULT_REMOVAL }: OptionInput): OptionCase {
  const runs = measuredRuns(state).sort((a, b) => b.height_m - a.height_m);
  const totals = state.spots.flatMap((s) => {
    const film = s.films.recheck ?? s.films.after;
    return film ? [film.film.mean_m] : [];
  });
  const points = state.defects.filter((d) => isInclusion(d.body.kind));
  return {
    area_m2: polygonArea(outline),
    clear_m: map.thinnest.clear_m,
    u_clear_m: map.thinnest.u_m,
    total_m: totals.reduce((a, t) => a + t, 0) / Math.max(1, totals.length),
    peakToValley_m: textureOf(state).texture.peakToValley_m,
    wanted_m: finish === "matte" ? textureOf(state).texture.peakToValley_m : wantedTexture(state, finish).peakToValley_m,
    nibs: points.reduce((a, d) => a + d.body.count, 0),
    run: runs[0] ? { height_m: runs[0].height_m, width_m: runs[0].width_m, length_m: runs[0].length_m } : null,
    matte: finish === "matte",
    cured,
    floor_m,
    rates,
    removalOf: (steps, texture) => clearingPlan(steps, texture, shop),
  };
}

/** A figure that, were it otherwise, would lead to another choice. */
export interface Flip {
  what: "measure" | "thinner" | "thicker" | "flatter" | "rougher" | "fewer nibs" | "dearer hours";
  best: NonNullable<Decision["best"]>;
}

/** Which figures decide: each moved by what may well be true, and whether the choice moves with it. @throws RangeError */
export function whatWouldChange(c: OptionCase): Flip[] {
  const now = decideOptions(c).best;
  const half = Math.max(1e-6, c.u_clear_m / 2);
  const tries: { what: Flip["what"]; change: Partial<OptionCase> }[] = [
    { what: "measure", change: { u_clear_m: half } },
    { what: "thinner", change: { clear_m: c.clear_m - c.u_clear_m } },
    { what: "thicker", change: { clear_m: c.clear_m + c.u_clear_m } },
    { what: "flatter", change: { peakToValley_m: 0.5 * c.peakToValley_m } },
    { what: "rougher", change: { peakToValley_m: 2 * c.peakToValley_m } },
    ...(c.nibs > 0 ? [{ what: "fewer nibs" as const, change: { nibs: Math.floor(c.nibs / 2) } }] : []),
    ...(c.rates ? [{ what: "dearer hours" as const, change: { rates: { ...c.rates, labourPerHour: 2 * c.rates.labourPerHour } } }] : []),
  ];
  return tries.flatMap(({ what, change }) => {
    const { best } = decideOptions({ ...c, ...change });
    return best && (best.kind !== now?.kind || best.runSchool !== now.runSchool) ? [{ what, best }] : [];
  });
}
