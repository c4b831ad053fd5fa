import { USUAL_CLIMATE } from "../models/prep/preflight";
import type { PanelBrief } from "../panel/brief";
import { dewPointMargin } from "../models/climate/dew-point";
import { TEXTURE_LIMITS } from "../models/flow/constants";
import { flowVerdict } from "../models/flow/flow-advice";
import { flashesOf, loggedSetting } from "../coat/setting";
import type { ShopFactors } from "../models/flow/simulate-coats";
import { baseLaid_ms } from "../panel/base-laid";
import { BASE_OPEN_S } from "../models/prep/under-clear";
import { type FilmLaid, type GunFinding, gunFindings } from "../models/spray/gun-school";
import { UNLOGGED_AIR_K } from "../models/trade-limits";
import type { PanelFacts } from "../panel/derive-panel";
import { type ProductSheet, timesAt } from "../models/product/sheet";
import { coatGun, coatShare, startGun } from "../models/ways/coat-gun";
import { type HouseWay, plannedCoat } from "../models/ways/way";
import type { Finish } from "../models/ways/terms";
import type { BodyOf } from "../record/bodies";
import { airBeforeHeat_s } from "../models/ways/after-last-coat";
import { inRange } from "../kernel/guard";
import type { Evidence } from "../models/defects/diagnose";

/** Limits of a finding; common practice unless a sheet says otherwise. */
const LIMITS = {
  hot_K: USUAL_CLIMATE.high_K,
  cold_K: USUAL_CLIMATE.low_K,
  coldMaterial_K: USUAL_CLIMATE.material_K - USUAL_CLIMATE.materialOff_K,
  damp: 0.75,
  coarseGrit: 600,
  baseOld_s: BASE_OPEN_S,
  heat_K: 303.15,
} as const;
/** A flash counts as short or long beyond this share of the sheet's figure: a minute either way is no fault. */
const FLASH_SLACK = 0.1;

export interface RecordInput {
  brief: PanelBrief;
  state: PanelFacts;
  sheet: ProductSheet;
  finish: Finish;
  /** What it does on purpose is no finding. */
  way?: HouseWay | undefined;
  shop?: ShopFactors | undefined;
  /** Whether the hardener was poured out of a can that had been open longer than it keeps; null: not known. */
  hardenerOver?: boolean | null;
}

