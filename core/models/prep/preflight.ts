import { dewPointMargin } from "../climate/dew-point";
import type { ProductSheet } from "../product/sheet";
import { PREFLIGHT_IDS } from "./preflight-ids";
import { requireNumber } from "../../kernel/guard";

/** Ticked by the painter, each with its reason. `job`: once for the whole job; else for each panel. Common practice. */
export const PREFLIGHT = [
  { id: "wiped", what: "Wiped down, both cleaners, until dry", why: "prints and silicone show as flakes and craters", scope: "panel" },
  { id: "tack", what: "Blown down and tacked", why: "dry overspray from base lies there even when it looks clean", scope: "panel" },
  { id: "static", what: "Part grounded; plastic wiped anti-static", why: "charge pulls dust onto wet clear", scope: "panel" },
  {
    id: "path",
    what: "The gun's path walked once, edges first",
    why: "a path made up on the way ends on clear that has flashed",
    scope: "panel",
  },
  {
    id: "light",
    what: "Light from the side on every face",
    why: "poor light is how dry patches and one coat too many happen",
    scope: "job",
  },
  { id: "clothing", what: "Lint-free, tight clothing; hood and gloves", why: "most fibres in clear come from a sleeve", scope: "job" },
  { id: "inside", what: "Everything for the job in the booth", why: "every opening of the door brings dust", scope: "job" },
  {
    id: "air",
    what: "Booth running some minutes, floor wetted, filters looked at",
    why: "dust has to settle or leave before the gun",
    scope: "job",
  },
  {
    id: "breathing",
    what: "Supplied air, or what the safety data sheet asks for",
    why: "two-pack clears contain isocyanates; a dust mask does not stop vapour",
    scope: "job",
  },
] as const satisfies readonly { id: (typeof PREFLIGHT_IDS)[number]; what: string; why: string; scope: "panel" | "job" }[];
export type PreflightId = (typeof PREFLIGHT)[number]["id"];

/** A tick, and a climate that was read, stand for one stay in the booth: a default of ours. */
export const VISIT_S = 4 * 3600;
/** Until when what was looked at counts, and whether it still does. */
export const countsUntil = (at_ms: number): number => at_ms + 1000 * VISIT_S;
export const stillCounts = (at_ms: number, now_ms: number): boolean => now_ms < countsUntil(at_ms);

export interface ClimateNow {
  air_K: number;
  part_K: number | null;
  material_K: number | null;
  relativeHumidity: number;
}
export interface ClimateCheck {
  id: "dew" | "part" | "material" | "air";
  what: string;
  state: "good" | "caution" | "stop";
  why: string;
}

const DEW_STOP_K = 3;
/** General clears, common practice: part above 15.5 °C, material about 21 °C, air 15.5 to 29 °C. A sheet's own window comes first. */
export const USUAL_CLIMATE = { low_K: 288.65, high_K: 302.15, material_K: 294.15, materialOff_K: 4 } as const;

/** What today's climate says before the gun is filled, worst first. @throws RangeError */
export function climateChecks(now: ClimateNow, sheet: Pick<ProductSheet, "window" | "name">): ClimateCheck[] {
  const air = requireNumber("air_K", now.air_K, { min: 253, max: 333 });
  const low_K = sheet.window?.low_K ?? USUAL_CLIMATE.low_K;
  const high_K = sheet.window?.high_K ?? USUAL_CLIMATE.high_K;
  const { margin_K } = dewPointMargin({ air_K: air, part_K: now.part_K ?? air, relativeHumidity: now.relativeHumidity });
  const whose = sheet.window ? `the window of ${sheet.name}` : "what clears in general want";
  const checks: ClimateCheck[] = [
    {
      id: "dew",
      what: margin_K < 0 ? "Part too near the dew point" : "Part above the dew point",
      state: margin_K < 0 ? "stop" : margin_K < DEW_STOP_K ? "caution" : "good",
      why:
        margin_K < 0
          ? "water settles in the fresh clear: blush, and it may lift"
          : margin_K < DEW_STOP_K
            ? "a little colder or damper, and water settles in the fresh clear"
            : "water stays off the fresh clear",
    },
    {
      id: "air",
      what: air > high_K ? "Air too warm" : air < low_K ? "Air too cold" : "Air within its window",
      state: air > high_K || air < low_K ? "stop" : "good",
      why:
        air > high_K
          ? `above ${whose}: it dries on landing and peels`
          : air < low_K
            ? `below ${whose}: it runs, and cure may stop`
            : `inside ${whose}`,
    },
  ];
  if (now.part_K !== null)
    checks.push({
      id: "part",
      what: now.part_K < low_K ? "Part too cold" : "Part warm enough",
      state: now.part_K < low_K ? "stop" : now.part_K < air - 5 ? "caution" : "good",
      why: now.part_K < low_K ? "clear creeps off a cold part: runs, later pops" : "a part colder than the air keeps the clear open longer",
    });
  if (now.material_K !== null) {
    const off = now.material_K - USUAL_CLIMATE.material_K;
    checks.push({
      id: "material",
      what:
        off < -USUAL_CLIMATE.materialOff_K
          ? "Material too cold"
          : off > USUAL_CLIMATE.materialOff_K
            ? "Material warm"
            : "Material at temperature",
      state: off < -USUAL_CLIMATE.materialOff_K ? "stop" : off > USUAL_CLIMATE.materialOff_K ? "caution" : "good",
      why:
        off < -USUAL_CLIMATE.materialOff_K
          ? "thick at the gun: coarse drops, peel"
          : off > USUAL_CLIMATE.materialOff_K
            ? "thin at the gun: it runs sooner, and the pot lives shorter"
            : "paint from a cold store is not sprayed",
    });
  }
  const rank = { stop: 0, caution: 1, good: 2 };
  return checks.sort((a, b) => rank[a.state] - rank[b.state]);
}
