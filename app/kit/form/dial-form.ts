import { type EqualWay, type FoundOtherwise, asPlannedFound } from "#core/coat/equal-finish";
import type { UnitPreferences } from "#core/kernel/units/quantities";
import { CLIMATE_BOUNDS } from "#core/models/bounds";
import { cupReading } from "#core/models/product/flow-cup";
import { type PressureAt, pressureAtGun, pressureRead } from "#core/models/spray/pressure-at";
import type { DialView } from "#server/views/dial-view";
import { GUN_LIMITS } from "./gun-limits";
import { initial } from "./initial";
import { type ReadTyped, type TypedReader, readTyped } from "./read-typed";

const MM = 1e-3;
const NOZZLE_MM = { min: 0.8, max: 2.5 } as const;
const CUP_S = { min: 8, max: 120 } as const;

/** Where the gauge of this gun is read. */
const gaugeAt = ({ from: { settings } }: Pick<DialView, "from">) => settings.pressureAt ?? "gun";

export const gaugeLabel = (dial: Pick<DialView, "from">): string =>
  gaugeAt(dial) === "hose" ? "Gauge at the hose" : "Gauge, trigger pulled";

/** What may be found otherwise, as its fields begin: as the coat was planned. */
export const foundTexts = (dial: DialView, units: UnitPreferences) => ({
  pressure: initial("pressure", pressureRead(dial.from.settings.pressure_Pa, gaugeAt(dial)), units),
  air: initial("temperature", dial.from.conditions.air_K, units),
  cup: dial.cup ? String(dial.cup.efflux_s) : "",
  nozzle: String(Number((dial.nozzle_m / MM).toFixed(2))),
  gun: "",
});

/** What was found, as typed; what nobody has touched is as it was planned, with nothing rounded. */
export const readFound = (typed: Record<string, unknown>, units: UnitPreferences, dial: DialView) =>
  readTyped(typed, units, (r): FoundOtherwise => {
    const start = foundTexts(dial, units);
    const planned = asPlannedFound(dial.from);
    const touched = (name: keyof typeof start) => typed[name] !== undefined && typed[name] !== start[name];
    const gun = dial.guns.find((g) => g.id === typed.gun) ?? null;
    return {
      pressure_Pa: touched("pressure") ? readGauge(r, gaugeAt(dial)) : planned.pressure_Pa,
      air_K: touched("air") ? r.quantity("air", "temperature", CLIMATE_BOUNDS.air_K) : planned.air_K,
      thicker:
        dial.cup && touched("cup")
          ? thicker(dial.cup, r.quantity("cup", "count", CUP_S), () => r.wrong("cup", "This cup tells nothing of it"))
          : 1,
      bore: touched("nozzle") && !gun ? (r.quantity("nozzle", "count", NOZZLE_MM) * MM) / dial.nozzle_m : 1,
      gun: gun?.settings ?? null,
    };
  });

/** Pressure at the gun, by the gauge where it is read. */
function readGauge(r: TypedReader, at: PressureAt): number {
  const read_Pa = r.quantity("pressure", "pressure", GUN_LIMITS[at === "gun" ? "pressure" : "pressureRead"]);
  const gun_Pa = Number.isNaN(read_Pa) ? NaN : pressureAtGun(read_Pa, at);
  const { min, max } = GUN_LIMITS.pressure;
  if (gun_Pa < min || gun_Pa > max) r.wrong("pressure", "No gun is worked at that pressure");
  return gun_Pa;
}

/** The same with which of the ways was taken. */
export function readDial(
  typed: Record<string, unknown>,
  units: UnitPreferences,
  dial: DialView,
): ReadTyped<{ found: FoundOtherwise; by: EqualWay["by"] }> {
  const found = readFound(typed, units, dial);
  return found.success ? { success: true, data: { found: found.data, by: typed.by === "needle" ? "needle" : "hand" } } : found;
}

/** How many times as thick a mix is by two times of one cup. */
function thicker(cup: NonNullable<DialView["cup"]>, efflux_s: number, wrong: () => void): number {
  if (Number.isNaN(efflux_s)) return 1; // said already
  const [before, now] = [cupReading(cup), cupReading({ ...cup, efflux_s })];
  if (before && now) return now.nu_m2_s / before.nu_m2_s;
  wrong();
  return 1;
}