/** What a job's own record says of each finding. What it does not hold is left away, never guessed. @throws RangeError */
export function recordEvidence({ brief, state, sheet, finish, way, shop, hardenerOver = null }: RecordInput): Evidence {
  const found: Evidence = { upright: hungWet(brief, state) };
  const set = (id: keyof Evidence, so: boolean | null) => {
    if (so !== null) found[id] = so;
  };
  const any = <T>(id: keyof Evidence, list: readonly T[], so: (member: T) => boolean) => set(id, list.some(so));
  const { coats } = state;
  const sprayedIn = climatesSprayedIn(state);
  const air_K = sprayedIn.at(-1)?.air_K ?? null;
  if (sprayedIn.length > 0) {
    any("hot", sprayedIn, (c) => c.air_K > (sheet.window?.high_K ?? LIMITS.hot_K));
    any("cold", sprayedIn, (c) => Math.min(c.air_K, c.part_K ?? c.air_K) < (sheet.window?.low_K ?? LIMITS.cold_K));
    any("damp", sprayedIn, (c) => dewPointMargin({ ...c, part_K: c.part_K ?? c.air_K }).margin_K < 0 || c.relativeHumidity > LIMITS.damp);
    const material = sprayedIn.flatMap((c) => (c.material_K === null ? [] : [c.material_K]));
    if (material.length > 0) any("coldMaterial", material, (m) => m < LIMITS.coldMaterial_K);
  }
  if (coats.length > 0) {
    const meant = coats.map((c) => (way ? meantBy(way, c.entry.body) : NOTHING_MEANT));
    const films = coats.map((c, i) => filmLaid(c.predicted.dry_m, sheet, meant[i]!.share));
    const guns = coats.map((c, i) => gunFindings(c.entry.body.settings, films[i]!));
    set("fastHardener", (state.mix?.body.speed ?? sheet.speed) === "fast");
    for (const [id, what] of GUN_FINDINGS)
      set(
        id,
        guns.some((found, i) => found.has(id) && !meant[i]!.settings.has(what)),
      );
    any("thickCoat", films, (f) => f === "thick");
    any("thinCoat", films, (f) => f === "thin");
    const numbered = coats.map((c, i) => ({ ...c, meant: meant[i]! }));
    any("overReduced", numbered, (c) => c.entry.body.reducer > sheet.reducerMax + c.meant.reducer + 1e-9);
    const { flashMin_s, flashMax_s } = timesAt(sheet, air_K ?? UNLOGGED_AIR_K);
    const gaps = flashesOf(coats);
    if (gaps.length > 0) {
      any("flashShort", gaps, (g) => g < (1 - FLASH_SLACK) * flashMin_s);
      set(
        "flashLong",
        gaps.some((g, i) => !meant[i]!.sanded && g > (1 + FLASH_SLACK) * Math.max(flashMax_s, meant[i]!.flashFactor * flashMin_s)),
      );
    }
    const v = flowVerdict({ ...loggedSetting(brief, state, sheet), ...(shop ? { shop } : {}) }, TEXTURE_LIMITS[finish]);
    set("settingsRun", v.class === "runs" || v.runChance > 0.5);
    set("settingsPeel", v.class === "peels" || v.peelChance > 0.5);
  }
  if (state.preflight) {
    const ticked = new Set(state.preflight.body.ticks);
    set("untacked", !ticked.has("tack"));
    set("unclean", !ticked.has("wiped"));
    set("ungrounded", !ticked.has("static"));
    set("looseClothing", !ticked.has("clothing"));
    set("dustyBooth", !(ticked.has("air") && ticked.has("inside")));
    set("poorLight", !ticked.has("light"));
  }
  const under = state.under;
  if (under.length > 0) {
    const sanded = under.findLast((u) => u.body.step === "sand");
    set("coarseBelow", sanded?.body.grit ? sanded.body.grit < LIMITS.coarseGrit : null);
    if (!state.preflight) set("unclean", !under.some((u) => u.body.step === "clean"));
  }
  const first = coats[0]?.entry.at_ms;
  const laid_ms = baseLaid_ms(state);
  if (laid_ms !== null && first !== undefined) {
    // A scuff answers a colour older than a day: by its card, or sanded again after the base.
    const scuffed =
      state.mends.some((m) => m.card === "oldColour" && m.done > 1) ||
      under.some((u) => u.body.step === "sand" && u.at_ms > laid_ms && u.at_ms <= first);
    set("baseOld", !scuffed && (first - laid_ms) / 1000 > LIMITS.baseOld_s);
  }
  const last_ms = coats.at(-1)?.entry.at_ms;
  const heat_s = last_ms === undefined ? null : heatedAfter_s(state, last_ms);
  if (heat_s !== null) {
    set("heatSoon", heat_s < (1 - FLASH_SLACK) * airBeforeHeat_s({ way, finish }));
    if (finish === "matte") set("forcedMatte", Number.isFinite(heat_s));
  }
  const poured = state.mix?.body.parts.filter((p) => p.mass_kg !== null && p.poured_kg !== null) ?? [];
  if (poured.length > 1) any("wrongRatio", poured, (p) => Math.abs(p.poured_kg! / p.mass_kg! - 1) > 0.08);
  set("oldHardener", hardenerOver);
  return found;
}

/** What may be named of the gun, by the setting that a way may have on purpose. */
const GUN_FINDINGS: readonly (readonly [GunFinding, MeantSetting])[] = [
  ["far", "distance"],
  ["close", "distance"],
  ["slow", "hand"],
  ["quick", "hand"],
  ["lowPressure", "pressure"],
];
/** A coat this far out of the sheet's range counts as thin or thick: the model is not sharper. Default of ours. */
const FILM_SLACK = 0.15;

