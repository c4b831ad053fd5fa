import { useMemo } from "react";
import type { MapInput, PanelMap } from "#core/judge/panel-map";
import { mapQuestion, usualRemoval } from "#core/judge/questions";
import type { Removal } from "#core/models/correction/removal-plan";
import { type RunState, useRun } from "~/kit/run/use-run";
import { usePanel } from "~/kit/panel/use-panel";

/** The panel's film as a map, worked out in a worker, for the removal that the house way's own ladder would take off it. */
export function usePanelMap(): { usual: Removal; input: MapInput; map: PanelMap | null; run: RunState; reason: string | null } {
  const { view } = usePanel();
  const usual = useMemo(() => usualRemoval(view), [view]);
  const input = useMemo(() => mapQuestion(view), [view]);
  const run = useRun("map", "mapPanel", input);
  return { usual, input, map: run.result?.map ?? null, run, reason: run.result?.reason ?? run.fault };
}
