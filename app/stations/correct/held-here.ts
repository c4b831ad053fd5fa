import { useMemo } from "react";
import { blockedByFaults } from "#core/judge/blocked-by";
import type { PanelView } from "#server/views/panel-view";

/** What stops the plan in force: colour on the cloth since it was made, and faults that hold the steps to come. */
export function useHeldHere({ state }: Pick<PanelView, "state">) {
  const { plan } = state;
  const through = plan && state.through && state.through.seq > plan.seq ? state.through : null;
  const held = useMemo(() => blockedByFaults(state.heldAhead), [state.heldAhead]);
  return { through, held };
}
