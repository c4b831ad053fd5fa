import { asLayer } from "../coat/as-layer";
import type { CoatsAsked } from "../coat/coats-ahead";
import { PART_LAG_S } from "../models/cure/cure-age";
import { USUAL_CLIMATE, stillCounts } from "../models/prep/preflight";
import type { Carrier } from "../models/product/kinds";
import type { CoatState } from "../panel/builds";
import { newestCoat } from "../panel/coats-on";
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
  const layer = facts.below.find((l) => l.layer === step.layer);
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
  return found;
}

/** What was sprayed last on the panel, and of which product. */
function lastOf({ facts, sheet }: CoatsAsked): { coat: CoatState; product: string } | null {
  const clear = newestCoat(facts);
  const below = facts.below.flatMap((l) => [...l.back, ...l.front]).map((coat) => ({ coat, product: coat.sheet.name }));
  const all: { coat: CoatState; product: string }[] = [...below, ...(clear ? [{ coat: clear, product: sheet.name }] : [])];
  return all.reduce<(typeof all)[number] | null>((a, c) => (a && a.coat.entry.seq > c.coat.entry.seq ? a : c), null);
}

/** The base decides the order of the cleaners. */
const carrierOf = ({ facts, sheet }: CoatsAsked): Carrier | null =>
  (facts.below.find((l) => l.layer === "base" || l.layer === "ground")?.sheet ?? sheet).carrier;

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
