import { useMemo } from "react";
import { assessFromHere } from "#core/correction/correction-input";
import { useAssessment } from "~/lib/use-assessment";
import type { PanelView } from "#server/views/panel-view";

/** How the plan in force stands: colour on the cloth since it was made, and else what is still to come with its chances. */
export function useFromHere({ panel, state }: PanelView) {
  const { plan } = state;
  const through = plan && state.through && state.through.recordedAt_ms > plan.recordedAt_ms ? state.through : null;
  const ahead = useMemo(() => assessFromHere(panel, state), [panel, state]);
  const { result } = useAssessment(through ? null : (ahead?.assess ?? null));
  return { through, ahead, chances: result && result.verdict !== "none" ? result : null };
}
