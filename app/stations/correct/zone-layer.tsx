import { useId, useMemo } from "react";
import type { PlanZone } from "#core/judge/zone-setting";
import { LINE_STRIP_M } from "#core/judge/limits";
import { type Point, boundingBox, edgeDistances, gridInside, isInside, lineDistances } from "#core/kernel/geometry/geometry";
import { type Region, inRegion } from "#core/kernel/geometry/region";
import type { PanelShape } from "#core/kernel/geometry/shapes";
import { MM, svgPath } from "~/kit/ui/svg-path";

/** Zones of a plan on the panel's drawing, in millimetres: flat, rim and body lines with how they are worked. */
export function ZoneLayer({
  shape,
  zones,
  rim_m,
  region,
}: {
  shape: PanelShape;
  zones: readonly PlanZone[];
  rim_m: number;
  /** The part that is levelled; null: the whole panel. */
  region: Region | null;
}) {
  const id = useId();
  const { x0, y0, x1, y1 } = boundingBox(shape.outline);
  const zone = (kind: PlanZone["kind"]) => zones.find((z) => z.kind === kind);
  const [flat, edge, lines] = [zone("flat"), zone("edge"), zone("line")];
  const unit = Math.max(x1 - x0, y1 - y0) * MM;
  const outline = `${svgPath(shape.outline)}Z`;
  const size = unit * 0.036;
  const onLine = shape.bodyLines[0] && midOf(shape.bodyLines[0].filter((at) => inRegion(at, region)));
  const calm = useMemo(() => calmest(shape, region), [shape, region]);
  return (
    <g>
      <defs>
        <clipPath id={`${id}-panel`}>
          <path d={outline} />
        </clipPath>
        <clipPath id={`${id}-worked`}>
          {region ? region.map((r, i) => <path key={i} d={`${svgPath(r)}Z`} />) : <path d={outline} />}
        </clipPath>
        <pattern id={`${id}-left`} width={unit * 0.014} height={unit * 0.014} patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <rect width="100%" height="100%" fill="var(--paper)" />
          <path d={`M0 0V${unit * 0.014}`} stroke="var(--edge)" strokeWidth={unit * 0.006} />
        </pattern>
        <pattern id={`${id}-hand`} width={unit * 0.012} height={unit * 0.012} patternUnits="userSpaceOnUse">
          <rect width="100%" height="100%" fill="var(--glow-wash)" />
          <circle cx={unit * 0.006} cy={unit * 0.006} r={unit * 0.0026} fill="var(--glow-ink)" />
        </pattern>
      </defs>
      {region && <LeftAlone {...{ id, x0, y0, x1, y1, region, outline, unit }} />}
      <g clipPath={`url(#${id}-panel)`}>
        <g clipPath={`url(#${id}-worked)`}>
          {lines &&
            shape.bodyLines.map((l, i) => (
              <path
                key={i}
                d={svgPath(l)}
                fill="none"
                stroke={`url(#${id}-${lines.way === "left" ? "left" : "hand"})`}
                strokeWidth={2 * LINE_STRIP_M * MM}
              />
            ))}
          {edge && (
            <path d={outline} fill="none" stroke={`url(#${id}-${edge.way === "left" ? "left" : "hand"})`} strokeWidth={2 * rim_m * MM} />
          )}
        </g>
      </g>
      <ZoneNames {...{ size, unit, flat, calm, edge, region, x0, x1, shape, rim_m, lines, onLine }} />
    </g>
  );
}

/** What is not levelled, and the border of what is. */
function LeftAlone({
  id,
  x0,
  y0,
  x1,
  y1,
  region,
  outline,
  unit,
}: {
  id: string;
  x0: number;
  y0: number;
  x1: number;
  y1: number;
  region: Region;
  outline: string;
  unit: number;
}) {
  return (
    <g clipPath={`url(#${id}-panel)`}>
      <mask id={`${id}-rest`}>
        <rect x={x0 * MM} y={y0 * MM} width={(x1 - x0) * MM} height={(y1 - y0) * MM} fill="white" />
        {region.map((r, i) => (
          <path key={i} d={`${svgPath(r)}Z`} fill="black" />
        ))}
      </mask>
      <path d={outline} fill={`url(#${id}-left)`} mask={`url(#${id}-rest)`} />
      {region.map((r, i) => (
        <path
          key={i}
          d={`${svgPath(r)}Z`}
          fill="none"
          stroke="var(--ink)"
          strokeWidth={unit * 0.004}
          strokeDasharray={`${unit * 0.014} ${unit * 0.01}`}
        />
      ))}
    </g>
  );
}

/** What each zone is, in a word. */
function ZoneNames({
  size,
  unit,
  flat,
  calm,
  edge,
  region,
  x0,
  x1,
  shape,
  rim_m,
  lines,
  onLine,
}: {
  size: number;
  unit: number;
  flat: PlanZone | undefined;
  calm: Point;
  edge: PlanZone | undefined;
  region: Region | null;
  x0: number;
  x1: number;
  shape: PanelShape;
  rim_m: number;
  lines: PlanZone | undefined;
  onLine: Point | undefined;
}) {
  return (
    <g
      fontSize={size}
      fontWeight="640"
      fill="var(--ink)"
      stroke="var(--panel)"
      strokeWidth={unit * 0.006}
      paintOrder="stroke"
      textAnchor="middle"
    >
      {flat && (
        <text x={calm[0] * MM} y={calm[1] * MM + size * 0.35}>
          {flat.sections} {flat.sections === 1 ? "section" : "sections"}
        </text>
      )}
      {edge && !region && (
        <text x={((x0 + x1) / 2) * MM} y={topAt(shape, (x0 + x1) / 2) * MM + rim_m * MM + size * 1.1}>
          {edge.way === "left" ? "rim left under tape" : "rim by hand"}
        </text>
      )}
      {lines && onLine && (
        <text x={onLine[0] * MM} y={onLine[1] * MM - LINE_STRIP_M * MM - size * 0.35}>
          {lines.way === "left" ? "line left" : "by hand"}
        </text>
      )}
    </g>
  );
}

const midOf = (l: readonly Point[]): Point | undefined => l[Math.floor(l.length / 2)];

/** The place farthest from rim and body lines of what is levelled: room for a word. */
function calmest({ outline, bodyLines }: PanelShape, region: Region | null): Point {
  const places = gridInside(outline, { nx: 24, ny: 20 })
    .map((c) => c.point)
    .filter((at) => inRegion(at, region));
  const borders = (region ?? []).map((r) => [...r, r[0]!]);
  const [edge, line] = [edgeDistances(places, outline), lineDistances(places, [...bodyLines, ...borders])];
  const room = places.map((_, i) => Math.min(edge[i]!, line[i]!));
  return places[room.indexOf(Math.max(...room))] ?? [0, 0];
}

/** How high the panel reaches at a distance from its left. */
function topAt({ outline }: PanelShape, x: number): number {
  const { y0, y1 } = boundingBox(outline);
  for (let i = 0; i < 200; i++) if (isInside([x, y0 + (i / 200) * (y1 - y0)], outline)) return y0 + (i / 200) * (y1 - y0);
  return y0;
}
