import { assessFromHere } from "#core/judge/film-question";
import { useMemo } from "react";
import { useAssessment } from "~/kit/run/use-assessment";
import type { PanelView } from "#server/views/panel-view";

/** How the plan in force stands: colour on the cloth since it was made, and else what is still to come with its chances. */
export function useFromHere({ panel, state }: PanelView) {
  const { plan } = state;
  const through = plan && state.through && state.through.seq > plan.seq ? state.through : null;
  const ahead = useMemo(() => assessFromHere(panel, state), [panel, state]);
  const { result } = useAssessment(through ? null : (ahead?.assess ?? null));
  return { through, ahead, chances: result && result.verdict !== "none" ? result : null };
}
