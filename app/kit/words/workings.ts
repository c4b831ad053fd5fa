import type { PlanFigures } from "#core/models/ways/plan-figures";
import type { ProductSheet } from "#core/models/product/sheet";
import type { PanelState, Spot } from "#core/judge/account";
import { isForetold } from "#core/judge/how-known";
import type { Assessment } from "#core/judge/assess";
import { EDGE_BITE } from "#core/judge/cell-risk";
import { LOCAL_UNEVENNESS } from "#core/models/correction/removal-plan";
import { CUT_GUARD_M, THIN_AREA_SHARE, UNMEASURED } from "#core/judge/limits";
import type { Deposit, GunSettings } from "#core/models/spray/deposit";
import type { Removal } from "#core/models/correction/removal-plan";
import { show, showChance } from "#core/kernel/units/format";
import type { UnitPreferences } from "#core/kernel/units/quantities";
import type { Working } from "~/kit/ui/figure";
import { line, withU } from "./lines";

export function meanClearWorking(state: PanelState, units: UnitPreferences): Working {
  const { inferred, how, mean } = state.film;
  if (isForetold(how)) return foretoldWorking(state, mean, units);
  const spots = state.spots.flatMap((s) => (s.clear ? [{ name: s.name, ...s.clear }] : []));
  return {
    title: inferred ? "Clear, inferred from the total" : "Clear by difference",
    formula: inferred
      ? "There is no reading before clear, so the layers below are taken as usual ones: each history the panel may have is weighed by how well it explains the total, and the clear is what remains."
      : "Clear = total after less total before, at all spots together: a film that is alike nearby and thinner at edges and body lines, as the readings themselves tell it. What was taken off or sprayed since a reading is counted there. The figure is the mean over the panel.",
    inputs: [
      ...spots.slice(0, 12).map((s) => withU(`at spot ${s.name}`, "film", s.clear_m, s.u_m, units)),
      { name: "gauge error shared before and after", shown: `${Math.round(100 * state.sessions.correlation)} %` },
      line("probe moved by about", "length", state.sessions.relocation_m, units),
      {
        name: "foil check with the readings",
        shown: state.foil ? "yes" : `none: gauge doubt × ${UNMEASURED.gaugeFactor}, and ${100 * UNMEASURED.film} % of the film`,
      },
    ],
    sources: inferred ? ["shop-reading", "yakamoz-default"] : ["shop-reading", "matern-kriging", "jcgm-100", "sspc-pa2", "yakamoz-default"],
    changesMost: inferred
      ? "Readings before clear. Further readings after clear cannot replace them."
      : state.foil
        ? "More spots near edges and body lines; three readings a spot instead of one."
        : "A foil check logged with the readings.",
  };
}

/** The clear of a part on which no gauge reads. */
function foretoldWorking({ film, coats, strip }: PanelState, mean: PanelState["film"]["mean"], units: UnitPreferences): Working {
  return {
    title: film.how === "forecast" ? "Clear by forecast alone" : "Clear by a strip beside the part",
    formula:
      film.how === "forecast"
        ? "No gauge reads on this part. What each logged coat was to lay by the deposition model, less what was taken off; thinner at edges as usual. Nothing of it was measured on the part, and the span is the model's own."
        : "No gauge reads on this part. What was measured on a metal strip sprayed beside it, within a share of it; thinner at edges as usual.",
    inputs: [
      { name: "coats logged", shown: String(coats.length) },
      ...(strip ? [withU("by the strip", "film", strip.clear_m, strip.u_m, units)] : []),
      ...(mean ? [withU("mean of the part", "film", mean.clear_m, mean.u_m, units)] : []),
    ],
    sources: film.how === "forecast" ? ["orchard-flow", "yakamoz-default"] : ["shop-reading", "yakamoz-default"],
    changesMost: "A metal strip beside the part, read before clear and after.",
  };
}

