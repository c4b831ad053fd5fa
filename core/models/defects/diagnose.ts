import type { DefectKind } from "./kinds";
import { requireNumber } from "../../kernel/guard";
import { CAUSES, CAUSE_IDS, type Cause, type CauseId } from "./causes";
import { OBSERVATIONS, OBSERVATION_IDS, type ObservationId } from "./observations";

/** What is known of each finding; left away: not known. */
export type Evidence = Partial<Record<ObservationId, boolean>>;
/** How often this shop has found each cause behind a defect. */
export type FinalWords = Partial<Record<CauseId, number>>;

export interface RankedCause {
  /** Null: something that is not in the list. */
  id: CauseId | null;
  name: string;
  probability: number;
  /** Findings that speak for it and against it, strongest first, with how many times likelier they make it. */
  speaksFor: { id: ObservationId; words: string; times: number }[];
  speaksAgainst: { id: ObservationId; words: string; times: number }[];
}
export interface Diagnosis {
  causes: RankedCause[];
  /** The next question worth asking, most telling first, with what an answer is expected to tell, bits. */
  questions: { id: ObservationId; ask: string; bits: number }[];
  /** Doubt left, bits. */
  doubt_bits: number;
  enough: boolean;
}

/** Share kept for what is not in the list. Default of ours. */
const SOMETHING_ELSE = 0.08;
/** The list's own weights count as so many cases of the shop. */
const LIST_CASES = 12;
/** No finding of the record or of a painter's memory is surer than this. */
const LEAST = 0.02;
/** Below this the first in the list is not called. */
const ENOUGH = 0.5;
const LEAST_BITS = 0.02;

/**
 * Findings that tell the same thing twice: where it lies; how much was laid. Each answer of a group counts the less, the more of them are known, so that two
 * of them say little more than one. Shares of ours.
 */
const SAME_THING: readonly (readonly ObservationId[])[] = [
  ["onePlace", "edgePlace", "topEdge", "overRepair", "gapDust"],
  ["settingsRun", "thickCoat", "close", "slow"],
  ["settingsPeel", "thinCoat", "far", "quick"],
];
const NEXT_OF_SAME = 0.3;

/** How much each known finding counts: 1 by itself, less beside others of its group. */
function powersOf(known: readonly { id: ObservationId }[]): number[] {
  return known.map(({ id }) => {
    const group = SAME_THING.find((g) => g.includes(id));
    const n = group ? known.filter((k) => group.includes(k.id)).length : 1;
    return (1 + NEXT_OF_SAME * (n - 1)) / n;
  });
}

const clamp = (p: number) => Math.min(1 - LEAST, Math.max(LEAST, p));
const chanceOf = (cause: Cause | null, id: ObservationId, so: boolean): number => {
  const p = clamp(cause?.shows[id] ?? OBSERVATIONS[id].usual);
  return so ? p : 1 - p;
};

/**
 * Ranked causes of a defect from its findings: prior weights of the list and of the shop's own final words, times how often each finding goes
 * with each cause (naive Bayes, tempered where findings tell the same thing; their order does not matter). A share is kept for what the list does not know.
 * @throws RangeError for a negative count of final words
 */
export function diagnose(kind: DefectKind, evidence: Evidence, finalWords: FinalWords = {}): Diagnosis {
  const list = CAUSE_IDS.filter((id) => (CAUSES[id] as Cause).of[kind] !== undefined);
  const cases = CAUSE_IDS.reduce((a, id) => a + requireNumber(`finalWords.${id}`, finalWords[id] ?? 0, { min: 0 }), 0);
  const weight = (id: CauseId) => (CAUSES[id] as Cause).of[kind]!;
  const total = list.reduce((a, id) => a + weight(id), 0);
  const candidates: { id: CauseId | null; prior: number }[] = [
    ...list.map((id) => ({
      id,
      prior: ((1 - SOMETHING_ELSE) * ((LIST_CASES * weight(id)) / total + (finalWords[id] ?? 0))) / (LIST_CASES + cases),
    })),
    { id: null, prior: SOMETHING_ELSE },
  ];
  const known = OBSERVATION_IDS.flatMap((id) => (evidence[id] === undefined ? [] : [{ id, so: evidence[id] }]));
  const now = posterior(candidates, known);
  const causes = candidates
    .map(({ id }, i): RankedCause => {
      const cause = id === null ? null : (CAUSES[id] as Cause);
      const told = known
        .map(({ id: o, so }) => ({
          id: o,
          words: OBSERVATIONS[o][so ? "yes" : "no"],
          times: chanceOf(cause, o, so) / meanChance(candidates, now, o, so),
        }))
        .filter((t) => Math.abs(Math.log(t.times)) > 0.18);
      return {
        id,
        name: cause?.name ?? "Something that is not in the list",
        probability: now[i]!,
        speaksFor: told.filter((t) => t.times > 1).sort((a, b) => b.times - a.times),
        speaksAgainst: told.filter((t) => t.times < 1).sort((a, b) => a.times - b.times),
      };
    })
    .sort((a, b) => b.probability - a.probability);
  const doubt_bits = bitsOf(now);
  const questions = OBSERVATION_IDS.flatMap((id) => {
    const { ask } = OBSERVATIONS[id];
    if (ask === null || evidence[id] !== undefined) return [];
    const yes = meanChance(candidates, now, id, true);
    const after = [true, false].reduce((a, so) => a + (so ? yes : 1 - yes) * bitsOf(posterior(candidates, [...known, { id, so }])), 0);
    const bits = doubt_bits - after;
    return bits > LEAST_BITS ? [{ id, ask, bits }] : [];
  }).sort((a, b) => b.bits - a.bits);
  const leader = causes[0]!;
  return { causes, questions, doubt_bits, enough: known.length > 0 && leader.id !== null && leader.probability >= ENOUGH };
}

function posterior(
  candidates: readonly { id: CauseId | null; prior: number }[],
  known: readonly { id: ObservationId; so: boolean }[],
): number[] {
  const powers = powersOf(known);
  const logs = candidates.map(({ id, prior }) => {
    const cause = id === null ? null : (CAUSES[id] as Cause);
    return known.reduce((a, k, i) => a + powers[i]! * Math.log(chanceOf(cause, k.id, k.so)), Math.log(prior));
  });
  const most = Math.max(...logs);
  const raw = logs.map((l) => Math.exp(l - most));
  const sum = raw.reduce((a, b) => a + b, 0);
  return raw.map((r) => r / sum);
}

/** How often a finding is so, all causes by what they are worth now. */
function meanChance(candidates: readonly { id: CauseId | null }[], now: readonly number[], id: ObservationId, so: boolean): number {
  return candidates.reduce((a, c, i) => a + now[i]! * chanceOf(c.id === null ? null : (CAUSES[c.id] as Cause), id, so), 0);
}

const bitsOf = (p: readonly number[]) => -p.reduce((a, v) => a + (v > 0 ? v * Math.log2(v) : 0), 0);
