import { contours } from "d3-contour";
import { useId, useMemo, useRef } from "react";
import { FLOW } from "#core/models/flow/constants";
import { FLOW_AXES, type FlowAxis, type FlowWindow } from "#core/models/flow/flow-window";
import { fromSi } from "#core/kernel/units/convert";
import { show } from "#core/kernel/units/format";
import { preferredUnit } from "#core/kernel/units/quantities";
import { useUnits } from "~/kit/root/use-root";
import { scaleLinear } from "~/kit/ui/linear-scale";

const W = 560;
const H = 440;
const M = { left: 62, right: 14, top: 30, bottom: 46 };
/** A hand's own spread along each axis, one standard deviation: common practice. */
const HAND_SD: Record<FlowAxis, (v: number) => number> = {
  distance: () => 0.015,
  speed: (v) => 0.08 * v,
  fluid: (v) => 0.05 * v,
  pressure: () => 0.07e5,
  air: () => 0.8,
  wet: (v) => 0.12 * v,
  flash: () => 60,
};

interface FlowMapProps {
  window: FlowWindow | null;
  xAxis: FlowAxis;
  yAxis: FlowAxis;
  point: { x: number; y: number };
  textureLimit: number;
  onMove: (p: { x: number; y: number }) => void;
}

/** Where today's settings lie between running and peeling; the point can be dragged, or moved with the arrow keys. */
export function FlowMap({ window: w, xAxis, yAxis, point, textureLimit, onMove }: FlowMapProps) {
  const units = useUnits();
  const id = useId();
  const svg = useRef<SVGSVGElement>(null);
  const [ax, ay] = [FLOW_AXES[xAxis], FLOW_AXES[yAxis]];
  const x = useMemo(() => scaleLinear([ax.from, ax.to], [M.left, W - M.right]).clamp(true), [ax]);
  const y = useMemo(() => scaleLinear([ay.from, ay.to], [H - M.bottom, M.top]).clamp(true), [ay]);
  const areas = useMemo(() => (w ? shapes(w, textureLimit) : null), [w, textureLimit]);
  const ticks = (axis: FlowAxis) => {
    const { quantity, from, to } = FLOW_AXES[axis];
    const unit = preferredUnit(quantity, units);
    const shown = scaleLinear([fromSi(quantity, from, unit), fromSi(quantity, to, unit)], [from, to]);
    return shown.ticks(6).map((t) => ({ at: shown(t), text: String(Number(t.toFixed(3))) }));
  };
  const clamp = (v: number, a: { from: number; to: number }) => Math.min(a.to, Math.max(a.from, v));
  const moveTo = (e: React.PointerEvent) => {
    const box = svg.current!.getBoundingClientRect();
    onMove({
      x: clamp(x.invert(((e.clientX - box.left) / box.width) * W), ax),
      y: clamp(y.invert(((e.clientY - box.top) / box.height) * H), ay),
    });
  };
  const [px, py] = [x(point.x), y(point.y)];
  const words = (axis: FlowAxis, v: number) =>
    `${FLOW_AXES[axis].name} ${show(FLOW_AXES[axis].quantity, v, units).text} ${preferredUnit(FLOW_AXES[axis].quantity, units)}`;
  return (
    <svg
      ref={svg}
      viewBox={`0 0 ${W} ${H}`}
      className="h-auto w-full touch-none select-none"
      fontSize="13"
      role="group"
      aria-label={`Window of ${ax.name} and ${ay.name}`}
      onPointerDown={(e) => {
        (e.target as Element).setPointerCapture(e.pointerId);
        moveTo(e);
      }}
      onPointerMove={(e) => {
        if (e.buttons === 1) moveTo(e);
      }}
    >
      <Patterns {...{ id }} />
      <g clipPath={`url(#${id}-field)`} aria-hidden>
        <rect x={M.left} y={M.top} width={W - M.left - M.right} height={H - M.top - M.bottom} fill="var(--glow-wash)" />
        {areas && <path d={areas.leanXY(x, y)} fill="var(--stop-wash)" opacity="0.8" />}
        {areas && <PatternFill d={areas.peelXY(x, y)} fill={`url(#${id}-peel)`} line="var(--amber-ink)" />}
        {areas && <PatternFill d={areas.runXY(x, y)} fill={`url(#${id}-run)`} line="var(--stop)" />}
      </g>
      {w && areas?.labels.map((l) => <RegionWord key={l.word} x={x(w.x[l.i]!)} y={y(w.y[l.j]!)} word={l.word} />)}
      {ticks(xAxis).map((t) => (
        <text key={t.text} x={x(t.at)} y={H - M.bottom + 20} textAnchor="middle" fill="var(--ink2)">
          {t.text}
        </text>
      ))}
      {ticks(yAxis).map((t) => (
        <text key={t.text} x={M.left - 9} y={y(t.at) + 4} textAnchor="end" fill="var(--ink2)">
          {t.text}
        </text>
      ))}
      <text x={M.left - 4} y={16} fill="var(--ink2)">
        ↑ {ay.name}, {preferredUnit(ay.quantity, units)}
      </text>
      <text x={W - M.right} y={H - 8} textAnchor="end" fill="var(--ink2)">
        {ax.name}, {preferredUnit(ax.quantity, units)} →
      </text>
      <ellipse
        cx={px}
        cy={py}
        rx={Math.abs(x(point.x + HAND_SD[xAxis](point.x)) - px)}
        ry={Math.abs(y(point.y + HAND_SD[yAxis](point.y)) - py)}
        fill="var(--ink)"
        opacity="0.16"
        stroke="var(--ink)"
        strokeDasharray="4 3"
        aria-hidden
      />
      <Grip {...{ px, py, point, ax, words, xAxis, yAxis, onMove, clamp, ay }} />
    </svg>
  );
}

