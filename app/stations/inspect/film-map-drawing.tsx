import { usePlacePicker } from "~/kit/panel/use-place-picker";
import { useId, useMemo } from "react";
import type { PanelMap } from "#core/judge/panel-map";
import { type Point, boundingBox, isInside } from "#core/kernel/geometry/geometry";
import { placeInWords } from "#core/kernel/geometry/place-in-words";
import type { PanelShape } from "#core/kernel/geometry/shapes";
import { bandsOf } from "~/kit/panel/bands";
import { BandName, BandPicture, type RampLayer } from "~/kit/panel/ramp";

import { MM, svgPath } from "~/kit/ui/svg-path";

/** A number this near to a sign with its word would lie on it. */
const LABEL_GAP_M = 0.12;

export interface MapSpot {
  name: string;
  at: Point;
}

interface FilmMapDrawingProps {
  shape: PanelShape;
  map: PanelMap;
  layer: RampLayer;
  cells: Float64Array;
  steps: readonly number[];
  stepText: (value: number) => string;
  spots: readonly MapSpot[];
  next: Point | null;
  thinnest: Point | null;
  picked: Point | null;
  onPick: (at: Point) => void;
  label: string;
}

/** A layer of the film map on the panel: bands with their numbers, spots read, the taped rim, what to read next; a place can be picked. */
export function FilmMapDrawing({
  shape,
  map,
  layer,
  cells,
  steps,
  stepText,
  spots,
  next,
  thinnest,
  picked,
  onPick,
  label,
}: FilmMapDrawingProps) {
  const { outline } = shape;
  const { x0, y0, x1, y1 } = boundingBox(outline);
  const unit = Math.max(x1 - x0, (y1 - y0) * 1.15) * MM;
  const pad = unit * 0.03;
  const id = useId();
  const bands = useMemo(() => bandsOf(map, cells, steps, outline), [map, cells, steps, outline]);
  const { cursor, focused, place, placeOf, keys } = usePlacePicker(outline, {
    start: [(x0 + x1) / 2, (y0 + y1) / 2],
    onPlace: onPick,
    byArrow: true,
  });
  const text = { fontSize: unit * 0.026, fontWeight: 640 } as const;
  return (
    <svg
      viewBox={`${x0 * MM - pad} ${y0 * MM - pad} ${(x1 - x0) * MM + 2 * pad} ${(y1 - y0) * MM + 2 * pad}`}
      className="mx-auto block max-h-[50dvh] w-full cursor-crosshair touch-manipulation"
      tabIndex={0}
      role="application"
      aria-roledescription="film map"
      aria-label={`${label} Mark at ${placeInWords(cursor, shape)}. Arrow keys move it.`}
      {...keys}
      onClick={(e) => {
        const at = placeOf(e);
        if (at) place(at);
      }}
      onPointerMove={(e) => {
        const at = e.pointerType === "mouse" ? placeOf(e) : null;
        if (at && isInside(at, outline)) onPick(at);
      }}
    >
      <clipPath id={`${id}-clip`}>
        <path d={`${svgPath(outline)}Z`} />
      </clipPath>
      <BandPicture {...{ id, layer, steps, bands, unit, shape }} />
      {bands.map(
        (b, i) =>
          b.label &&
          !(thinnest && Math.hypot(b.label[0] - thinnest[0], b.label[1] - thinnest[1]) < LABEL_GAP_M) && (
            <BandName key={b.from} {...{ b, unit, text, layer, i, steps, stepText }} />
          ),
      )}
      <path d={`${svgPath(outline)}Z`} fill="none" stroke="var(--ink)" strokeWidth={unit * 0.0035} />
      {spots.map((s) => (
        <circle
          key={s.name}
          cx={s.at[0] * MM}
          cy={s.at[1] * MM}
          r={unit * 0.007}
          fill="var(--on-ramp-dark)"
          stroke="var(--on-ramp-light)"
          strokeWidth={unit * 0.002}
        />
      ))}
      {thinnest && <Mark at={thinnest} unit={unit} word="thinnest" kind="down" box={[x0, x1]} />}
      {next && <Mark at={next} unit={unit} word="read here next" kind="ring" box={[x0, x1]} />}
      {picked && <Cross at={picked} unit={unit} />}
      {focused && !picked && <Cross at={cursor} unit={unit} />}
    </svg>
  );
}

/** A sign with its word: a ring where to read, a wedge where it is thinnest. */
function Mark({ at, unit, word, kind, box }: { at: Point; unit: number; word: string; kind: "ring" | "down"; box: [number, number] }) {
  const [x, y] = [at[0] * MM, at[1] * MM];
  const r = unit * 0.016;
  const left = at[0] - box[0] > 0.6 * (box[1] - box[0]);
  return (
    <g>
      {kind === "ring" ? (
        <circle cx={x} cy={y} r={r} fill="none" stroke="var(--on-ramp-dark)" strokeWidth={unit * 0.006} />
      ) : (
        <path
          d={`M${x - r} ${y - r * 1.5}h${2 * r}L${x} ${y}Z`}
          fill="var(--stop)"
          stroke="var(--on-ramp-dark)"
          strokeWidth={unit * 0.003}
        />
      )}
      {kind === "ring" && <circle cx={x} cy={y} r={r} fill="none" stroke="var(--on-ramp-light)" strokeWidth={unit * 0.002} />}
      <text
        x={left ? x - r * 1.4 : x + r * 1.4}
        y={y + r * 0.4}
        textAnchor={left ? "end" : "start"}
        fontSize={unit * 0.026}
        fontWeight="640"
        fill="var(--on-ramp-light)"
        stroke="var(--on-ramp-dark)"
        strokeWidth={unit * 0.007}
        paintOrder="stroke"
      >
        {word}
      </text>
    </g>
  );
}

function Cross({ at, unit }: { at: Point; unit: number }) {
  const [x, y, r] = [at[0] * MM, at[1] * MM, unit * 0.02];
  return (
    <g strokeWidth={unit * 0.007} stroke="var(--on-ramp-dark)">
      <path d={`M${x - r} ${y}H${x + r}M${x} ${y - r}V${y + r}`} />
      <path d={`M${x - r} ${y}H${x + r}M${x} ${y - r}V${y + r}`} stroke="var(--stop)" strokeWidth={unit * 0.0035} />
    </g>
  );
}
