import type { EqualFinish, EqualWay, Finish, NotEqual } from "#core/coat/equal-finish";
import type { RunCalibration } from "#core/models/flow/run-calibration";
import { show, showFilm } from "#core/kernel/units/format";
import type { UnitPreferences } from "#core/kernel/units/quantities";
import type { Working } from "~/kit/ui/figure";
import { runTold } from "./flow-words";
import { line } from "./lines";

/** So much a press, in the unit shown. */
export const PRESSURE_STEP: Record<string, number> = { bar: 0.1, psi: 1 };

export const WAY_NAMES: Record<EqualWay["by"], string> = { hand: "Hand alone", needle: "Needle too" };

const NOT_EQUAL: Record<NotEqual, string> = {
  "thinner film": "less film: the hand is at its slowest",
  "heavier film": "more film: the hand is at its quickest",
  "coarser drops": "coarser drops",
  "finer drops": "finer drops",
  rougher: "a rougher surface",
  smoother: "a smoother surface",
  "nearer a run": "nearer a run",
};

/** The way that comes nearest to what was planned; of two as near, the hand alone. */
export const nearest = ({ ways }: EqualFinish): EqualWay | null =>
  ways.reduce<EqualWay | null>((a, w) => (a === null || w.notEqual.length < a.notEqual.length ? w : a), null);

/** Whether nothing needs be set otherwise. */
export const isAsPlanned = ({ planned: { settings: a }, asItIs: { settings: b, notEqual } }: EqualFinish): boolean =>
  notEqual.length === 0 && a.pressure_Pa === b.pressure_Pa && a.fluidRate_m3_s === b.fluidRate_m3_s;

/** "1.4 turns out", or the fluid where nobody counts turns. */
export function needleText({ settings: { turns, fluidRate_m3_s } }: Pick<Finish, "settings">, units: UnitPreferences): string {
  if (turns !== null) return `${turns.toFixed(1)} turns out`;
  const s = show("fluidRate", fluidRate_m3_s, units);
  return `${s.text} ${s.unit}`;
}

/** "hand 0.37 m/s at 171 mm, needle as it is". */
export function setText(way: EqualWay, { asItIs }: EqualFinish, units: UnitPreferences): string {
  const hand = show("speed", way.settings.handSpeed_m_s, units);
  const distance = show("length", way.settings.distance_m, units);
  const needle = needleText(way, units);
  return `hand ${hand.text} ${hand.unit} at ${distance.text} ${distance.unit}, needle ${needle === needleText(asItIs, units) ? "as it is" : needle}`;
}

/** What is not brought back: "What stays: coarser drops, nearer a run." */
export const leftText = ({ notEqual }: Pick<EqualWay, "notEqual">): string =>
  notEqual.length === 0 ? "It comes out the same." : `What stays: ${notEqual.map((n) => NOT_EQUAL[n]).join(", ")}.`;

export const FIGURES = [
  { name: "Needle", of: needleText },
  { name: "Distance", of: (f: Finish, u: UnitPreferences) => text(show("length", f.settings.distance_m, u)) },
  { name: "Hand", of: (f: Finish, u: UnitPreferences) => text(show("speed", f.settings.handSpeed_m_s, u)) },
  { name: "Film, dry", of: (f: Finish, u: UnitPreferences) => text(showFilm(f.dry_m, u)) },
  { name: "Drops", of: (f: Finish, u: UnitPreferences) => text(showFilm(f.drop_m, u)) },
  { name: "Texture", of: (f: Finish) => f.texture.toFixed(1) },
  {
    name: "Run at edge",
    of: (f: Finish, _: UnitPreferences, shop: RunCalibration | null) =>
      runTold({ chance: f.runChance, sagLocal_m: f.sagLocal_m }, shop).big,
  },
] as const;
const text = (s: { text: string; unit: string }) => `${s.text} ${s.unit}`;

/** How the settings came about. */
export const dialWorking = ({ planned, asItIs, ways }: EqualFinish, units: UnitPreferences): Working => ({
  title: "The same finish",
  formula:
    "Film goes with 1 over the hand’s speed: the speed brings it back. Distance and needle are tried out for the same drops (flow^0.3, pressure^−0.6, viscosity^0.45), the same slide and texture by the flow model; of two as good, the smaller change. " +
    "Through a needle left as it stands flows viscosity^−½ and the bore squared.",
  inputs: [
    line("pressure planned", "pressure", planned.settings.pressure_Pa, units),
    line("pressure now", "pressure", asItIs.settings.pressure_Pa, units),
    line("needle gives, planned", "fluidRate", planned.settings.fluidRate_m3_s, units),
    line("needle gives, as it stands", "fluidRate", asItIs.settings.fluidRate_m3_s, units),
    ...ways.map((w) => line(w.by === "hand" ? "slide by the hand alone" : "slide with the needle too", "length", w.sagLocal_m, units)),
  ],
  sources: ["orchard-flow", "common-practice", "yakamoz-default"],
  changesMost:
    "What the gun really gives: a timed cup at this needle. Film by the model is known to about a third until this shop has read some.",
});
