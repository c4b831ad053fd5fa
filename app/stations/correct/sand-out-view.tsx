import { useId } from "react";
import { openMarks } from "#core/panel/open-marks";
import { OPTION_FIGURES } from "#core/judge/option-figures";
import { sandOutOf } from "#core/judge/sand-out";
import { boundingBox } from "#core/kernel/geometry/geometry";
import { show } from "#core/kernel/units/format";
import { defectMarks } from "~/kit/panel/defect-marks";
import { PanelDrawing } from "~/kit/panel/panel-drawing";
import { usePanel } from "~/kit/panel/use-panel";
import { useUnits } from "~/kit/root/use-root";
import { MM, svgPath } from "~/kit/ui/svg-path";
import { areaText } from "~/kit/words/area-text";

/** What would be taken back to sound clear, drawn on the panel: each mark and so far beyond it on every side. */
export function SandOutView() {
  const { view } = usePanel();
  const units = useUnits();
  const id = useId();
  const { shape, name } = view.panel;
  const open = openMarks(view.state);
  const { region, area_m2 } = sandOutOf(view.panel, open);
  const { x0, x1 } = boundingBox(shape.outline);
  const unit = (x1 - x0) * MM;
  const beyond = show("length", OPTION_FIGURES.sandOut.beyond_m, units);
  return (
    <section className="mt-6" aria-labelledby={`${id}-title`} data-testid="sand-out">
      <h3 id={`${id}-title`} className="font-semibold">
        Sanded out: taken back to sound clear
      </h3>
      <p className="mb-2 max-w-[75ch] text-ink2">
        {areaText(area_m2, units)} within the dashed line: each mark and {beyond.text} {beyond.unit} beyond it on every side, feathered.
        What lifts at the line as well goes further still.
      </p>
      <div className="max-w-[520px]">
        <PanelDrawing
          shape={shape}
          defects={defectMarks(open, units)}
          label={`${name}: what is taken back to sound clear, ${areaText(area_m2, units)}`}
          underlay={
            <g>
              <clipPath id={`${id}-panel`}>
                <path d={`${svgPath(shape.outline)}Z`} />
              </clipPath>
              <g clipPath={`url(#${id}-panel)`}>
                {region.map((outline, i) => (
                  <path
                    key={i}
                    d={`${svgPath(outline)}Z`}
                    fill="var(--glow-wash)"
                    stroke="var(--ink)"
                    strokeWidth={unit * 0.005}
                    strokeDasharray={`${unit * 0.016} ${unit * 0.011}`}
                  />
                ))}
              </g>
            </g>
          }
        />
      </div>
    </section>
  );
}
