import { type Diagnosis, type Evidence, diagnose } from "./diagnose";
import type { CauseId } from "./causes";
import type { DefectKind } from "./kinds";
import type { ObservationId } from "./observations";

/** A case whose cause is known to the one who made it up; null: it is not in the list. */
export interface HiddenCase {
  kind: DefectKind;
  cause: CauseId | null;
  /** What the job's record already says, and all that is so; what is asked and not named is not so. */
  record: readonly ObservationId[];
  yes: readonly ObservationId[];
}

/** How many questions a painter is asked before it is judged. */
export const QUESTIONS_ASKED = 3;

/** A case diagnosed from its record and the answers to the most telling questions, each given wrongly where `wrong` says so. */
export function askThrough({ kind, record, yes }: HiddenCase, wrong: () => boolean = () => false, questions = QUESTIONS_ASKED): Diagnosis {
  const so = (id: ObservationId) => yes.includes(id);
  const known: Evidence = Object.fromEntries(record.map((id) => [id, so(id)]));
  for (let asked = 0; asked < questions; asked++) {
    const [next] = diagnose(kind, known).questions;
    if (!next) break;
    known[next.id] = wrong() ? !so(next.id) : so(next.id);
  }
  return diagnose(kind, known);
}

/** Mean squared distance between what was said of the first cause and whether it was the one. 0 sure and right, 1 sure and wrong. */
export function brier(said: readonly { probability: number; right: boolean }[]): number {
  return said.reduce((a, s) => a + (s.probability - (s.right ? 1 : 0)) ** 2, 0) / Math.max(1, said.length);
}

/** By tenths of what was said: how often it was right. */
export function calibration(
  said: readonly { probability: number; right: boolean }[],
): { from: number; n: number; said: number; right: number }[] {
  return Array.from({ length: 10 }, (_, i) => i / 10).flatMap((from) => {
    const here = said.filter((s) => s.probability >= from && (s.probability < from + 0.1 || (from === 0.9 && s.probability === 1)));
    if (here.length === 0) return [];
    const mean = (of: (s: (typeof here)[number]) => number) => here.reduce((a, s) => a + of(s), 0) / here.length;
    return [{ from, n: here.length, said: mean((s) => s.probability), right: mean((s) => (s.right ? 1 : 0)) }];
  });
}
