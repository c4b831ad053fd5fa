import { usePlacePicker } from "./use-place-picker";
import { DEFECT_KINDS } from "#core/models/defects/kinds";
import { useId } from "react";
import { type Point, boundingBox, innermost } from "#core/kernel/geometry/geometry";
import type { PanelShape } from "#core/kernel/geometry/shapes";
import { placeInWords } from "#core/kernel/geometry/place-in-words";
import type { DefectKind } from "#core/record/kinds";
import { DefectSign } from "./defect-sign";
import { MM, svgPath } from "~/kit/ui/svg-path";

export interface SpotMark {
  name: string;
  at: Point;
  text: string;
  state: "read" | "open" | "now";
}
export interface DefectMark {
  id: string;
  kind: DefectKind;
  at: Point;
  label: string;
  length_m: number | null;
  /** Drawn on the panel: several points, a line, or an area. */
  trace?: { as: "points" | "line" | "area"; at: readonly Point[] } | null;
}

interface PanelDrawingProps {
  shape: PanelShape;
  spots?: readonly SpotMark[];
  defects?: readonly DefectMark[];
  label: string;
  onPlace?: (at: Point) => void;
  onSpot?: (name: string) => void;
  placed?: Point | null;
  /** What is being drawn and not kept yet. */
  drawing?: DefectMark["trace"];
  /** Drawn in millimetres under spots and defects. */
  underlay?: React.ReactNode;
}

/**
 * The part to scale with its body lines, spots and defects. Where `onPlace` is given, a tap places a mark; the keyboard moves it by arrows
 * (1 cm, with Shift 5 cm) and places it by Enter.
 */
export function PanelDrawing({
  shape,
  spots = [],
  defects = [],
  label,
  onPlace,
  onSpot,
  placed,
  drawing = null,
  underlay,
}: PanelDrawingProps) {
  const { x0, y0, x1, y1 } = boundingBox(shape.outline);
  const unit = Math.max(x1 - x0, (y1 - y0) * 1.15) * MM;
  const r = unit * 0.027;
  const pad = r * 1.8;
  const id = useId();
  const { cursor, focused, place, placeOf, keys } = usePlacePicker(shape.outline, {
    start: () => innermost(shape.outline),
    onPlace: (at) => onPlace?.([Math.round(at[0] * 1000) / 1000, Math.round(at[1] * 1000) / 1000]),
  });
  const onClick = (e: React.MouseEvent<SVGSVGElement>) => {
    const at = placeOf(e);
    if (at) place(at);
  };
  const viewBox = `${x0 * MM - pad} ${y0 * MM - pad} ${(x1 - x0) * MM + 2 * pad} ${(y1 - y0) * MM + 2 * pad}`;
  const [, , bottom] = shape.sides;
  return (
    <div>
      {/* The drawing is a place picker: one focus stop, its own keys, and a text that says where the mark is. */}
      <svg
        viewBox={viewBox}
        className={`mx-auto block max-h-[52dvh] w-full ${onPlace ? "cursor-crosshair" : ""}`}
        {...(onPlace
          ? {
              tabIndex: 0,
              role: "application",
              "aria-roledescription": "panel drawing",
              ...keys,
              onClick,
            }
          : { role: "img" })}
        aria-label={onPlace ? `${label}. Mark at ${placeInWords(cursor, shape)}. Arrow keys move it, Enter places it.` : label}
      >
        <clipPath id={id}>
          <path d={`${svgPath(shape.outline)}Z`} />
        </clipPath>
        <path d={`${svgPath(shape.outline)}Z`} fill="var(--panel)" stroke="var(--ink)" strokeWidth={unit * 0.0035} />
        <BodyLines {...{ id, unit, shape }} />
        {underlay}
        {drawing && <Trace trace={drawing} r={r} open />}
        {defects.map((d) => (
          <Defect key={d.id} mark={d} r={r} unit={unit} />
        ))}
        {spots.map((s) => (
          <Spot key={s.name} mark={s} r={r} {...(onSpot ? { onSpot } : {})} />
        ))}
        {placed && <Cross at={placed} r={r} colour="var(--stop)" />}
        {onPlace && focused && <Cross at={cursor} r={r * 1.2} colour="var(--glow-ink)" />}
      </svg>
      <p className="text-center text-[13px] text-ink2" aria-hidden>
        {bottom}
      </p>
    </div>
  );
}

