import { FILM_BOUNDS } from "../models/bounds";
import { RELOCATION, SAME_GAUGE_CORRELATION } from "../models/film/difference";
import { twoPointCorrection } from "../models/film/gauge";
import { type GaugeCheckResult, gaugeCheck } from "../models/film/gauge-check";
import type { EntryOf } from "../record/entry";

type Reading = EntryOf<"reading">;
type Check = EntryOf<"gaugeCheck">;

const films = (list: readonly { thickness_m: number }[]) => list.map((r) => r.thickness_m);
const mean = (xs: readonly { thickness_m: number }[]) => films(xs).reduce((a, x) => a + x, 0) / xs.length;

/** The set-up check that a reading was taken under: the last one of its gauge before it. */
export function checkOf(reading: Reading, checks: readonly Check[]): Check | null {
  return checks.findLast((c) => c.body.gauge === reading.body.gauge && c.seq <= reading.seq) ?? null;
}

/** What a set-up check says of its gauge, also against the one before it. @throws RangeError for a foil that reads no more than bare metal */
export function judgeCheck(check: Check, checks: readonly Check[]): GaugeCheckResult {
  const previous = checks.findLast((c) => c.seq < check.seq && c.body.gauge === check.body.gauge);
  return gaugeCheck({
    zero_m: films(check.body.zero),
    onFoil_m: films(check.body.onFoil),
    foil_m: check.body.foil_m,
    uFoil_m: check.body.uFoil_m,
    previous: previous ? { zero_m: films(previous.body.zero), onFoil_m: films(previous.body.onFoil) } : null,
  });
}

/** A foil that reads no more than bare metal says nothing of a gauge. */
const tells = ({ body }: Check): boolean => mean(body.onFoil) > mean(body.zero);

/** Whether a reading was taken with a gauge that a foil had shown to be right, or that is set right by what the foil showed. */
export function underFoil(reading: Reading, checks: readonly Check[]): boolean {
  const check = checkOf(reading, checks);
  if (!check || !tells(check)) return false;
  const { within, sets } = judgeCheck(check, checks);
  return within || (check.body.correct && sets);
}

/** Readings of an entry in metres, set right by the two-point check where that was asked for and can be relied on. */
export function correctedReadings(reading: Reading, checks: readonly Check[]): number[] {
  const check = checkOf(reading, checks);
  const raw = films(reading.body.readings);
  if (!check?.body.correct || !tells(check)) return raw;
  const { sets, zero_m, onFoil_m } = judgeCheck(check, checks);
  if (!sets) return raw;
  return raw.map((raw_m) => asFilm(twoPointCorrection({ raw_m, rawZero_m: zero_m, rawFoil_m: onFoil_m, foil_m: check.body.foil_m })));
}

/** A film set right, kept to what there can be: none is below zero or more than any gauge shows. */
const asFilm = (film_m: number) => Math.max(FILM_BOUNDS.total_m.min, Math.min(FILM_BOUNDS.total_m.max, film_m));

export interface Sessions {
  /** Share of the gauge's error common to before and after: 0.8 with one gauge and set-up, else 0. */
  correlation: number;
  /** How far the probe may have moved between them. */
  relocation_m: number;
}

/** How the visits before and after clear belong together: gauges, set-ups, and whether every later reading was taken by marks or a template. */
export function sessionsOf(readings: readonly Reading[], checks: readonly Check[]): Sessions {
  const session = (r: Reading) => `${r.body.gauge} ${checkOf(r, checks)?.id ?? "none"}`;
  const set = (list: readonly Reading[]) => new Set(list.map(session));
  const before = set(readings.filter((r) => r.body.phase === "before"));
  const later = readings.filter((r) => r.body.phase !== "before");
  const same = new Set([...before, ...set(later)]).size <= 1;
  return {
    correlation: same ? SAME_GAUGE_CORRELATION : 0,
    relocation_m: later.length > 0 && later.every((r) => r.body.template) ? RELOCATION.template_m : RELOCATION.freehand_m,
  };
}
