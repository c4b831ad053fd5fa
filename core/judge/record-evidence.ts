import type { PanelBrief } from "../panel/brief";
import { dewPointMargin } from "../models/climate/dew-point";
import { TEXTURE_LIMITS, flowVerdict } from "../models/flow/flow-advice";
import { flashesOf, loggedSetting } from "../panel/logged-setting";
import type { ShopFactors } from "../models/flow/simulate-coats";
import { FAR_GUN_M, LOW_PRESSURE_PA, UNLOGGED_AIR_K } from "../models/trade-limits";
import type { PanelFacts } from "../panel/derive-panel";
import { type ProductSheet, timesAt } from "../models/product/sheet";
import type { Finish } from "../models/ways/way";
import { PURGE_S } from "../models/cure/bake-plan";
import type { Evidence } from "../models/defects/diagnose";

/** Limits of a finding; common practice unless a sheet says otherwise. */
const LIMITS = {
  hot_K: 300.15,
  cold_K: 288.65,
  coldMaterial_K: 290.15,
  damp: 0.75,
  far_m: FAR_GUN_M,
  close_m: 0.13,
  slow_m_s: 0.25,
  quick_m_s: 0.5,
  lowPressure_Pa: LOW_PRESSURE_PA,
  hardenerDays: 14,
  coarseGrit: 600,
  baseOld_s: 24 * 3600,
  heat_K: 303.15,
} as const;
/** A flash counts as short or long beyond this share of the sheet's figure: a minute either way is no fault. */
const FLASH_SLACK = 0.1;

export interface RecordInput {
  brief: PanelBrief;
  state: PanelFacts;
  sheet: ProductSheet;
  finish: Finish;
  shop?: ShopFactors | undefined;
  /** Days the hardener had been open when it was mixed; null: not known. */
  hardenerDays?: number | null;
}

/** What a job's own record says of each finding. What it does not hold is left away, never guessed. @throws RangeError */
export function recordEvidence({ brief, state, sheet, finish, shop, hardenerDays = null }: RecordInput): Evidence {
  const found: Evidence = { upright: brief.tilt_rad > Math.PI / 4 };
  const set = (id: keyof Evidence, so: boolean | null) => {
    if (so !== null) found[id] = so;
  };
  const any = <T>(id: keyof Evidence, list: readonly T[], so: (member: T) => boolean) => set(id, list.some(so));
  const { coats, climate } = state;
  const air_K = climate?.body.air_K ?? null;
  if (air_K !== null && climate) {
    const part_K = climate.body.part_K;
    set("hot", air_K > (sheet.window?.high_K ?? LIMITS.hot_K));
    set("cold", Math.min(air_K, part_K ?? air_K) < (sheet.window?.low_K ?? LIMITS.cold_K));
    const { margin_K } = dewPointMargin({ air_K, part_K: part_K ?? air_K, relativeHumidity: climate.body.relativeHumidity });
    set("damp", margin_K < 0 || climate.body.relativeHumidity > LIMITS.damp);
    set("coldMaterial", climate.body.material_K === null ? null : climate.body.material_K < LIMITS.coldMaterial_K);
  }
  if (coats.length > 0) {
    const guns = coats.map((c) => c.entry.body.settings);
    set("fastHardener", sheet.speed === "fast");
    any("far", guns, (g) => g.distance_m > LIMITS.far_m);
    any("close", guns, (g) => g.distance_m < LIMITS.close_m);
    any("slow", guns, (g) => g.handSpeed_m_s < LIMITS.slow_m_s);
    any("quick", guns, (g) => g.handSpeed_m_s > LIMITS.quick_m_s);
    any("lowPressure", guns, (g) => g.pressure_Pa < LIMITS.lowPressure_Pa);
    any("thickCoat", coats, (c) => c.predicted.dry_m > 1.15 * sheet.filmPerCoatMax_m);
    any("thinCoat", coats, (c) => c.predicted.dry_m < 0.85 * sheet.filmPerCoatMin_m);
    any("overReduced", coats, (c) => c.entry.body.reducer > sheet.reducerMax + 1e-9);
    const { flashMin_s, flashMax_s } = timesAt(sheet, air_K ?? UNLOGGED_AIR_K);
    const gaps = flashesOf(coats);
    if (gaps.length > 0) {
      any("flashShort", gaps, (g) => g < (1 - FLASH_SLACK) * flashMin_s);
      any("flashLong", gaps, (g) => g > (1 + FLASH_SLACK) * flashMax_s);
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
    const base = under.findLast((u) => u.body.step === "base");
    const first = coats[0]?.entry.at_ms;
    set("baseOld", base && first ? (first - base.at_ms) / 1000 > LIMITS.baseOld_s : null);
  }
  const last_ms = coats.at(-1)?.entry.at_ms;
  if (state.oven && last_ms !== undefined) {
    const { samples } = state.oven.body;
    const heated = samples.find((s) => s.part_K > LIMITS.heat_K);
    set("heatSoon", heated ? heated.at_s < (1 - FLASH_SLACK) * PURGE_S : false);
    if (finish === "matte") set("forcedMatte", heated !== undefined);
  }
  const poured = state.mix?.body.parts.filter((p) => p.mass_kg !== null && p.poured_kg !== null) ?? [];
  if (poured.length > 1) any("wrongRatio", poured, (p) => Math.abs(p.poured_kg! / p.mass_kg! - 1) > 0.08);
  set("oldHardener", hardenerDays === null ? null : hardenerDays > LIMITS.hardenerDays);
  return found;
}
