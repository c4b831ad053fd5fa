import type { CauseId } from "../causes";
import { type Diagnosis, type Evidence, diagnose } from "../diagnose";
import type { DefectKind } from "../kinds";
import type { ObservationId } from "../observations";

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