export function spotWorking(spot: Spot, units: UnitPreferences): Working {
  return {
    title: `Spot ${spot.name}`,
    formula:
      "Mean of the readings. Uncertainty: repeatability (pooled over this panel with the gauge's usual 2 µm) ÷ √n, and the gauge's limits ±(1 µm + 2 %) ÷ √3, added in squares. Clear there is what the judge has of all readings together; this spot's own difference is in it.",
    inputs: [
      ...Object.entries(spot.films).flatMap(([phase, f]) =>
        f
          ? [
              { name: `${phase}, as read`, shown: f.readings_m.map((r) => show("film", r, units).text).join("  ") },
              withU(`${phase}, mean`, "film", f.film.mean_m, f.film.u_m, units),
              line(`${phase}, 95 % (k = ${f.film.coverageFactor.toFixed(2)})`, "film", f.film.expandedU_m, units),
            ]
          : [],
      ),
      ...(spot.clear ? [withU(`clear, ${spot.clear.how}`, "film", spot.clear.clear_m, spot.clear.u_m, units)] : []),
    ],
    sources: ["shop-reading", "jcgm-100", "yakamoz-default"],
    changesMost: "More readings here, and the same probe position before and after.",
  };
}

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

export function removalWorking(steps: readonly ({ name: string } & Removal)[], total: Removal, units: UnitPreferences): Working {
  return {
    title: "What the steps take off",
    formula:
      "A sanding step takes 1.25 × the depth of its own scratches (a share of the grain size, by backing). The first step also takes the texture it levels, counted in full. Steps add up; uncertainties add in squares.",
    inputs: [
      ...steps.map((s) => withU(s.name, "film", s.removal_m, s.u_m, units)),
      withU("together", "film", total.removal_m, total.u_m, units),
    ],
    sources: ["fepa-43", "common-practice", "yakamoz-default"],
    changesMost: "The coarsest grit and its backing, then the texture to level.",
  };
}

export function chanceWorking(
  a: Assessment,
  input: { removal: Removal; floor_m: number; tape_m: number },
  units: UnitPreferences,
): Working {
  return {
    title: "Chance of trouble",
    formula:
      "The film between the spots is drawn 1,600 times from a field that agrees with the readings (neighbours alike, edges thinner). The removal, its common error and its unevenness are taken off each draw where the work is done, and only there. Counted: draws in which any worked place keeps less than the cut guard, and draws in which more than 2 % of the worked area ends below the floor.",
    inputs: [
      { name: "cut-through", shown: showChance(a.cutChance) },
      { name: "too thin", shown: showChance(a.thinChance) },
      withU("removal", "film", input.removal.removal_m, input.removal.u_m, units),
      line("floor", "film", input.floor_m, units),
      line("cut guard", "film", CUT_GUARD_M, units),
      line("taped rim, not judged", "length", input.tape_m, units),
      { name: "unevenness of hand removal", shown: `${LOCAL_UNEVENNESS * 100} %` },
      { name: "paper bites harder at the edge by", shown: `${EDGE_BITE.share * 100} % at most` },
      { name: "area that may lie below the floor", shown: `${THIN_AREA_SHARE * 100} %` },
    ],
    sources: ["matern-kriging", "shop-reading", "yakamoz-default"],
    changesMost:
      "Readings where the film is thin: edges, body lines, tops. The guard against cutting through is too rare an event to have been proved.",
  };
}

export function planWorking(
  f: PlanFigures,
  input: { area_m2: number; sheet: ProductSheet; coats: number; gun: GunSettings },
  units: UnitPreferences,
): Working {
  const [first] = f.coats;
  return {
    title: "How much clear",
    formula:
      "Volume = strokes × (length + overrun at both ends) ÷ hand speed × fluid, coat by coat at the way's pace; trigger let go at each end. The area × film ÷ solids ÷ transfer stands beside it as a check. Waste in cup and gun is not in it.",
    inputs: [
      { name: "strokes a coat", shown: String(first?.strokes ?? 0) },
      line("fluid", "fluidRate", input.gun.fluidRate_m3_s, units),
      line("hand speed before the way's pace", "speed", input.gun.handSpeed_m_s, units),
      ...f.coats.map((c, i) => line(`coat ${i + 1}`, "volume", c.volume_m3, units)),
      line("area of the outline", "area", input.area_m2, units),
      line("film a coat, least", "film", input.sheet.filmPerCoatMin_m, units),
      line("film a coat, most", "film", input.sheet.filmPerCoatMax_m, units),
      { name: "coats", shown: `${input.coats}, as much film as ${f.fullCoats.toFixed(1)} full ones` },
      ...(f.flatted_m > 0 ? [line("sanded off between builds", "film", f.flatted_m, units)] : []),
      line("by area, at a transfer of 65 %", "volume", f.byArea_m3, units),
      line("pot life by the sheet", "duration", input.sheet.potLife_s, units),
    ],
    sources: ["orchard-flow", "spreading-rate", "product-sheet", "common-practice"],
    changesMost: "Fluid and hand speed: half the speed takes twice the material.",
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
