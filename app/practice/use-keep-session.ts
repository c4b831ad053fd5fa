import { nanoid } from "nanoid";
import { useEffect, useRef } from "react";
import { useFetcher } from "react-router";
import type { Debrief } from "#core/practice/debrief";
import type { Exercise, Level } from "#core/practice/exercises";
import type { JobJudged } from "#core/practice/job/judged";
import type { PracticeSession } from "#core/practice/session-body";
import type { BenchView } from "#server/views/bench-view";

interface Session {
  exercise: Exercise;
  level: Level;
  debrief: Debrief | null;
  judged: JobJudged | null;
  passed: boolean;
}
/** What a session came to is kept once it is told, by itself. */
export function useKeepSession({ id }: BenchView, { exercise, level, debrief, judged, passed }: Session): void {
  const { submit } = useFetcher({ key: "practice" });
  const kept = useRef<Debrief | null>(null);
  useEffect(() => {
    if (!debrief || kept.current === debrief) return;
    kept.current = debrief;
    const { loss, advice, volume_m3, time_s } = debrief;
    const costs: PracticeSession["body"]["costs"] = judged ? { judgement: judged.cost } : {};
    // What somebody else sprayed says nothing of this hand.
    if (!exercise.hidden) for (const { skill, cost } of advice) costs[skill] = cost;
    const session: PracticeSession = {
      exercise: id,
      level,
      passed,
      body: {
        runShare: loss.runShare,
        thinShare: loss.thinShare,
        uneven: loss.uneven,
        least_m: loss.least_m,
        volume_m3: exercise.hidden ? 0 : volume_m3,
        time_s: exercise.hidden ? 0 : time_s,
        costs,
      },
    };
    const form: Record<string, string> = { session: JSON.stringify(session), formKey: nanoid() };
    void submit(form, { method: "post" });
  }, [debrief, judged, passed, exercise, id, level, submit]);
}
