import { FAR_GUN_M, LOW_PRESSURE_PA } from "../trade-limits";
import { normalCdf } from "../../kernel/stats/normal";
import { toSi } from "../../kernel/units/convert";
import { FLOW, TEXTURE_SD } from "./constants";
import { EDGE_FILM, SAG_LOG_SD, edgeRunChance } from "./run-chance";
import { type FlowSetting, flowClass, moveSetting, settingAt, type FlowClass, type FlowAxis } from "./flow-window";
import { type FlowResult, simulateCoats } from "./simulate-coats";

/** Sprayed dry, it peels at least so surely, in sd: what the waves alone say of it is not less. */
const DRY_PEELS = -1;

export interface FlowVerdict {
  /** Of the flat field, as the map has it. */
  class: FlowClass;
  /** At the worst place, an edge, with the doubt of the film. */
  runChance: number;
  peelChance: number;
  /** The nearer of the two dangers, in standard deviations; above 0 is on the good side. */
  margin: number;
  result: FlowResult;
}

/** What one setting does, with the chance of each danger. @param u_filmLog doubt of the film laid, in logarithms @throws RangeError */
export function flowVerdict(s: FlowSetting, textureLimit: number, u_filmLog?: number): FlowVerdict {
  const result = simulateCoats(s.conditions, s.coats, s.shop ? { shop: s.shop } : {});
  const toRun = Math.log(FLOW.sagRun_m / Math.max(result.sagLocal_m, 1e-9)) / SAG_LOG_SD;
  const byWaves = (textureLimit - result.texture) / TEXTURE_SD;
  const toPeel = result.drySpray ? Math.min(DRY_PEELS, byWaves) : byWaves;
  return {
    class: flowClass(result, textureLimit),
    runChance: edgeRunChance(result.sagLocal_m, { edge: s.conditions.edge, u_filmLog }),
    peelChance: normalCdf(-toPeel),
    margin: Math.min(toRun, toPeel),
    result,
  };
}

/** Places of one panel that behave differently. */
export const FLOW_ZONES = [
  { id: "upright", name: "upright", tilt_rad: Math.PI / 2, edge: 1 },
  { id: "sloped", name: "sloped, 45°", tilt_rad: Math.PI / 4, edge: 1 },
  { id: "lying", name: "lying", tilt_rad: (5 * Math.PI) / 180, edge: 1 },
  { id: "edge", name: "edges and body lines, upright", tilt_rad: Math.PI / 2, edge: EDGE_FILM },
] as const;

export function zoneVerdicts(s: FlowSetting, textureLimit: number): { id: string; name: string; verdict: FlowVerdict }[] {
  return FLOW_ZONES.map((z) => ({
    id: z.id,
    name: z.name,
    verdict: flowVerdict({ ...s, conditions: { ...s.conditions, tilt_rad: z.tilt_rad, edge: z.edge } }, textureLimit),
  }));
}

interface Change {
  id: string;
  words: string;
  axis: FlowAxis | "hardener";
  /** By how much the figure moves: a factor, or a step in SI. */
  factor?: number;
  step?: number;
  speed?: "slow" | "fast";
  /** What it costs the painter, in small steps of the hand. */
  effort: number;
}
/** Small changes a painter can make at once. */
export const FLOW_CHANGES: readonly Change[] = [
  { id: "faster", words: "a tenth faster", axis: "speed", factor: 1.1, effort: 1 },
  { id: "slower", words: "a tenth slower", axis: "speed", factor: 0.9, effort: 1 },
  { id: "back", words: "2 cm further back", axis: "distance", step: 0.02, effort: 1 },
  { id: "closer", words: "2 cm closer", axis: "distance", step: -0.02, effort: 1 },
  { id: "flash", words: "5 min more flash", axis: "flash", step: 300, effort: 1.5 },
  { id: "less-fluid", words: "a tenth less fluid", axis: "fluid", factor: 0.9, effort: 1.3 },
  { id: "more-fluid", words: "a tenth more fluid", axis: "fluid", factor: 1.1, effort: 1.3 },
  { id: "more-air", words: "2 psi more at the gun", axis: "pressure", step: toSi("pressure", 2, "psi"), effort: 1.3 },
  { id: "less-air", words: "2 psi less at the gun", axis: "pressure", step: toSi("pressure", -2, "psi"), effort: 1.3 },
  { id: "slow-hardener", words: "slow hardener", axis: "hardener", speed: "slow", effort: 3 },
  { id: "fast-hardener", words: "fast hardener", axis: "hardener", speed: "fast", effort: 3 },
];

