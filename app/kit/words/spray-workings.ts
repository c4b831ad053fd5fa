import type { Deposit, GunSettings } from "#core/models/spray/deposit";
import type { UnitPreferences } from "#core/kernel/units/quantities";
import type { Working } from "~/kit/ui/figure";
import { line } from "./lines";

export function coatWorking(settings: GunSettings, d: Deposit, reducer: number, units: UnitPreferences): Working {
  return {
    title: "Film this coat lays",
    formula:
      "Dry film = solids × fluid rate × transfer ÷ (hand speed × fan × (1 − overlap)). Wet film adds the solvent still in it when it lands. Transfer falls with distance and pressure; the loss in flight rises with distance, heat and finer drops.",
    inputs: [
      line("fluid rate", "fluidRate", settings.fluidRate_m3_s, units),
      line("pressure at the gun", "pressure", settings.pressure_Pa, units),
      line("distance", "length", settings.distance_m, units),
      line("fan", "length", d.fan_m, units),
      line("overlap", "share", settings.overlap, units),
      line("hand speed", "speed", settings.handSpeed_m_s, units),
      line("reducer", "share", reducer, units),
      line("transfer, worked out", "share", d.transfer, units),
      line("solvent lost in flight, worked out", "share", d.flightLoss, units),
      line("drop size, worked out", "film", d.drop_m, units),
      line("ripple between passes", "share", d.rippleCv, units),
    ],
    sources: ["orchard-flow", "common-practice", "product-sheet", "job-record"],
    changesMost: "Hand speed and fluid rate: the film follows both one to one. ± is 32 % until this shop's own readings have tuned it.",
  };
}

export function dewWorking(
  climate: { air_K: number; part_K: number | null; relativeHumidity: number },
  margin: { dewPoint_K: number; lowestPart_K: number },
  units: UnitPreferences,
): Working {
  return {
    title: "Dew-point margin",
    formula:
      "Dew point from air and humidity (Magnus formula). The part is to be at least 3 K above it; shown is what it has on top of that.",
    inputs: [
      line("air", "temperature", climate.air_K, units),
      line(climate.part_K === null ? "part, taken as the air" : "part", "temperature", climate.part_K ?? climate.air_K, units),
      line("humidity", "share", climate.relativeHumidity, units, 0),
      line("dew point", "temperature", margin.dewPoint_K, units),
      line("coldest the part may be", "temperature", margin.lowestPart_K, units),
    ],
    sources: ["magnus", "iso-8502-4", "job-record"],
    changesMost: "The part's own temperature: measure it, it lags the air.",
  };
}
