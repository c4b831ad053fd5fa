import { useEffect, useState } from "react";
import type { FlowAxis, FlowSetting, FlowWindow } from "#core/models/flow/flow-window";
import { computeClient } from "~/kit/run/compute-client";

const CELLS = 60;

/** Sweeps the window in the worker; while a setting moves, the run before is cancelled and the last picture stays. */
export function useFlowWindow(
  setting: FlowSetting | null,
  xAxis: FlowAxis,
  yAxis: FlowAxis,
): { window: FlowWindow | null; busy: boolean; axes: string } {
  const key = JSON.stringify({ setting: setting && freeze(setting, xAxis, yAxis), xAxis, yAxis });
  const [state, setState] = useState<{ window: FlowWindow | null; busy: boolean; axes: string }>({ window: null, busy: true, axes: "" });
  useEffect(() => {
    const input = JSON.parse(key) as { setting: FlowSetting | null; xAxis: FlowAxis; yAxis: FlowAxis };
    const { setting: moved } = input;
    if (!moved) return;
    const abort = new AbortController();
    const wait = setTimeout(() => {
      setState((s) => ({ ...s, busy: true }));
      computeClient("flow")
        .run("flowWindow", { setting: moved, xAxis: input.xAxis, yAxis: input.yAxis, n: CELLS }, { signal: abort.signal })
        .then((window) => setState({ window, busy: false, axes: `${input.xAxis} ${input.yAxis}` }))
        .catch((error: unknown) => {
          if (!(error instanceof DOMException && error.name === "AbortError")) setState((s) => ({ ...s, busy: false }));
        });
    }, 60);
    return () => {
      clearTimeout(wait);
      abort.abort();
    };
  }, [key]);
  return state;
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
