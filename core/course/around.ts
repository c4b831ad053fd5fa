import { asLayer } from "../coat/as-layer";
import type { CoatsAsked } from "../coat/coats-ahead";
import { handGun, nextCoat } from "../coat/next-coat";
import { PART_LAG_S } from "../models/cure/cure-age";
import { USUAL_CLIMATE, stillCounts } from "../models/prep/preflight";
import type { ColourEdge } from "../models/prep/layer-names";
import type { Carrier } from "../models/product/kinds";
import type { CoatState } from "../panel/builds";
import { newestCoat, newestOf } from "../panel/coats-on";
import { coatsOfLayers, colourBelow, layerOf } from "../panel/layer-coats";
import { isFold } from "../record/kinds";
import type { CourseStep } from "./steps";

/** What is done around a step of the course: nobody ticks it, each has its reason. */
export type Around =
  | { what: "look" } // the arriving part
  | { what: "plug" }
  | { what: "clean"; carrier: Carrier | null }
  | { what: "warmPart"; time_s: number }
  | { what: "warmMaterial" }
  | { what: "booth" }
  | { what: "flush"; of: string }
  | { what: "pattern" }
  | { what: "stir" }
  /** This coat is sprayed wetter than the pot was mixed: so much reducer more, in all. */
  | { what: "wetter"; more: number; reducer: number }
  /** The bed that colour is blended in; a blend coat goes so much further out than the base. */
  | { what: "wetBed" }
  | { what: "blendOut"; beyond_m: number }
  | { what: "colourEdge"; edge: ColourEdge }
  | { what: "leaveRunning" }
  | { what: "shade" }
  | { what: "runsLater" };

const MS = 1000;
/** Paint dries in a nozzle that stands so long; a booth that was not sprayed in for so long is run some minutes first. Defaults of ours. */
const STANDS_MS = 20 * 60 * MS;
/** A part so near to the air is as warm as that. */
const WARM_ENOUGH_K = 1;

/** Around a step, in the order in which it is done. @throws RangeError */
export function aroundOf(step: CourseStep, input: CoatsAsked): Around[] {
  switch (step.kind) {
    case "prepare":
      return [{ what: "look" }, { what: "plug" }];
    case "colour":
    case "coat":
      return aroundCoat(step, input);
    case "purge":
    case "bake":
      return [{ what: "leaveRunning" }];
    case "cure":
      return [{ what: "shade" }, ...(input.facts.defects.some((d) => isFold(d.body.kind)) ? [{ what: "runsLater" as const }] : [])];
    default:
      return [];
  }
}

function aroundCoat(step: CourseStep, input: CoatsAsked): Around[] {
  const { facts, now_ms } = input;
  const layer = layerOf(facts.below, step.layer);
  const { sheet, facts: own } = layer ? asLayer(input, layer) : input;
  const last = lastOf(input);
  const found: Around[] = [];
  const wiped = facts.under.some((u) => u.body.step === "clean") || facts.preflight?.body.ticks.includes("wiped");
  if (!last && !wiped) found.push({ what: "clean", carrier: carrierOf(input) });
  found.push(...warming(input));
  const stood = !last || now_ms - last.coat.entry.at_ms > STANDS_MS;
  if (stood) found.push({ what: "booth" });
  if (last && last.product !== sheet.name) found.push({ what: "flush", of: last.product }, { what: "pattern" });
  else if (stood) found.push({ what: "pattern" });
  const { mix } = own;
  if (mix && sheet.settles_s !== null && now_ms - mix.at_ms > sheet.settles_s * MS) found.push({ what: "stir" });
  found.push(...edgeOf(step, input));
  const wetter = layer ? null : wetterThanPot(input);
  if (wetter) found.push(wetter);
  return found;
}

/** Each blend coat goes so much further out than the one before: a hand's width, common practice. */
const FURTHER_M = 0.12;

/** Where the colour ends: said with its first coat; a blend grows outward coat by coat, on a wet bed. */
function edgeOf({ layer, number }: CourseStep, { facts: { layerPlan } }: CoatsAsked): Around[] {
  if (layer === "blend")
    return [...(number === 1 ? [{ what: "wetBed" as const }] : []), { what: "blendOut", beyond_m: FURTHER_M * (number ?? 1) }];
  const edge = layerPlan?.body.edge ?? null;
  return layer === "base" && number === 1 && edge ? [{ what: "colourEdge", edge }] : [];
}

/** The way sprays the next coat wetter than what stands in the pot; null: it does not, or nothing is mixed. */
function wetterThanPot(input: CoatsAsked): Around | null {
  const { mixed, reducer: inHand } = handGun(input);
  const { reducer } = nextCoat(input);
  const { mix } = input.facts;
  const lives = mix !== null && mix.at_ms + mix.body.potLife_s * MS > input.now_ms;
  return lives && !mixed && reducer > inHand + LEAST_MORE ? { what: "wetter", more: reducer - inHand, reducer } : null;
}
/** Less nobody measures into a cup. */
const LEAST_MORE = 0.004;

/** What was sprayed last on the panel, and of which product. */
function lastOf({ facts, sheet }: CoatsAsked): { coat: CoatState; product: string } | null {
  const [below, clear] = [newestOf(coatsOfLayers(facts.below)), newestCoat(facts)];
  const coat = newestOf([...(below ? [below] : []), ...(clear ? [clear] : [])]);
  return coat && { coat, product: coat === below ? below.sheet.name : sheet.name };
}

/** The base decides the order of the cleaners. */
const carrierOf = ({ facts, sheet }: CoatsAsked): Carrier | null => (colourBelow(facts.below)?.sheet ?? sheet).carrier;

/** Until the part is as warm as the air, by the lag of a steel part; material from a cold store. By a climate that still counts. */
function warming({ facts: { climate }, now_ms }: CoatsAsked): Around[] {
  if (!climate || !stillCounts(climate.at_ms, now_ms)) return [];
  const { air_K, part_K, material_K } = climate.body;
  const left_s = part_K !== null && air_K - part_K > WARM_ENOUGH_K ? PART_LAG_S.usual * Math.log((air_K - part_K) / WARM_ENOUGH_K) : 0;
  const still_s = left_s - (now_ms - climate.at_ms) / MS;
  return [
    ...(still_s > 0 ? [{ what: "warmPart" as const, time_s: still_s }] : []),
    ...(material_K !== null && material_K < USUAL_CLIMATE.material_K - USUAL_CLIMATE.materialOff_K
      ? [{ what: "warmMaterial" as const }]
      : []),
  ];
}
