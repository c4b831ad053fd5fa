import { useMemo } from "react";
import { later, useLater } from "~/kit/root/later";
import { useAssessment } from "~/kit/run/use-assessment";
import type { PanelView } from "#server/views/panel-view";
import { useHeldHere } from "./held-here";

/** What the judge is asked of a plan under way: its chances are told when they are there. */
const judge = later(() => import("#core/judge/film-question"));

/** How the plan in force stands: colour on the cloth since it was made, and else what is still to come with its chances. */
export function useFromHere({ panel, state }: PanelView) {
  const { through, held } = useHeldHere({ state });
  const question = useLater(judge, state.plan !== null, true);
  const ahead = useMemo(() => question?.assessFromHere(panel, state) ?? null, [question, panel, state]);
  const { result } = useAssessment(through ? null : (ahead?.assess ?? null));
  return { through, ahead, held, chances: result && result.verdict !== "none" ? result : null };
}