/** A coat's film against its sheet's range, and against what its way wants of it: a tack coat is thin on purpose. */
function filmLaid(dry_m: number, sheet: Pick<ProductSheet, "filmPerCoatMin_m" | "filmPerCoatMax_m">, share: number): FilmLaid {
  if (dry_m > (1 + FILM_SLACK) * sheet.filmPerCoatMax_m * Math.max(1, share)) return "thick";
  return dry_m < (1 - FILM_SLACK) * sheet.filmPerCoatMin_m * Math.min(1, share) ? "thin" : "right";
}

/** The climates that coats were sprayed in: for each the one in force then; before any coat the newest. What was logged later accuses no coat. */
function climatesSprayedIn({ coats, climates, climate }: PanelFacts): BodyOf<"climate">[] {
  if (coats.length === 0) return climate ? [climate.body] : [];
  const used = coats.flatMap((c) => climates.findLast((k) => k.seq < c.entry.seq) ?? climates[0] ?? []);
  return [...new Set(used)].map((c) => c.body);
}

type MeantSetting = "distance" | "pressure" | "hand";
/** What a coat's way has on purpose: settings as they were logged, and how film, reducer and wait may differ. */
interface Meant {
  settings: ReadonlySet<MeantSetting>;
  share: number;
  reducer: number;
  flashFactor: number;
  sanded: boolean;
}
const NOTHING_MEANT: Meant = { settings: new Set(), share: 1, reducer: 0, flashFactor: 1, sanded: false };
/** A setting this near to the way's own is the way's. */
const AS_MEANT = 0.1;

/** A coat against its way: it is meant so where it was sprayed as the way has it. What was sprayed otherwise is nobody's purpose. */
function meantBy(way: HouseWay, { number, role, settings }: BodyOf<"coat">): Meant {
  const coat = plannedCoat(way, number);
  if (coat.role !== role) return NOTHING_MEANT;
  const own = inRange(() => coatGun(startGun(way), coat));
  if (!own) return NOTHING_MEANT;
  const near = (a: number, b: number) => Math.abs(a / b - 1) < AS_MEANT;
  const set = new Set<MeantSetting>();
  if (near(settings.distance_m, own.distance_m)) set.add("distance");
  if (near(settings.pressure_Pa, own.pressure_Pa)) set.add("pressure");
  if (near(settings.handSpeed_m_s, own.handSpeed_m_s)) set.add("hand");
  return {
    settings: set,
    share: coatShare({ ...coat, zone: "whole" }, own) || 1,
    reducer: coat.reducerShift,
    flashFactor: Math.max(1, coat.flashFactor),
    sanded: coat.sandAfter,
  };
}

/** A part turned within this of its last coat hangs while the clear still moves. Default of ours. */
const STILL_WET_MS = 30 * 60_000;

/** Whether it hung while it was wet: as each coat was sprayed, and as it was turned soon after; as planned where nobody said. */
function hungWet({ tilt_rad }: PanelBrief, { coats, turned }: PanelFacts): boolean {
  const last_ms = coats.at(-1)?.entry.at_ms;
  const soon = turned !== null && last_ms !== undefined && turned.at_ms >= last_ms && turned.at_ms - last_ms < STILL_WET_MS;
  const held = coats.map((c) => c.entry.body.tilt_rad ?? tilt_rad);
  return [...(held.length > 0 ? held : [tilt_rad]), ...(soon ? [turned.body.tilt_rad] : [])].some((t) => t > Math.PI / 4);
}

/** When heat went on after the last coat: by the probe, else by what was logged by hand; Infinity: by the probe it never did; null: not known. */
function heatedAfter_s({ oven, baking, bakes }: PanelFacts, last_ms: number): number | null {
  if (oven) return oven.body.samples.find((s) => s.part_K > LIMITS.heat_K)?.at_s ?? Infinity;
  const bake = bakes[0];
  const on_ms = bake ? bake.at_ms - bake.body.time_s * 1000 : (baking?.at_ms ?? null);
  return on_ms === null ? null : Math.max(0, (on_ms - last_ms) / 1000);
}
