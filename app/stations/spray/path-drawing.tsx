import { useId, useMemo, useRef } from "react";
import type { PathSet } from "#core/coat/path-ahead";
import type { PathView } from "#core/coat/path-view";
import { boundingBox } from "#core/kernel/geometry/geometry";
import type { PanelShape } from "#core/kernel/geometry/shapes";
import { ROW_BOUNDS } from "#core/models/bounds";
import { lyingOf, rowsOver } from "#core/models/spray/row-plan";
import { type Pass, placeOnPass } from "#core/models/spray/strokes";
import { bandsOf } from "~/kit/panel/bands";
import { BandPicture } from "~/kit/panel/ramp";
import { MM, svgPath } from "~/kit/ui/svg-path";

/** So much is seen beside the ends of the rows, and at least beside the part. */
const BESIDE_M = { rows: 0.05, part: 0.1 } as const;
/** What is dragged goes by such steps. */
const STEP_M = 0.005;
const LEAST_OVERLAP = 0.2;
const MOST_OVERLAP = 0.85;

interface PathDrawingProps {
  shape: PanelShape;
  view: PathView;
  steps: readonly number[];
  /** The coat whose rows are shown. */
  coat: number;
  set: PathSet;
  onSet: (set: PathSet) => void;
  length: (m: number) => string;
  label: string;
}

const stepped = (m: number, { min, max }: { min: number; max: number }) => Math.min(max, Math.max(min, Math.round(m / STEP_M) * STEP_M));

/** The part with its rows' ends. */
function seenAround({ x0, x1, y0, y1 }: ReturnType<typeof boundingBox>, { turned, overrun_m, endsFirst }: PathSet["rows"]) {
  const along = Math.max(BESIDE_M.part, overrun_m + BESIDE_M.rows);
  const across = endsFirst ? along : BESIDE_M.part;
  const [x, y] = turned ? [across, along] : [along, across];
  return { x: x0 - x, y: y0 - y, w: x1 - x0 + 2 * x, h: y1 - y0 + 2 * y };
}

/** The film of a path on its part, with the rows that lay it; the first row, the gap and the end of a row can be dragged, or moved by the arrow keys. */
export function PathDrawing({ shape, view, steps, coat, set, onSet, length, label }: PathDrawingProps) {
  const { outline } = shape;
  const box = boundingBox(outline);
  const seen = seenAround(box, set.rows);
  const id = useId();
  const svg = useRef<SVGSVGElement>(null);
  const bands = useMemo(() => bandsOf(view, view.film_m, steps, outline), [view, steps, outline]);
  const shown = view.coats.find((c) => c.number === coat) ?? view.coats.at(-1)!;
  const { fan_m, number } = shown;
  // The rows follow the hand; the film, some tenths of a second of work, follows the rows.
  const passes = useMemo(() => rowsOver(outline, { fan_m, overlap: set.overlap }, set.rows, number), [outline, fan_m, set, number]);
  const unit = Math.max(seen.w, seen.h * 1.15) * MM;
  const lying = boundingBox(lyingOf(outline, set.rows.turned));
  const rows = passes.filter((p) => (p.turned ?? false) === set.rows.turned);
  const [one, two] = [rows[0], rows.find((p) => p.y_m > (rows[0]?.y_m ?? 0) + 1e-6)];
  const across = (e: React.PointerEvent): { along_m: number; across_m: number } | null => {
    const matrix = svg.current?.getScreenCTM();
    if (!matrix) return null;
    const p = new DOMPoint(e.clientX, e.clientY).matrixTransform(matrix.inverse());
    const [x, y] = [p.x / MM, p.y / MM];
    return set.rows.turned ? { along_m: y, across_m: x } : { along_m: x, across_m: y };
  };
  const withRows = (change: Partial<PathSet["rows"]>) => onSet({ ...set, rows: { ...set.rows, ...change } });
  const first = (m: number) => withRows({ first_m: stepped(m, ROW_BOUNDS.first_m) });
  const gap = (m: number) =>
    onSet({ ...set, overlap: Math.min(MOST_OVERLAP, Math.max(LEAST_OVERLAP, Math.round(100 * (1 - m / fan_m)) / 100)) });
  const overrun = (m: number) => withRows({ overrun_m: stepped(m, ROW_BOUNDS.overrun_m) });
  const low = (p: Pass) => Math.min(p.x0_m, p.x1_m);
  const high = (p: Pass) => Math.max(p.x0_m, p.x1_m);
  const gap_m = fan_m * (1 - set.overlap);
  const at = (p: Pass, along_m: number) => {
    const { x_m, y_m } = placeOnPass(p, along_m);
    return { left: `${(100 * (x_m - seen.x)) / seen.w}%`, top: `${(100 * (y_m - seen.y)) / seen.h}%` };
  };
  const [less, more] = set.rows.turned ? ["ArrowLeft", "ArrowRight"] : ["ArrowUp", "ArrowDown"];
  const [shorter, longer] = set.rows.turned ? ["ArrowUp", "ArrowDown"] : ["ArrowLeft", "ArrowRight"];
  return (
    <div className="relative mx-auto w-full" style={{ maxWidth: `calc(56dvh * ${(seen.w / seen.h).toFixed(4)})` }}>
      <svg
        ref={svg}
        viewBox={`${seen.x * MM} ${seen.y * MM} ${seen.w * MM} ${seen.h * MM}`}
        className="block w-full touch-pan-y"
        role="img"
        aria-label={label}
      >
        <clipPath id={`${id}-clip`}>
          <path d={`${svgPath(outline)}Z`} />
        </clipPath>
        <BandPicture {...{ id, layer: "clear", steps, bands, unit, shape }} />
        <path d={`${svgPath(outline)}Z`} fill="none" stroke="var(--ink)" strokeWidth={unit * 0.003} />
        <Rows passes={passes} unit={unit} />
        <Least at={view.least} unit={unit} />
      </svg>
      {one && (
        <>
          <Handle
            name="First row from the edge"
            style={at(one, low(one))}
            value={set.rows.first_m}
            text={length(set.rows.first_m)}
            bounds={ROW_BOUNDS.first_m}
            keys={{ [less]: -STEP_M, [more]: STEP_M }}
            step={(by) => first(set.rows.first_m + by)}
            drag={(e) => {
              const to = across(e);
              if (to) first(to.across_m - lying.y0 - (number % 2 === 0 && set.rows.staggered ? gap_m / 2 : 0));
            }}
          />
          <Handle
            name="End of the rows past the edge"
            style={at(one, high(one))}
            value={set.rows.overrun_m}
            text={length(set.rows.overrun_m)}
            bounds={ROW_BOUNDS.overrun_m}
            keys={{ [shorter]: -STEP_M, [longer]: STEP_M }}
            step={(by) => overrun(set.rows.overrun_m + by)}
            drag={(e) => {
              const to = across(e);
              if (to) overrun(to.along_m - (high(one) - set.rows.overrun_m));
            }}
          />
        </>
      )}
      {one && two && (
        <Handle
          name="Gap from row to row"
          style={at(two, low(two))}
          value={gap_m}
          text={length(gap_m)}
          bounds={{ min: fan_m * (1 - MOST_OVERLAP), max: fan_m * (1 - LEAST_OVERLAP) }}
          keys={{ [less]: -STEP_M, [more]: STEP_M }}
          step={(by) => gap(gap_m + by)}
          drag={(e) => {
            const to = across(e);
            if (to) gap(to.across_m - one.y_m);
          }}
        />
      )}
    </div>
  );
}

