import { show, showWait, showWithUncertainty } from "#core/kernel/units/format";
import type { UnitPreferences } from "#core/kernel/units/quantities";
import type { HidingReason } from "#core/models/prep/hiding";
import { LAYER_NAMES } from "#core/models/prep/layer-names";
import { capital } from "~/kit/words/capital";
import { runTold } from "~/kit/words/flow-words";
import { whenText } from "~/kit/words/when";
import type { Layers, NextLayerCoat } from "./layers-at";

/** What is next below the clear and when: its headline, with what follows it in a lighter hand. */
export function nextWords({ next, wait }: Pick<Layers, "next" | "wait">, now_ms: number): { main: string; rest: string } | null {
  const at = (ms: number) => (ms > now_ms ? `from ${whenText(ms, now_ms)}` : "now");
  if (next)
    return {
      main: `${capital(LAYER_NAMES[next.layer])} ${next.coat.number} of ${next.of},`,
      rest: `${wait ? at(wait.next_ms) : "now"}.`,
    };
  if (!wait) return null;
  const more = `Next coat of colour ${wait.next_ms > now_ms ? `in ${showWait((wait.next_ms - now_ms) / 1000)}` : "now"},`;
  return { main: more, rest: wait.over_ms > now_ms ? `clear from ${whenText(wait.over_ms, now_ms)}.` : "clear may go on." };
}

/** What the next coat below the clear lays, takes and does. */
export function nextFigures(next: NextLayerCoat, units: UnitPreferences): { big: string; small: string }[] {
  const { film, runs } = next;
  const ml = (m3: number) => `${show("volume", m3, units).text} ${units.volume}`;
  if (!film) return [{ big: "–", small: "a setting lies beyond the model" }];
  const dry = showWithUncertainty("film", film.dry_m, film.u_dry_m, units);
  const run = runs && runTold({ chance: runs.chance, sagLocal_m: runs.sagLocal_m }, null);
  return [
    { big: `${dry.text} ${dry.unit}`, small: "dry, forecast" },
    { big: ml(film.volume_m3), small: `through the gun${next.toMix_m3 === null ? "" : `; mix ${ml(next.toMix_m3)} for what is to come`}` },
    { big: showWait(film.time_s), small: "to spray it" },
    ...(run ? [{ big: run.big, small: `${run.small}, by the clear's flow model` }] : []),
  ];
}

/** What stands behind the figures: whose sheet, how it is thinned, how long its pot and its flash are. */
export function nextNotes(next: NextLayerCoat, units: UnitPreferences): string[] {
  const share = show("share", next.coat.reducer, units);
  return [
    next.own
      ? `By the sheet of ${next.sheet.name}.`
      : "No sheet named: as is usual for this layer, common practice. Its own sheet comes first.",
    `${next.coat.reducer > 0 ? `${share.text} ${share.unit}` : "No"} reducer${next.layer === "seal" && next.coat.reducer > next.sheet.reducerMin ? ", within its sheet: so reduced a sealer lies flat" : ""}; a pot lives ${showWait(next.potLife_s)}.`,
    ...(next.sheet.gun?.nozzle_m ? [`Its sheet asks for nozzle ${Number((next.sheet.gun.nozzle_m * 1e3).toFixed(2))}.`] : []),
    ...(next.runs ? [] : ["A filled primer stands where it lands: its runs are not predicted."]),
    ...(next.damp > 1 ? [`Water-borne: in this damp air it flashes ${next.damp.toFixed(1)} times as long as its sheet says.`] : []),
  ];
}

const WHY: Record<HidingReason, string> = {
  sheet: "its sheet",
  ground: "the ground coats below",
  shade: "an undercoat of another shade",
  sanded: "the undercoat was sanded",
};
export const hidingWords = ({ coats, why }: { coats: number; why: readonly HidingReason[] }, of: "base" | "it"): string =>
  `About ${coats} ${coats === 1 ? "coat" : "coats"} of ${of} until it covers: by ${why.map((w) => WHY[w]).join(", ")}. Looked at in daylight, it may be one more.`;
