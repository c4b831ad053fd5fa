import { type AnySheet, isCoat } from "#core/models/product/sheet";
import type { Quantity, UnitPreferences } from "#core/kernel/units/quantities";
import { initial } from "~/kit/form/initial";

const DAY_S = 86_400;

/** A sheet as its form starts, field by field: what a form shows, and what it is told of a sheet that another window has changed. */
export function sheetTexts(s: AnySheet | undefined, units: UnitPreferences): Record<string, string> {
  const text = (kind: Quantity, si: number | null | undefined) => initial(kind, si, units);
  const coat = s && isCoat(s) ? s : undefined;
  return {
    name: s?.name ?? "",
    density: text("density", s?.density_kg_m3),
    voc: text("concentration", s?.voc_kg_m3),
    water: text("share", s?.waterShare || null),
    exempt: text("share", s?.exemptShare || null),
    exemptDensity: text("density", s?.exemptDensity_kg_m3),
    windowLow: text("temperature", s?.window?.low_K),
    windowHigh: text("temperature", s?.window?.high_K),
    keepsDays: s?.keepsDays ? String(s.keepsDays) : "",
    ratio: coat?.ratio ?? "",
    reducerMin: text("share", coat?.reducerMin || null),
    reducerMax: text("share", coat?.reducerMax || null),
    solids: text("share", coat?.volumeSolids),
    coats: String(coat?.coats ?? 2),
    filmMin: text("film", coat?.filmPerCoatMin_m),
    filmMax: text("film", coat?.filmPerCoatMax_m),
    floor: text("film", coat?.floor_m),
    flashMin: text("duration", coat?.flashMin_s),
    flashMax: text("duration", coat?.flashMax_s),
    flashWarm: text("duration", coat?.flashAt[0]?.min_s),
    potLife: text("duration", coat?.potLife_s),
    potLifeWarm: text("duration", coat?.potLifeAt[0]?.life_s),
    overcoatMin: text("duration", coat?.overcoat?.min_s),
    overcoatMax: text("duration", coat?.overcoat?.max_s),
    nozzle: coat?.gun?.nozzle_m == null ? "" : String(Math.round(coat.gun.nozzle_m * 1e5) / 100),
    gunPressure: text("pressure", coat?.gun?.pressure_Pa),
    gunDistance: text("length", coat?.gun?.distance_m),
    gunFan: text("length", coat?.gun?.fan_m),
    efflux: text("seconds", coat?.viscosity?.efflux_s),
    dustFree: text("duration", coat?.dustFree_s),
    tape: text("duration", coat?.tape_s),
    sandAfter: text("duration", coat?.sandAfter_s),
    polish: text("duration", coat?.polish_s),
    waxDays: coat?.wax_s ? String(coat.wax_s / DAY_S) : "",
    bakePart: text("temperature", coat?.bake?.part_K),
    bakeTime: text("duration", coat?.bake?.time_s),
    levels: coat?.levels.map((l) => `${Math.round(l.share * 1000) / 10} = ${l.gloss60_GU}`).join("\n") ?? "",
    settles: text("duration", coat?.settles_s),
  };
}

/** The same of what the shelf holds now: with the choices that a form names by their keys. */
export const sheetShown = (s: AnySheet, units: UnitPreferences): Record<string, string> => ({
  ...sheetTexts(s, units),
  kind: s.kind,
  speed: s.speed ?? "",
  ...(isCoat(s)
    ? { cup: s.viscosity?.cup ?? "", blendWith: s.blendWith ?? "", secondPart: s.secondPart ?? "", carrier: s.carrier ?? "" }
    : {}),
});
