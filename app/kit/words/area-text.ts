import type { UnitPreferences } from "#core/kernel/units/quantities";

/** "0.51 m²", "14 cm²"; in a shop of inches "5.5 ft²", "2.2 in²". */
export function areaText(area_m2: number, units: UnitPreferences): string {
  const small = area_m2 < 0.05;
  if (units.length === "in")
    return small ? `${Number((area_m2 / IN2_M2).toPrecision(2))} in²` : `${(area_m2 / (144 * IN2_M2)).toFixed(1)} ft²`;
  return small ? `${Math.round(area_m2 * 1e4)} cm²` : `${area_m2.toFixed(2)} m²`;
}
const IN2_M2 = 0.0254 ** 2;