/** The rows with their direction, numbered where they begin. */
function Rows({ passes, unit }: { passes: readonly Pass[]; unit: number }) {
  const line = (p: Pass) => [p.x0_m, p.x1_m].map((along) => placeOnPass(p, along)).map(({ x_m, y_m }) => [x_m, y_m] as const);
  return (
    <g fill="none" strokeLinecap="round">
      {passes.map((p, i) => (
        <path key={`under ${i}`} d={svgPath(line(p))} stroke="var(--on-ramp-dark)" strokeWidth={unit * 0.006} strokeOpacity="0.55" />
      ))}
      {passes.map((p, i) => (
        <path key={i} d={svgPath(line(p))} stroke="var(--on-ramp-light)" strokeWidth={unit * 0.0026} />
      ))}
      {passes.map((p, i) => {
        const { x_m, y_m } = placeOnPass(p, p.x0_m + 0.82 * (p.x1_m - p.x0_m));
        const way = Math.sign(p.x1_m - p.x0_m);
        const r = unit * 0.011;
        return (
          <path
            key={`way ${i}`}
            d={`M${-r} ${-r}L${r * 0.6} 0L${-r} ${r}Z`}
            transform={`translate(${x_m * MM} ${y_m * MM}) rotate(${p.turned ? 90 * way : way > 0 ? 0 : 180})`}
            fill="var(--on-ramp-light)"
            stroke="var(--on-ramp-dark)"
            strokeWidth={unit * 0.002}
          />
        );
      })}
    </g>
  );
}

/** Where the film is least. */
function Least({ at, unit }: { at: PathView["least"]; unit: number }) {
  const [x, y, r] = [at.x_m * MM, at.y_m * MM, unit * 0.013];
  return (
    <path d={`M${x - r} ${y - 1.5 * r}h${2 * r}L${x} ${y}Z`} fill="var(--stop)" stroke="var(--on-ramp-dark)" strokeWidth={unit * 0.003} />
  );
}

interface HandleProps {
  name: string;
  style: { left: string; top: string };
  value: number;
  text: string;
  bounds: { min: number; max: number };
  /** What a key changes it by. */
  keys: Record<string, number>;
  step: (by: number) => void;
  drag: (e: React.PointerEvent) => void;
}

/** Something of the rows that is dragged, or moved by the arrow keys. */
function Handle({ name, style, value, text, bounds, keys, step, drag }: HandleProps) {
  return (
    <div
      role="slider"
      tabIndex={0}
      aria-label={name}
      aria-valuenow={Math.round(MM * value)}
      aria-valuemin={Math.round(MM * bounds.min)}
      aria-valuemax={Math.round(MM * bounds.max)}
      aria-valuetext={text}
      title={`${name}: ${text}`}
      className="absolute grid size-11 -translate-x-1/2 -translate-y-1/2 cursor-grab touch-none place-content-center rounded-full active:cursor-grabbing"
      style={style}
      onPointerDown={(e) => e.currentTarget.setPointerCapture(e.pointerId)}
      onPointerMove={(e) => {
        if (e.currentTarget.hasPointerCapture(e.pointerId)) drag(e);
      }}
      onKeyDown={(e) => {
        const by = keys[e.key];
        if (by === undefined) return;
        e.preventDefault();
        step(e.shiftKey ? 4 * by : by);
      }}
    >
      <span className="size-5 rounded-full border-2 border-paper bg-glow-ink" aria-hidden />
    </div>
  );
}
