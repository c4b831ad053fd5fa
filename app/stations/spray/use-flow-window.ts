import type { FlowAxis, FlowSetting } from "#core/models/flow/flow-window";
import { type Run, useRun } from "~/kit/run/use-run";

const CELLS = 60;
/** A point that is dragged rests seldom: the window follows it sooner than other questions follow theirs. */
const REST_MS = 60;

/** Sweeps the window in the worker; while a setting moves, the run before is cancelled and the last picture stays, with the axes it has. */
export function useFlowWindow(setting: FlowSetting | null, xAxis: FlowAxis, yAxis: FlowAxis): Run<"flowWindow"> {
  return useRun("flow", "flowWindow", setting && { setting: freeze(setting, xAxis, yAxis), xAxis, yAxis, n: CELLS }, REST_MS);
}

/** The swept figures themselves do not change the picture: dragging the point does not sweep again. */
function freeze(s: FlowSetting, xAxis: FlowAxis, yAxis: FlowAxis): FlowSetting {
  const swept = new Set<FlowAxis>([xAxis, yAxis]);
  const last = s.coats.length - 1;
  return {
    ...s,
    conditions: { ...s.conditions, ...(swept.has("air") ? { air_K: 295.15 } : {}) },
    coats: s.coats.map((c, i) => ({
      flash_s: i === last - 1 && swept.has("flash") ? 600 : i === last ? 0 : c.flash_s,
      gun:
        i !== last
          ? c.gun
          : {
              ...c.gun,
              ...(swept.has("distance") ? { distance_m: 0.175 } : {}),
              ...(swept.has("speed") || swept.has("wet") ? { handSpeed_m_s: 0.34 } : {}),
              ...(swept.has("fluid") ? { fluidRate_m3_s: 230e-6 / 60 } : {}),
              ...(swept.has("pressure") ? { pressure_Pa: 1.93e5 } : {}),
            },
    })),
  };
}