/** A setting after one change; null when it leaves the model's limits or changes nothing. */
export function applyChange(s: FlowSetting, change: Change): FlowSetting | null {
  if (change.axis === "hardener")
    return change.speed === s.conditions.speed ? null : { ...s, conditions: { ...s.conditions, speed: change.speed! } };
  if (change.axis === "flash" && s.coats.length < 2) return null;
  const now = settingAt(s, change.axis, 0);
  const next = now * (change.factor ?? 1) + (change.step ?? 0);
  if (change.axis === "distance" && (next < 0.06 || next > 0.45)) return null;
  if (change.axis === "pressure" && next < 0.4e5) return null;
  return moveSetting(s, change.axis, next, 0);
}

/** The three changes that widen the margin most for their effort, best first. */
export function cheapestChanges(s: FlowSetting, textureLimit: number): { id: string; words: string; gain: number; verdict: FlowVerdict }[] {
  const now = flowVerdict(s, textureLimit).margin;
  return FLOW_CHANGES.flatMap((change) => {
    const moved = applyChange(s, change);
    if (!moved) return [];
    const verdict = flowVerdict(moved, textureLimit);
    const gain = verdict.margin - now;
    return gain > 0.03 ? [{ worth: gain / change.effort, advice: { id: change.id, words: change.words, gain, verdict } }] : [];
  })
    .sort((a, b) => b.worth - a.worth)
    .slice(0, 3)
    .map((c) => c.advice);
}

/** The smallest slip that spoils it, in the field or at an edge; null when none of them does. */
export function nearestSlip(s: FlowSetting, textureLimit: number): { words: string; class: FlowClass; where: string } | null {
  const places = [
    { where: "", edge: s.conditions.edge },
    { where: " at the edges", edge: EDGE_FILM },
  ];
  for (const { where, edge } of places) {
    const here = { ...s, conditions: { ...s.conditions, edge } };
    const now = flowVerdict(here, textureLimit).class;
    if (now === "runs" || now === "peels") {
      if (where) return { words: "", class: now, where };
      continue;
    }
    for (const change of FLOW_CHANGES.filter((c) => c.axis === "speed" || c.axis === "distance")) {
      const moved = applyChange(here, change);
      const next = moved && flowVerdict(moved, textureLimit).class;
      if (next === "runs" || next === "peels") return { words: change.words, class: next, where };
    }
  }
  return null;
}

/** Why a setting does what it does, in the trade's words: the figures that stand out against the usual. */
export function flowReasons(s: FlowSetting, v: FlowVerdict): string[] {
  const { gun } = s.coats.at(-1)!;
  const d = v.result.coats.at(-1)!;
  const flash_s = s.coats.at(-2)?.flash_s;
  const say = (when: boolean, text: string) => (when ? [text] : []);
  return [
    ...say(s.conditions.air_K > 301 && s.conditions.speed === "fast", "hot air and fast hardener: it sets before it has levelled"),
    ...say(s.conditions.air_K > 301 && s.conditions.speed !== "fast", "hot air: it dries on landing"),
    ...say((s.conditions.material_K ?? s.conditions.air_K) < s.conditions.air_K - 4, "cold material: coarse drops, more peel"),
    ...say(s.conditions.air_K < 288, "cold booth: it stays wet longer and slides"),
    ...say(gun.distance_m > FAR_GUN_M, "far away: the drops dry on the way and land rough"),
    ...say(gun.distance_m < 0.14, "close: the film piles up unless the hand is faster"),
    ...say(d.deposit.wet_m > 75e-6, "a heavy wet coat"),
    ...say(d.deposit.wet_m < 28e-6, "a thin, dry coat"),
    ...say(
      flash_s !== undefined && flash_s < 240 && d.mobileBelow > 0.3,
      "next coat too soon: the coat below is still wet and slides with it",
    ),
    ...say(
      s.coats.length > 1 && d.mobileBelow < 0.02 && v.result.coats.at(-2)!.deposit.wet_m < 25e-6,
      "the tack coat has dried out: its texture shows through",
    ),
    ...say(s.conditions.tilt_rad < 0.4 && v.result.sagLocal_m < FLOW.sagRisk_m, "lying: gravity helps it level instead of pulling it down"),
    ...say(gun.pressure_Pa < LOW_PRESSURE_PA, "low pressure: coarse drops"),
  ];
}
