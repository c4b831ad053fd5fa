import { requireNumber } from "../../kernel/guard";
import { STEP_SPREAD } from "./learn-removal";
import { weighMeasured } from "./measured-step";
import type { Removal } from "./removal-plan";

/** What is believed of one unknown that several removals share: 0 ± 1 is what was believed before anything was read. */
export interface Belief {
  mean: number;
  sd: number;
}
/** Beliefs by the unknowns' names (a backing's depth of scratch, what nobody has measured here); who is not named is as before. */
export type Told = Readonly<Record<string, Belief>>;
export const NOTHING_TOLD: Told = {};

const BEFORE: Belief = { mean: 0, sd: 1 };
const of = (told: Told, name: string): Belief => told[name] ?? BEFORE;

/** A removal as the marks have told its shared unknowns: moved, and with less doubt. It never comes out below nothing. */
export function asTold<R extends Removal>(removal: R, told: Told): R {
  const shared = Object.entries(removal.common_m ?? {});
  if (!shared.some(([name]) => name in told)) return removal;
  const moved_m = shared.reduce((a, [name, part]) => a + part * of(told, name).mean, 0);
  const narrower = shared.reduce((a, [name, part]) => a + part ** 2 * (1 - of(told, name).sd ** 2), 0);
  return {
    ...removal,
    removal_m: Math.max(0, removal.removal_m + moved_m),
    u_m: Math.sqrt(Math.max(0, removal.u_m ** 2 - narrower)),
    common_m: Object.fromEntries(shared.map(([name, part]) => [name, part * of(told, name).sd])),
  };
}

/**
 * Beliefs once a step was read at a mark. The reading is the step's forecast plus its own doubt, the mark's and 17 % from place to place; the
 * shared unknowns are told by normal conditioning, each on its own: that those told together now lean on each other is left out, which only
 * leaves more doubt than there is.
 * @param forecast the step before any mark was read @throws RangeError for a doubt below nothing
 */
export function toldBy(told: Told, forecast: Removal, mark: Removal): Told {
  const shared = Object.entries(forecast.common_m ?? {}).filter(([, part]) => part > 0);
  requireNumber("forecast.u_m", forecast.u_m, { min: 0 });
  requireNumber("mark.removal_m", mark.removal_m);
  const now = asTold(forecast, told);
  const place_m = STEP_SPREAD * forecast.removal_m;
  const variance = now.u_m ** 2 + requireNumber("mark.u_m", mark.u_m, { min: 0 }) ** 2 + place_m ** 2;
  if (shared.length === 0 || variance === 0) return told;
  const next = shared.map(([name, part]): [string, Belief] => {
    const { mean, sd } = of(told, name);
    const gain = (part * sd ** 2) / variance;
    return [name, { mean: mean + gain * (mark.removal_m - now.removal_m), sd: sd * Math.sqrt(1 - gain * part) }];
  });
  return { ...told, ...Object.fromEntries(next) };
}

/** The forecast of before any mark, from one that beliefs had already gone into: the same beliefs turned round. */
export const untold = <R extends Removal>(removal: R, told: Told): R =>
  asTold(removal, Object.fromEntries(Object.entries(told).map(([name, { mean, sd }]) => [name, { mean: -mean / sd, sd: 1 / sd }])));

/** Steps of a work once one of them was read at a mark: that one weighed with it, the others as it told them. */
export function afterMark<R extends Removal>(steps: readonly R[], marked: number, mark: Removal): R[] {
  const step = steps[marked]!;
  const told = toldBy(NOTHING_TOLD, step, mark);
  return steps.map((s, i) => (i === marked ? { ...s, common_m: {}, ...weighMeasured(s, mark) } : asTold(s, told)));
}

/** Readings that a mark is usually given, before and after each. Common practice. */
const READINGS_AT_MARK = 3;
/** Doubt of what came off at a mark so read. */
export const uAtMark_m = (repeatability_m: number): number => repeatability_m * Math.sqrt(2 / READINGS_AT_MARK);

/** What is left of the doubt of steps once one of them is read at a mark and comes out as forecast; the film that comes off stays the same. */
export const ifMarked = <R extends Removal>(steps: readonly R[], marked: number, repeatability_m: number): R[] =>
  afterMark(steps, marked, { removal_m: steps[marked]!.removal_m, u_m: uAtMark_m(repeatability_m) });
