import { MEND_CARDS } from "#core/models/prep/mend-cards";
import { COAT_ZONES } from "#core/models/ways/terms";
import { LAYER_NAMES } from "#core/models/prep/layer-names";
import { DEFECT_KINDS } from "#core/models/defects/kinds";
import { EYE_COLOURS, EYE_LIGHTS, OUTCOMES, PANEL_PARTS, PART_HELD, PHASES, SEEN_TO } from "#core/record/kinds";
import type { LedgerEntry } from "#core/record/entry";
import { correctionSchool } from "#core/models/correction/schools";
import { placeInWords } from "#core/kernel/geometry/place-in-words";
import type { PanelShape } from "#core/kernel/geometry/shapes";
import { show, showFilm, showWait, showWithUncertainty } from "#core/kernel/units/format";
import type { UnitPreferences } from "#core/kernel/units/quantities";

/** What an entry of the ledger is called. */
const NAMES: Partial<Record<LedgerEntry["kind"], string>> = {
  handOver: "hand over",
  coatStart: "coat begun",
  stepStart: "step begun",
  gunSet: "gun taken up",
  wetComb: "wet comb",
  gaugeCheck: "gauge check",
  spotPlan: "spots to read",
  throughClear: "through the clear",
  matteCheck: "matte rules",
  under: "below the clear",
  oven: "part temperature",
  flatten: "sanded flat",
  turn: "turned",
  bakeStart: "heat on",
  layerPlan: "what goes below the clear",
  colourCoat: "coat below the clear",
  outcome: "how it came out",
  neighbour: "the panel beside",
  lookedOver: "looked over, nothing found",
  seenTo: "a fault seen to",
  eye: "colour and coverage by eye",
  reflection: "light tube beside the neighbour's",
  matteMix: "matte mix",
  strip: "strip beside the part",
  mendStep: "mended on the way",
};
export const entryName = (kind: string): string => NAMES[kind as LedgerEntry["kind"]] ?? kind;

/** Its value and place in a line, in the shop's units; empty where its name says it all. */
export function entryWords(e: LedgerEntry, shape: Pick<PanelShape, "outline" | "sides">, units: UnitPreferences): string {
  const film = (m: number) => showFilm(m, units).text;
  const at = ({ x_m, y_m }: { x_m: number; y_m: number }) => placeInWords([x_m, y_m], shape);
  switch (e.kind) {
    case "reading":
      return `spot ${e.body.spot} (${at(e.body.at)}), ${PHASES[e.body.phase]}: ${e.body.readings.map((r) => `${r.entered} ${r.unit}`).join(", ")}`;
    case "coat":
      return `coat ${e.body.number}, ${e.body.role}${e.body.side === "back" ? ", on the back" : ""}${e.body.zone === "whole" ? "" : `, ${COAT_ZONES[e.body.zone]}`}`;
    case "flatten":
      return `P${e.body.grit} by ${e.body.by}: ${showWithUncertainty("film", e.body.removal_m, e.body.u_m, units).text} ${units.film} ${e.body.from === "told" ? "as told" : "by forecast"}`;
    case "turn":
      return `${PART_HELD[e.body.how]}, ${e.body.side} up`;
    case "bake": {
      const part = show("temperature", e.body.part_K, units);
      return `${part.text} ${part.unit} on the part for ${showWait(e.body.time_s)}`;
    }
    case "coatStart":
      return `coat ${e.body.number}`;
    case "wetComb":
      return `coat ${e.body.number}: ${film(e.body.thickness_m)} ${units.film} wet`;
    case "defect":
      return `${DEFECT_KINDS[e.body.kind].name}, ${at(e.body.at)}${e.body.count > 1 ? `, ${e.body.count}` : ""}`;
    case "step":
      return `${e.body.name}: ${showWithUncertainty("film", e.body.removal_m, e.body.u_m, units).text} ${units.film}`;
    case "plan":
      return [
        correctionSchool(e.body.schoolId).name,
        e.body.part ? PANEL_PARTS[e.body.part.name] : "",
        e.body.fill ? "filled with drops first" : "",
      ]
        .filter(Boolean)
        .join(", ");
    case "climate": {
      const air = show("temperature", e.body.air_K, units);
      return `${air.text} ${air.unit}, ${Math.round(100 * e.body.relativeHumidity)} % humidity`;
    }
    case "mix": {
      const pot = show("volume", e.body.volume_m3, units);
      return `${pot.text} ${pot.unit}`;
    }
    case "matteMix":
      return `${Math.round(100 * e.body.share)} % matting component for ${e.body.target_GU} GU`;
    case "gloss":
      return `${e.body.role === "target" ? "to match" : "the part"}, ${e.body.readings.map((r) => r.entered).join(", ")} GU at ${e.body.angle}°`;
    case "texture":
      return `${e.body.role === "target" ? "the neighbour" : "the part"}: ${e.body.rating.toFixed(1)} on 1 glass to 5 heavy`;
    case "strip":
      return `strip ${e.body.phase} clear: ${e.body.readings.map((r) => `${r.entered} ${r.unit}`).join(", ")}`;
    case "gaugeCheck":
      return e.body.gauge;
    case "mendStep":
      return `${MEND_CARDS[e.body.card].name}, step ${e.body.step + 1}`;
    case "neighbour":
      return [
        e.body.name,
        e.body.readings.map((r) => `${r.entered} ${r.unit}`).join(", "),
        e.body.rating === null ? "" : `texture ${e.body.rating.toFixed(1)}`,
        e.body.gloss60_GU === null ? "" : `${e.body.gloss60_GU} GU`,
      ]
        .filter(Boolean)
        .join(": ");
    case "reflection":
      return `${(1000 * e.body.own_rad).toFixed(2)} against ${(1000 * e.body.beside_rad).toFixed(2)} mrad`;
    case "eye":
      return `colour ${EYE_COLOURS[e.body.colour]}, ${e.body.covered ? "covered" : "not covered"}, in ${EYE_LIGHTS[e.body.light]}`;
    case "outcome":
      return OUTCOMES[e.body.result];
    case "layerPlan":
      return e.body.layers.map((l) => `${LAYER_NAMES[l.layer]} × ${l.coats}`).join(", ") || "nothing";
    case "colourCoat":
      return LAYER_NAMES[e.body.coat];
    case "under":
      return e.body.step;
    case "seenTo":
      return [SEEN_TO[e.body.as], e.body.note].filter(Boolean).join(": ");
    case "cause":
      return DEFECT_KINDS[e.body.kind].name;
    case "note":
      return e.body.text;
    case "handOver":
    case "throughClear":
      return e.body.note;
    default:
      return "";
  }
}

/** What it is and what it holds in one line, its name once. */
export function entryLine(entry: LedgerEntry, shape: Pick<PanelShape, "outline" | "sides">, units: UnitPreferences): string {
  const [name, said] = [entryName(entry.kind), entryWords(entry, shape, units)];
  return said.startsWith(name) ? said : `${name} ${said}`.trim();
}
