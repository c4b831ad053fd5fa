import type { FlowAxis, FlowSetting } from "#core/models/flow/flow-window";
import { FlowMap } from "./flow-map";
import { useFlowWindow } from "./use-flow-window";

/** The flow window swept for a setting; fetched after the page, which says its sentence without it. A fault takes the map's place in words. */
export function SweptMap({
  setting,
  xAxis,
  yAxis,
  ...map
}: {
  setting: FlowSetting | null;
  xAxis: FlowAxis;
  yAxis: FlowAxis;
  point: { x: number; y: number };
  textureLimit: number;
  onMove: (p: { x: number; y: number }) => void;
}) {
  const { result, asked, busy, fault } = useFlowWindow(setting, xAxis, yAxis);
  return (
    <div aria-busy={busy}>
      {fault && (
        <p role="alert" className="font-medium text-stop-ink">
          {fault}
        </p>
      )}
      <FlowMap window={asked?.xAxis === xAxis && asked.yAxis === yAxis ? result : null} xAxis={xAxis} yAxis={yAxis} {...map} />
    </div>
  );
}
