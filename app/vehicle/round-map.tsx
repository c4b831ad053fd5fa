import { type Polygon, boundingBox } from "#core/kernel/geometry/geometry";
import { showSpan } from "#core/kernel/units/format";
import type { Round } from "#core/vehicle/round-walk";
import { placeOfKey, vehicleBox } from "#core/vehicle/vehicles";
import type { Walk } from "#core/vehicle/walk";
import { MM } from "~/kit/ui/svg-path";
import { Unfolded, outlinePath, usualOutline, vehicleOf } from "./unfolded";
import { isDry } from "./wet-edge.words";

interface RoundMapProps {
  round: Round;
  walk: Walk;
  places: readonly (string | undefined)[];
}

/** The walk on the unfolded vehicle: parts numbered in the order of the gun, the way from one to the next, the age of each border. */
export function RoundMap({ round, walk, places }: RoundMapProps) {
  const of = vehicleOf(places);
  if (!of) return null;
  const { kind, drawn } = of;
  const { x0, x1 } = vehicleBox(drawn);
  const outlines = places.map((key) => {
    const at = placeOfKey(key);
    return at && at.vehicle === kind ? usualOutline(at.place) : null;
  });
  const middles = outlines.map((outline) => {
    if (!outline) return null;
    const box = boundingBox(outline);
    return [((box.x0 + box.x1) / 2) * MM, ((box.y0 + box.y1) / 2) * MM] as const;
  });
  const middle_x = ((x0 + x1) / 2) * MM;
  const points = walk.order.flatMap((p) => (middles[p] ? [middles[p]] : []));
  return (
    <Unfolded
      drawn={drawn}
      role="img"
      label={`Walk round the vehicle: ${walk.order.map((p) => round.parts[p]!.name).join(", ")}`}
      caption="age of each border when the gun is back; front upwards"
      className="max-h-[66dvh]"
    >
      {(unit) => (
        <>
          {drawn.map((place) => (
            <path key={place.id} d={outlinePath(usualOutline(place))} fill="none" stroke="var(--hair)" strokeWidth={unit * 0.002} />
          ))}
          {outlines.map(
            (outline, part) =>
              outline && (
                <path key={part} d={outlinePath(outline)} fill="var(--glow-wash)" stroke="var(--ink)" strokeWidth={unit * 0.003} />
              ),
          )}
          {points.length > 1 && (
            <path
              d={points.map(([x, y], i) => `${i ? "L" : "M"}${x} ${y}`).join("")}
              fill="none"
              stroke="var(--glow-ink)"
              strokeWidth={unit * 0.003}
              strokeDasharray={`${unit * 0.01} ${unit * 0.008}`}
            />
          )}
          {walk.borders.map((b) => {
            const { a, b: other } = round.borders[b.border]!;
            const [one, two] = [middles[a], middles[other]];
            return (
              one &&
              two && (
                <Border
                  key={b.border}
                  at={meeting(outlines[a]!, outlines[other]!)}
                  left={(one[0] + two[0]) / 2 < middle_x !== (round.borders[b.border]!.lies === "above")}
                  dry={isDry(b)}
                  text={showSpan(b.age_s)}
                  unit={unit}
                />
              )
            );
          })}
          {walk.order.map((part, n) => {
            const at = middles[part];
            return (
              at && (
                <g key={part}>
                  <circle cx={at[0]} cy={at[1]} r={unit * 0.022} fill="var(--glow-ink)" />
                  <text
                    x={at[0]}
                    y={at[1] + unit * 0.009}
                    textAnchor="middle"
                    fontSize={unit * 0.026}
                    fontWeight="700"
                    fill="var(--on-glow)"
                  >
                    {n + 1}
                  </text>
                </g>
              )
            );
          })}
        </>
      )}
    </Unfolded>
  );
}

/** Where two parts lie nearest to each other. */
function meeting(one: Polygon, two: Polygon): readonly [number, number] {
  let best = { d: Infinity, at: [0, 0] as readonly [number, number] };
  for (const [ax, ay] of one)
    for (const [bx, by] of two) {
      const d = Math.hypot(ax - bx, ay - by);
      if (d < best.d) best = { d, at: [((ax + bx) / 2) * MM, ((ay + by) / 2) * MM] };
    }
  return best.at;
}

function Border({
  at: [x, y],
  left,
  dry,
  text,
  unit,
}: {
  at: readonly [number, number];
  left: boolean;
  dry: boolean;
  text: string;
  unit: number;
}) {
  const r = unit * 0.012;
  return (
    <g>
      {dry ? (
        <path
          d={`M${x - r} ${y - r}L${x + r} ${y + r}M${x + r} ${y - r}L${x - r} ${y + r}`}
          stroke="var(--stop)"
          strokeWidth={unit * 0.006}
        />
      ) : (
        <circle cx={x} cy={y} r={r} fill="var(--paper)" stroke="var(--glow-ink)" strokeWidth={unit * 0.004} />
      )}
      <text
        x={x + (left ? -1.5 : 1.5) * r}
        y={y + 0.6 * r}
        textAnchor={left ? "end" : "start"}
        fontSize={unit * 0.021}
        fontWeight="650"
        fill={dry ? "var(--stop-ink)" : "var(--ink)"}
        stroke="var(--paper)"
        strokeWidth={unit * 0.005}
        paintOrder="stroke"
      >
        {text}
      </text>
    </g>
  );
}
