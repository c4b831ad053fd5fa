import { useMemo } from "react";
import { clearingPlan } from "#core/correction/clearing";
import { filmSetting, textureOf } from "#core/correction/correction-input";
import type { Removal } from "#core/correction/removal-plan";
import { correctionSchool } from "#core/correction/schools";
import type { PanelMap } from "#core/film/map-panel";
import type { FilmInput } from "#core/film/panel-film";
import { DEFAULT_TAPE_M } from "#core/film/verdict";
import { houseWay } from "#core/ways/house-ways";
import { type WorkerRun, useWorker } from "~/lib/use-worker";
import { usePanel } from "~/routes/panel/layout";

/** The panel's film as a map, worked out in a worker, with what the house way's own ladder would take off it. */
export function usePanelMap(): { usual: Removal; input: FilmInput; map: PanelMap | null; run: WorkerRun<unknown>; reason: string | null } {
  const { view } = usePanel();
  const { panel, state, job, floor_m, shopRemoval } = view;
  const usual = useMemo(
    () =>
      clearingPlan(
        correctionSchool(houseWay(job.wayId).correction).steps.map((s) => s.use),
        textureOf(state).texture,
        shopRemoval,
      ).total,
    [job.wayId, state, shopRemoval],
  );
  const input = useMemo<FilmInput>(
    () => ({ ...filmSetting(panel, state), removal_m: usual.removal_m, u_removal_m: usual.u_m, floor_m, tape_m: DEFAULT_TAPE_M }),
    [panel, state, usual, floor_m],
  );
  const run = useWorker("map", "mapPanel", input);
  return { usual, input, map: run.result?.map ?? null, run, reason: run.result?.reason ?? run.fault };
}
