import { capital } from "./capital";
import { textureTold } from "./texture-words";
import { FLOW, TEXTURE_SD } from "#core/models/flow/constants";
import { type RunCalibration, calibratedChance } from "#core/models/flow/run-calibration";
import type { FlowVerdict } from "#core/models/flow/flow-advice";
import { type ChanceWord, chanceWord, sagLogSd } from "#core/models/flow/run-chance";
import type { FlowClass } from "#core/models/flow/flow-window";
import { show, showChance } from "#core/kernel/units/format";
import type { UnitPreferences } from "#core/kernel/units/quantities";
import type { Working } from "~/kit/ui/figure";
import { CLASS_WORDS } from "./flow-class-words";
import { line, withU } from "./lines";

/** A chance that nobody has calibrated yet, in a word: large, and what it is of. */
export const CHANCE_OF: Record<"run" | "peel", Record<ChanceWord, { big: string; small: string }>> = {
  run: {
    unlikely: { big: "unlikely", small: "to run" },
    may: { big: "may", small: "run" },
    likely: { big: "likely", small: "to run" },
  },
  peel: {
    unlikely: { big: "unlikely", small: "to peel" },
    may: { big: "may", small: "peel" },
    likely: { big: "likely", small: "to peel" },
  },
};

/** A run's chance as it may be told: by the shop's own results where there are enough of them, else in a word. */
export function runTold(
  { chance, sagLocal_m }: { chance: number; sagLocal_m: number },
  calibration: RunCalibration | null,
): { big: string; small: string; tag: "good" | "caution" | "stop"; by: string } {
  const p = calibration ? calibratedChance(calibration, sagLocal_m) : chance;
  const tag = RUN_TAGS[chanceWord(p)];
  if (!calibration) return { ...CHANCE_OF.run[chanceWord(p)], tag, by: "nobody has calibrated it here yet" };
  return { big: showChance(p), small: "to run", tag, by: `by ${calibration.n} panels of this shop, ${calibration.ran} of them ran` };
}

const RUN_TAGS = { unlikely: "good", may: "caution", likely: "stop" } as const;
/** Of a coat among others: "coat 2 may run", with how it is marked; by the shop's own percentage once it has one. */
export function coatMayRun(
  number: number,
  { runChance, sagLocal_m }: { runChance: number; sagLocal_m: number },
  calibration: RunCalibration | null,
): { text: string; tag: "good" | "caution" | "stop" } {
  const p = calibration ? calibratedChance(calibration, sagLocal_m) : runChance;
  const word = chanceWord(p);
  const own = calibration ? `, ${showChance(p)} here` : "";
  return {
    text: `${word === "unlikely" ? "unlikely" : word === "may" ? `coat ${number} may run` : `coat ${number} likely runs`}${own}`,
    tag: RUN_TAGS[word],
  };
}

/** The verdict first, then the smallest slip that spoils it. */
export function flowSentence(
  v: FlowVerdict,
  slip: { words: string; class: FlowClass; where: string } | null,
): { lead: string; rest: string } {
  const lead = v.class === "lean" ? "Flows, but leans." : `${CLASS_WORDS[v.class].word}.`;
  if (v.class === "runs") return { lead, rest: "It slides before it sets." };
  if (v.class === "peels") return { lead, rest: v.result.drySpray ? "It lands too dry to close." : "It sets before it has levelled." };
  if (!slip) return { lead, rest: "No small slip of the hand spoils it." };
  if (slip.words === "") return { lead, rest: `But it ${slip.class}${slip.where}.` };
  return { lead, rest: `${capital(slip.words)} and it ${slip.class}${slip.where}.` };
}

export function flowWorking(v: FlowVerdict, textureLimit: number, units: UnitPreferences, u_filmLog?: number): Working {
  const { result } = v;
  const last = result.coats.at(-1)!;
  return {
    title: "Flow, peel and run",
    formula:
      "The film thickens as solvent leaves and hardener works. While it can still move, surface tension levels its waves and gravity pulls it down. Sag is how far the surface slides in all; texture is what is left of the drops’ unevenness and of what lies below.",
    inputs: [
      line("wet film as it lands", "film", last.deposit.wet_m, units),
      line("film that moves", "film", last.mobile_m, units),
      { name: "viscosity as it lands", shown: `${last.landed_Pa_s.toFixed(2)} Pa·s` },
      line("slides by, at the worst place", "length", result.sagLocal_m, units, 1),
      line("runs from", "length", FLOW.sagRun_m, units, 0),
      line("would run from a moving film of", "film", last.runFilm_m, units, 0),
      line("longest wave that levels", "length", last.levelWavelength_m, units, 1),
      line("waves left, 1.2 to 12 mm", "film", result.rmsLong_m, units, 2),
      { name: "texture, 1 glass to 5 heavy", shown: textureTold(result.texture) },
      { name: "peels from", shown: textureLimit.toFixed(1) },
      {
        name: "spread before your own results tune it",
        shown: `sag × ${Math.exp(sagLogSd(u_filmLog)).toFixed(1)}, texture ± ${TEXTURE_SD}`,
      },
      { name: "said of a chance", shown: "unlikely below 1 in 5, likely from 1 in 2, until this shop has told enough results" },
      withU("dry film of all coats", "film", result.dry_m, 0.3 * result.dry_m, units),
    ],
    sources: ["orchard-flow", "levelling-1962", "common-practice", "yakamoz-default"],
    changesMost:
      "Wet film, by hand speed and distance: sag goes with its third power. Yield, draughts, humidity and solvent pop are not in it; a cold booth shows as more sag, only cold material as more peel.",
  };
}

export const sagText = (m: number, units: UnitPreferences) => show("length", m, units, units.length === "mm" ? 0 : 2);
