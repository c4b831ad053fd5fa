import { type RunCalibration, calibrateRuns, enoughResults } from "#core/models/flow/run-calibration";
import { toldPanels } from "#core/panel/next-time";
import type { ServerContext } from "../context";
import { loadSprayed } from "./next-time-view";

/** The shop's own chance of a run, learnt from its told results; null until there are enough of them: then a word stands in its place. */
export async function loadRunCalibration(ctx: ServerContext): Promise<RunCalibration | null> {
  const told = toldPanels(await loadSprayed(ctx));
  return enoughResults(told) ? calibrateRuns(told) : null;
}