/** Body lines, within the outline. */
function BodyLines({ id, unit, shape }: { id: string; unit: number; shape: PanelShape }) {
  return (
    <g
      clipPath={`url(#${id})`}
      fill="none"
      stroke="var(--edge)"
      strokeWidth={unit * 0.0024}
      strokeDasharray={`${unit * 0.012} ${unit * 0.008}`}
    >
      {shape.bodyLines.map((l, i) => (
        <path key={i} d={svgPath(l)} />
      ))}
    </g>
  );
}

function Spot({ mark: { name, at, text, state }, r, onSpot }: { mark: SpotMark; r: number; onSpot?: (name: string) => void }) {
  const [x, y] = [at[0] * MM, at[1] * MM];
  return (
    // Tapping a spot is a short cut; the same choice is a list of buttons beside the drawing.
    <g
      onClick={
        onSpot &&
        ((e) => {
          e.stopPropagation();
          onSpot(name);
        })
      }
      className={onSpot ? "cursor-pointer" : ""}
    >
      <circle
        cx={x}
        cy={y}
        r={state === "now" ? r * 1.25 : r}
        fill={state === "now" ? "var(--glow)" : "var(--paper)"}
        stroke={state === "open" ? "var(--edge)" : "var(--ink)"}
        strokeWidth={r * 0.09}
        strokeDasharray={state === "open" ? `${r * 0.3} ${r * 0.22}` : undefined}
      />
      <text
        x={x}
        y={y + r * 0.33}
        textAnchor="middle"
        fontSize={r * (text.length > 3 ? 0.74 : 0.94)}
        fontWeight="680"
        fill={state === "now" ? "var(--sea)" : state === "open" ? "var(--ink2)" : "var(--ink)"}
      >
        {text}
      </text>
    </g>
  );
}

/** A defect's sign with its word. */
function Defect({ mark: { kind, at, label, length_m, trace }, r, unit }: { mark: DefectMark; r: number; unit: number }) {
  const [x, y] = [at[0] * MM, at[1] * MM];
  const long = Math.max((length_m ?? 0) * MM, r * 1.4) / 2;
  return (
    <g>
      {trace && <Trace trace={trace} r={r} />}
      <g transform={`translate(${x} ${y})`} stroke="var(--stop)" strokeWidth="2">
        <DefectSign sign={DEFECT_KINDS[kind].sign} r={r * 0.75} long={long} />
      </g>
      <text
        x={x + r * 1.2}
        y={y + r * 0.35}
        fontSize={r * 0.9}
        fontWeight="640"
        fill="var(--ink)"
        stroke="var(--paper)"
        strokeWidth={unit * 0.004}
        paintOrder="stroke"
      >
        {label}
      </text>
    </g>
  );
}

/** Points, a line or an area as it was drawn on the panel. */
function Trace({ trace: { as, at }, r, open = false }: { trace: NonNullable<DefectMark["trace"]>; r: number; open?: boolean }) {
  const d = svgPath(at);
  return (
    <g fill="none" stroke="var(--stop)" strokeWidth={r * 0.12}>
      {as === "area" && (
        <path d={`${d}${at.length > 2 ? "Z" : ""}`} fill="var(--stop-wash)" fillOpacity={0.6} strokeDasharray={`${r * 0.4} ${r * 0.25}`} />
      )}
      {as === "line" && <path d={d} strokeLinecap="round" strokeLinejoin="round" />}
      {(as === "points" || open) &&
        at.map(([x, y], i) => <circle key={i} cx={x * MM} cy={y * MM} r={r * 0.22} fill="var(--stop)" stroke="none" />)}
    </g>
  );
}

function Cross({ at, r, colour }: { at: Point; r: number; colour: string }) {
  const [x, y] = [at[0] * MM, at[1] * MM];
  return <path d={`M${x - r} ${y}H${x + r}M${x} ${y - r}V${y + r}`} stroke={colour} strokeWidth={r * 0.16} />;
}
