import { SUBSTRATE_TEXTURE } from "#core/models/flow/constants";
import { textureOf } from "#core/models/flow/reflection";
import { FLOW_COAT } from "#core/models/ways/flow-coat";
import type { FlowStage } from "#core/models/ways/flow-stage";
import type { Removal } from "#core/models/correction/removal-plan";
import type { OptionAnswer } from "#core/judge/option-case";
import { FLATTEN_S } from "#core/models/trade-limits";
import { type BlockedBy, stops } from "#core/judge/blocked-by";
import type { Verdict } from "#core/judge/limits";
import { showChance, showFilm, showWait, showWithUncertainty } from "#core/kernel/units/format";
import type { UnitPreferences } from "#core/kernel/units/quantities";
import type { Working } from "~/kit/ui/figure";
import { line, withU } from "~/kit/words/lines";
import { textureWords } from "~/kit/words/texture-words";

export const AGAINST: Record<NonNullable<FlowStage["against"]>, string> = {
  runs: "it may run at any pace of the hand",
  "clear build": "too much clear: solvent stays in it",
  "total build": "too much film in all: it may crack",
};

/** Whether it may be done, and what it comes to. */
export function flowSentence(
  stage: FlowStage,
  verdict: Verdict | null,
  { measured, left_s, held }: { measured: boolean; left_s: number; held: readonly BlockedBy[] },
  units: UnitPreferences,
): { main: string; rest: string } {
  const no = held.find(stops);
  if (no?.by === "fault") return { main: "No flow coat yet:", rest: `${no.fault.name.toLowerCase()} comes first.` };
  if (stage.against) return { main: "No flow coat here:", rest: `${AGAINST[stage.against]}.` };
  if (verdict === "stop") return { main: "Not enough clear to sand it flat:", rest: "it would cut through before it is level." };
  const then = showWithUncertainty("film", stage.clear_m, stage.u_clear_m, units);
  const wait = left_s > 0 ? `In ${showWait(left_s)} it` : "It";
  if (!measured || verdict === null)
    return { main: `${wait} may be sanded flat and cleared again,`, rest: `to ${then.text} ${then.unit}.` };
  return { main: `There is film enough. ${wait} may be sanded flat and cleared again,`, rest: `to ${then.text} ${then.unit}.` };
}

export function flowStageWorking(s: FlowStage, mean: { clear_m: number; u_m: number }, flat: Removal, units: UnitPreferences): Working {
  return {
    title: "Flat and re-clear",
    formula:
      "Clear then = clear there less what the sanding takes off, plus what the new coats lay. Their hand speed is the slowest, from 87 % of the usual, at which a run is unlikely at an edge by the flow model, the film's doubt in it, on a sanded surface, as the part hangs, at this temperature.",
    inputs: [
      withU("clear there", "film", mean.clear_m, mean.u_m, units),
      withU("sanded off", "film", flat.removal_m, flat.u_m, units),
      line("the coats add", "film", s.adds_m, units),
      withU("clear then", "film", s.clear_m, s.u_clear_m, units),
      line("all layers then", "film", s.total_m, units),
      { name: "hand speed, of the usual", shown: s.coat ? `${Math.round(100 * s.coat.speedFactor)} %` : "none is safe" },
      { name: "more reducer", shown: `${100 * FLOW_COAT.reducerShift} %` },
      line("slides by, at the worst place", "length", s.sagLocal_m, units, 1),
      { name: "chance of a run at an edge", shown: s.runChance === null ? "–" : showChance(s.runChance) },
    ],
    sources: ["orchard-flow", "levelling-1962", "product-sheet", "common-practice", "yakamoz-default"],
    changesMost: "Hand speed and fluid; then the air. A test panel decides.",
  };
}

/** Flow coat and polishing side by side. */
export function flowRows(
  stage: FlowStage,
  { answer, flat, left_s, sandAfter_s }: { answer: OptionAnswer | null; flat: Removal; left_s: number; sandAfter_s: number },
  units: UnitPreferences,
): { name: string; cells: string[] }[] {
  const film = (m: number) => showFilm(m, units).text;
  const options = answer?.decision.options ?? [];
  const flow = options.find((o) => o.kind === "flow");
  const full = options.find((o) => o.kind === "full");
  const sprayed_h = (stage.coats * stage.flash_s) / 3600;
  return [
    {
      name: "Flat and re-clear",
      cells: [
        Number.isFinite(stage.texture) ? textureWords(stage.texture) : "–",
        film(flat.removal_m),
        showWithUncertainty("film", stage.clear_m, stage.u_clear_m, units).text,
        (flow ? flow.minutes / 60 : FLATTEN_S / 3600 + sprayed_h).toFixed(1),
        showWait(left_s + sandAfter_s),
        flow ? showChance(flow.cutChance) : "–",
      ],
    },
    {
      name: "Level and polish",
      cells: full
        ? [
            textureWords(textureOf(SUBSTRATE_TEXTURE.polished)),
            film(full.removal_m),
            showWithUncertainty("film", full.left_m, full.u_left_m, units).text,
            (full.minutes / 60).toFixed(1),
            left_s > 0 ? showWait(left_s) : "none",
            showChance(full.cutChance),
          ]
        : ["–", "–", "–", "–", "–", "–"],
    },
  ];
}