/** The point that is dragged, or moved with the arrow keys. */
function Grip({
  px,
  py,
  point,
  ax,
  words,
  xAxis,
  yAxis,
  onMove,
  clamp,
  ay,
}: {
  px: number;
  py: number;
  point: { x: number; y: number };
  ax: (typeof FLOW_AXES)[FlowAxis];
  words: (axis: FlowAxis, v: number) => string;
  xAxis: "speed" | "fluid" | "pressure" | "air" | "distance" | "wet" | "flash";
  yAxis: "speed" | "fluid" | "pressure" | "air" | "distance" | "wet" | "flash";
  onMove: (p: { x: number; y: number }) => void;
  clamp: (v: number, a: { from: number; to: number }) => number;
  ay: (typeof FLOW_AXES)[FlowAxis];
}) {
  return (
    <circle
      cx={px}
      cy={py}
      r="11"
      fill="var(--moon)"
      stroke="var(--ink)"
      strokeWidth="5"
      role="slider"
      tabIndex={0}
      aria-label="Today's settings; arrow keys move them"
      aria-valuenow={Math.round(((point.x - ax.from) / (ax.to - ax.from)) * 100)}
      aria-valuetext={`${words(xAxis, point.x)}, ${words(yAxis, point.y)}`}
      className="cursor-grab"
      onKeyDown={(e) => {
        const step = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, 1], ArrowDown: [0, -1] }[e.key];
        if (!step) return;
        e.preventDefault();
        onMove({
          x: clamp(point.x + (step[0]! * (ax.to - ax.from)) / 50, ax),
          y: clamp(point.y + (step[1]! * (ay.to - ay.from)) / 50, ay),
        });
      }}
    />
  );
}

/** Hatching of what runs and of what peels. */
function Patterns({ id }: { id: string }) {
  return (
    <defs>
      <pattern id={`${id}-run`} width="8" height="8" patternUnits="userSpaceOnUse">
        <rect width="8" height="8" fill="var(--stop-wash)" />
        <rect width="2.2" height="8" fill="var(--stop)" opacity="0.75" />
      </pattern>
      <pattern id={`${id}-peel`} width="16" height="8" patternUnits="userSpaceOnUse">
        <rect width="16" height="8" fill="var(--amber-wash)" />
        <path d="M0 5q4-5 8 0t8 0" fill="none" stroke="var(--amber)" strokeWidth="1.6" />
      </pattern>
      <clipPath id={`${id}-field`}>
        <rect x={M.left} y={M.top} width={W - M.left - M.right} height={H - M.top - M.bottom} />
      </clipPath>
    </defs>
  );
}

function PatternFill({ d, fill, line }: { d: string; fill: string; line: string }) {
  return d ? <path d={d} fill={fill} stroke={line} strokeWidth="1.8" /> : null;
}

function RegionWord({ x, y, word }: { x: number; y: number; word: string }) {
  const colour = word === "runs" ? "var(--stop-ink)" : word === "peels" ? "var(--amber-ink)" : "var(--glow-ink)";
  return (
    <text
      x={x}
      y={y}
      textAnchor="middle"
      fontSize="19"
      fontWeight="680"
      fill={colour}
      stroke="var(--paper)"
      strokeWidth="5"
      paintOrder="stroke"
      aria-hidden
    >
      {word}
    </text>
  );
}

/** Outlines of the regions in grid cells, and where their words stand. */
function shapes(w: FlowWindow, textureLimit: number) {
  const { n } = w;
  const grid = contours().size([n, n]).smooth(true);
  const runs = Array.from(w.sag_m, (s) => Math.log(Math.max(s, 1e-9) / FLOW.sagRun_m));
  const leans = runs.map((r) => r + Math.log(FLOW.sagRun_m / FLOW.sagRisk_m));
  const peels = Array.from(w.texture, (t, i) => Math.max(t - textureLimit, Math.log(FLOW.drySprayWavelength_m / w.levels_m[i]!)));
  const run = grid.contour(runs, 0);
  const lean = grid.contour(leans, 0);
  const peel = grid.contour(peels, 0);
  const toXY = (shape: typeof run) => (sx: (v: number) => number, sy: (v: number) => number) => {
    const at = (values: Float64Array, c: number) => {
      const f = Math.min(n - 1, Math.max(0, c - 0.5));
      const i = Math.min(n - 2, Math.floor(f));
      return values[i]! + (values[i + 1]! - values[i]!) * (f - i);
    };
    return shape.coordinates
      .flatMap((polygon) =>
        polygon.map((ring) => `M${ring.map(([cx, cy]) => `${sx(at(w.x, cx!)).toFixed(1)},${sy(at(w.y, cy!)).toFixed(1)}`).join("L")}Z`),
      )
      .join("");
  };
  const middle = (inside: (i: number) => boolean) => {
    let count = 0;
    let si = 0;
    let sj = 0;
    for (let c = 0; c < n * n; c++)
      if (inside(c)) {
        count++;
        si += c % n;
        sj += Math.floor(c / n);
      }
    return count < n ? null : { i: Math.round(si / count), j: Math.round(sj / count) };
  };
  const words = [
    ["runs", (c: number) => runs[c]! > 0],
    ["peels", (c: number) => runs[c]! <= 0 && peels[c]! > 0],
    ["flows", (c: number) => leans[c]! <= 0 && peels[c]! <= 0],
  ] as const;
  return {
    leanXY: toXY(lean),
    runXY: toXY(run),
    peelXY: toXY(peel),
    labels: words.flatMap(([word, inside]) => {
      const at = middle(inside);
      return at ? [{ word, ...at }] : [];
    }),
  };
}
