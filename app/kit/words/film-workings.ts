import type { PanelState, Spot } from "#core/judge/account";
import { UNMEASURED, isForetold } from "#core/judge/how-known";
import { show } from "#core/kernel/units/format";
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
