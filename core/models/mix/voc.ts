import { requireNumber } from "../../kernel/guard";

export interface VocPart {
  volume_m3: number;
  density_kg_m3: number;
  /** Shares of the part by mass. */
  volatile: number;
  water: number;
  exempt: number;
  /** Density of the exempt solvent; only used when `exempt` is above zero. */
  exemptDensity_kg_m3: number;
}

const WATER_KG_M3 = 997;

/**
 * Volatile organic content of a mix ready to spray, kg/m³ (= g/L). `actual` divides by the whole volume; `regulatory` by the volume
 * without water and exempt solvent, (W_v − W_w − W_ex)/(V − V_w − V_ex), the form of ASTM D3960. Volumes are taken to add up.
 * `volatile` counts everything that leaves, water and exempt solvent included.
 * @throws RangeError for no part, shares outside 0…1, or a mix that is nothing but water and exempt solvent.
 */
export function vocOf(parts: readonly VocPart[]): { actual_kg_m3: number; regulatory_kg_m3: number } {
  if (parts.length === 0) throw new RangeError("parts must have at least 1 member, got 0");
  let volume = 0;
  let organic = 0;
  let away = 0;
  parts.forEach((p, i) => {
    const v = requireNumber(`parts[${i}].volume_m3`, p.volume_m3, { min: 0 });
    const mass = v * requireNumber(`parts[${i}].density_kg_m3`, p.density_kg_m3, { min: 500, max: 3000 });
    const volatile = requireNumber(`parts[${i}].volatile`, p.volatile, { min: 0, max: 1 });
    const water = requireNumber(`parts[${i}].water`, p.water, { min: 0, max: volatile });
    const exempt = requireNumber(`parts[${i}].exempt`, p.exempt, { min: 0, max: volatile - water + 1e-12 });
    volume += v;
    organic += mass * (volatile - water - exempt);
    away += (mass * water) / WATER_KG_M3;
    if (exempt > 0)
      away += (mass * exempt) / requireNumber(`parts[${i}].exemptDensity_kg_m3`, p.exemptDensity_kg_m3, { min: 500, max: 3000 });
  });
  requireNumber("volume without water and exempt solvent", volume - away, { above: 0 });
  return { actual_kg_m3: organic / volume, regulatory_kg_m3: organic / (volume - away) };
}
