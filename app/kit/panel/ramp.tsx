import type { PanelShape } from "#core/kernel/geometry/shapes";
import type { Band } from "./bands";
import { MM, svgPath } from "~/kit/ui/svg-path";

/** What a map's colours mean: film is dark where it is thin, doubt and risk are dark where they are great. */
export type RampLayer = "clear" | "doubt" | "risk";
const COLOURS = 8;

const colour = (layer: RampLayer, step: number, steps: number) => {
  const k = steps === 0 ? COLOURS - 1 : Math.round((step * (COLOURS - 1)) / steps);
  return `var(--ramp-${layer === "clear" ? k : COLOURS - 1 - k})`;
};
const isDark = (layer: RampLayer, step: number, steps: number) => {
  const k = steps === 0 ? COLOURS - 1 : Math.round((step * (COLOURS - 1)) / steps);
  return (layer === "clear" ? k : COLOURS - 1 - k) < 4;
};

/** The figure of a band. */
export function BandName({
  b,
  unit,
  text,
  layer,
  i,
  steps,
  stepText,
}: {
  b: Band;
  unit: number;
  text: { readonly fontSize: number; readonly fontWeight: 640 };
  layer: RampLayer;
  i: number;
  steps: readonly number[];
  stepText: (value: number) => string;
}) {
  return (
    <text
      x={b.label![0] * MM}
      y={b.label![1] * MM + unit * 0.009}
      textAnchor="middle"
      {...text}
      fill={isDark(layer, i + 1, steps.length) ? "var(--on-ramp-dark)" : "var(--on-ramp-light)"}
      stroke={isDark(layer, i + 1, steps.length) ? "var(--on-ramp-light)" : "var(--on-ramp-dark)"}
      strokeWidth={unit * 0.006}
      paintOrder="stroke"
    >
      {stepText(b.from)}
    </text>
  );
}

/** The bands of a map within the outline of its panel. @param id of its clip path */
export function BandPicture({
  id,
  layer,
  steps,
  bands,
  unit,
  shape,
}: {
  id: string;
  layer: RampLayer;
  steps: readonly number[];
  bands: Band[];
  unit: number;
  shape: Pick<PanelShape, "outline" | "bodyLines">;
}) {
  const { outline } = shape;
  return (
    <g clipPath={`url(#${id}-clip)`}>
      <path d={`${svgPath(outline)}Z`} fill={colour(layer, 0, steps.length)} />
      {bands.map((b, i) => (
        <path
          key={b.from}
          d={b.path}
          fill={colour(layer, i + 1, steps.length)}
          stroke="var(--on-ramp-light)"
          strokeOpacity="0.45"
          strokeWidth={unit * 0.0016}
        />
      ))}
      <g
        fill="none"
        stroke="var(--on-ramp-dark)"
        strokeOpacity="0.7"
        strokeWidth={unit * 0.0022}
        strokeDasharray={`${unit * 0.012} ${unit * 0.008}`}
      >
        {shape.bodyLines.map((l, i) => (
          <path key={i} d={svgPath(l)} />
        ))}
      </g>
    </g>
  );
}

/** The colours in order with the film at which each begins. */
export function RampScale({
  layer,
  steps,
  text,
  unit,
}: {
  layer: RampLayer;
  steps: readonly number[];
  text: (v: number) => string;
  unit: string;
}) {
  return (
    <p className="mx-auto mt-1 flex max-w-[34rem] text-[13px]" aria-hidden>
      {[null, ...steps].map((from, i) => (
        <span key={i} className="min-w-0 flex-1">
          <span className="block h-3" style={{ background: colour(layer, i, steps.length) }} />
          <span className={`block ${from === null ? "text-ink2" : ""}`}>{from === null ? unit || "below" : text(from)}</span>
        </span>
      ))}
    </p>
  );
}
