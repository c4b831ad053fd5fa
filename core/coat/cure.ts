import type { PartSample } from "../models/cure/cure-age";
import { type CureStage, cureFromLog } from "../models/cure/bake-plan";
import type { ProductSheet } from "../models/product/sheet";
import type { HouseWay } from "../models/ways/way";
import type { Finish } from "../models/ways/terms";
import type { PanelFacts } from "../panel/derive-panel";
import { newestCoat } from "../panel/coats-on";
import { type AirLog, airAt, airLog } from "./air-log";

const MS = 1000;
/** From heat off until a steel part is near the room's temperature: about twelve of its lags, to a quarter of an hour. Common practice. */
export const COOL_S = 30 * 60;
/** Between two steps of a temperature log a part is taken to change within a second. */
const STEP_S = 1;

/** A part kept hot for a time, as it was logged by hand: it ends where it was written. */
interface HandBake {
  from_s: number;
  to_s: number;
  part_K: number;
}

export interface CureState {
  lastCoat_ms: number;
  /** Age at 20 °C so far. */
  age_s: number;
  /** When each stage was or will be reached, if the part stays as it is now; null: the sheet does not say. */
  stages: { stage: CureStage; at_ms: number | null; reached: boolean }[];
  /** By what its temperature is known, surest first. */
  from: "probe" | "bake" | "climate" | "sheet";
  /** Warmest of the part so far. */
  top_K: number;
  /** Out of the heat it is soft and warm until then; null: it was not heated since its newest coat, nor is it now. */
  hotUntil_ms: number | null;
}

/**
 * The one cure of a panel: its age since the newest coat at the temperatures that were logged, and when it may be taped, sanded, polished, waxed.
 * Heat far beyond what the sheet speaks of counts no more than that limit. Null before the first coat. @throws RangeError
 */
export function cureOf(
  sheet: ProductSheet,
  facts: Pick<PanelFacts, "coats" | "backCoats" | "climates" | "oven" | "bakes" | "baking">,
  now_ms: number,
): CureState | null {
  const last = newestCoat(facts);
  if (!last) return null;
  const lastCoat_ms = last.entry.at_ms;
  const after = (ms: number) => (ms - lastCoat_ms) / MS;
  const probe = facts.oven && facts.oven.seq > last.entry.seq ? facts.oven.body.samples : null;
  const bakes = facts.bakes.map((b): HandBake => {
    const to_s = after(b.at_ms);
    return { from_s: Math.max(0, to_s - b.body.time_s), to_s, part_K: b.body.part_K };
  });
  const air = airLog(facts.climates.map((c) => ({ from_ms: c.at_ms, air_K: c.body.part_K ?? c.body.air_K })));
  const log = partLog({ air, lastCoat_ms, end_s: after(now_ms), bakes, probe });
  const { age_s, stages, top_K } = cureFromLog(sheet, log);
  const at = (s: number | null) => (s === null ? null : lastCoat_ms + s * MS);
  return {
    lastCoat_ms,
    age_s,
    top_K,
    stages: stages.map(({ stage, at_s }) => ({ stage, at_ms: at(at_s), reached: at_s !== null && at(at_s)! <= now_ms })),
    hotUntil_ms: hotUntil(sheet, facts, lastCoat_ms),
    from: probe ? "probe" : bakes.length > 0 ? "bake" : facts.climates.length > 0 ? "climate" : "sheet",
  };
}

/** Heat that is on ends when the sheet's bake does; nobody knows sooner. */
function hotUntil({ bake }: ProductSheet, { bakes, baking }: Pick<PanelFacts, "bakes" | "baking">, lastCoat_ms: number): number | null {
  const off_ms = baking ? baking.at_ms + (bake?.time_s ?? 0) * MS : (bakes.at(-1)?.at_ms ?? null);
  return off_ms !== null && off_ms > lastCoat_ms ? off_ms + COOL_S * MS : null;
}

/** When a stage is reached; null: the sheet does not say. */
export const stageAt = (cure: CureState, stage: CureStage): number | null => cure.stages.find((s) => s.stage === stage)?.at_ms ?? null;

/**
 * Gloss waits until it may be sanded, and as long as the way wants before it is corrected; matte until it may be touched; neither is worked or read
 * while it is hot.
 */
export function readyAt(cure: CureState, { way, finish }: { way: Pick<HouseWay, "correctAfter_s">; finish: Finish }): number {
  const cool_ms = cure.hotUntil_ms ?? -Infinity;
  const sand_ms = stageAt(cure, "sand")!;
  if (finish === "matte") return Math.max(cool_ms, stageAt(cure, "tape") ?? stageAt(cure, "dustFree") ?? sand_ms);
  return Math.max(cool_ms, sand_ms, cure.lastCoat_ms + way.correctAfter_s * MS);
}

const DAY_S = 86_400;
/** Where the sheet does not say: no wax for 60 to 90 days. Common practice. */
export const USUAL_WAX_S = { from: 60 * DAY_S, to: 90 * DAY_S } as const;

export interface CureDate {
  stage: CureStage;
  at_ms: number;
  from: CureState["from"] | "common practice";
}

/** The days on which the clear may be taped, sanded, polished and waxed: for a calendar. */
export function cureDates({ stages, from, lastCoat_ms }: CureState): CureDate[] {
  const dates = stages.flatMap(({ stage, at_ms }): CureDate[] =>
    at_ms === null ? [] : [{ stage, at_ms, from: stage === "wax" ? "sheet" : from }],
  );
  if (dates.some((d) => d.stage === "wax")) return dates;
  return [...dates, { stage: "wax", at_ms: lastCoat_ms + USUAL_WAX_S.to * MS, from: "common practice" }];
}

/** Temperature of the part since its newest coat: the air that was logged, over it what was baked by hand, over it what a probe saw. */
function partLog(o: {
  air: AirLog;
  lastCoat_ms: number;
  end_s: number;
  bakes: readonly HandBake[];
  probe: readonly PartSample[] | null;
}): PartSample[] {
  // Where the probe's log ends the part is in the air again, from one moment to the next.
  const probed_s = o.probe ? o.probe.at(-1)!.at_s + STEP_S : -Infinity;
  const end_s = Math.max(STEP_S, o.end_s);
  const at = (s: number) => o.bakes.findLast((b) => s >= b.from_s && s < b.to_s)?.part_K ?? airAt(o.air, o.lastCoat_ms + s * MS);
  const samples: PartSample[] = o.probe ? [...o.probe] : [{ at_s: 0, part_K: at(0) }];
  const changes = [...o.air.map((a) => (a.from_ms - o.lastCoat_ms) / MS), ...o.bakes.flatMap((b) => [b.from_s, b.to_s]), probed_s, end_s];
  const rising = [...new Set(changes)].filter((s) => s > samples.at(-1)!.at_s && s <= end_s).sort((a, b) => a - b);
  for (const s of rising) {
    const before = samples.at(-1)!;
    const just_s = Math.max(before.at_s, s - STEP_S);
    if (just_s > before.at_s) samples.push({ at_s: just_s, part_K: at((before.at_s + just_s) / 2) });
    samples.push({ at_s: s, part_K: at(s) });
  }
  return samples;
}
