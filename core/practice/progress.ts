import { type BenchId, exerciseById } from "./exercises";
import { JOB_PASSES } from "./job/judged";
import { type AnySkill, SKILLS } from "./mended";

export interface SessionSeen {
  exercise: BenchId;
  passed: boolean;
  body: { costs: Partial<Record<AnySkill, number>> };
}

export interface Progress {
  /** Of each exercise: how often it was sprayed, and how often it passed. */
  exercises: Partial<Record<BenchId, { sprayed: number; passed: number }>>;
  /** Of each skill: share of the newest sessions that tried it in which it cost nothing worth a word; null before the first. */
  kept: Record<AnySkill, number | null>;
}

/** So many sessions say how a hand is now. Default of ours. */
const NEWEST = 6;

/** How somebody comes on, from what his sessions came to; oldest first. */
export function progressOf(sessions: readonly SessionSeen[]): Progress {
  const exercises: Progress["exercises"] = {};
  for (const { exercise, passed } of sessions) {
    const was = exercises[exercise] ?? { sprayed: 0, passed: 0 };
    exercises[exercise] = { sprayed: was.sprayed + 1, passed: was.passed + (passed ? 1 : 0) };
  }
  const share = (all: readonly SessionSeen[], kept: (s: SessionSeen) => boolean) => {
    const newest = all.slice(-NEWEST);
    return newest.length === 0 ? null : newest.filter(kept).length / newest.length;
  };
  const sprayed = sessions.filter(({ exercise }) => exercise === "free" || !exerciseById(exercise).hidden);
  const judged = sessions.filter((s) => s.body.costs.judgement !== undefined);
  return {
    exercises,
    kept: {
      ...(Object.fromEntries(SKILLS.map((skill) => [skill, share(sprayed, (s) => s.body.costs[skill] === undefined)])) as Progress["kept"]),
      judgement: share(judged, (s) => s.body.costs.judgement! <= JOB_PASSES),
    },
  };
}
