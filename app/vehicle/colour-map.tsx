import { shadeOf, shadesOf } from "#core/models/colour/job-colours";
import { type Vehicle, placeKey } from "#core/vehicle/vehicles";
import type { ColoursView } from "#server/views/vehicle-view";
import { Unfolded, outlinePath, usualOutline, vehicleOf } from "./unfolded";

type Lies = Vehicle["places"][number]["lies"];
/** The upper half of a part as it lies unfolded: of a side's, towards the roof. */
const UPPER = {
  top: { width: 1, height: 0.5 },
  left: { x: 0.5, width: 0.5, height: 1 },
  right: { width: 0.5, height: 1 },
} satisfies Record<Lies, React.ComponentProps<"rect">>;

/** The vehicle unfolded in its colours; a part with both has a line through it. Old paint is an outline. */
export function ColourMap({ job, panels, order }: Pick<ColoursView, "job" | "panels" | "order">) {
  const on = new Map(panels.map((p) => [p.place, p]));
  const of = vehicleOf(panels.map((p) => p.place));
  if (!of) return null;
  const { vehicle, kind, drawn } = of;
  const [first, second = first] = shadesOf(job);
  const [lower, upper] = order?.goesFirst === "second" ? [second, first] : [first, second];
  return (
    <Unfolded
      drawn={drawn}
      role="img"
      label={`${vehicle.name} in its colours: ${panels.map((p) => `${p.name} ${shadeOf(job, p.colour).name}`).join(", ")}`}
      caption="front upwards; old paint as an outline"
      className="max-h-[50dvh]"
    >
      {(unit) => (
        <>
          <defs>
            {(Object.keys(UPPER) as Lies[]).map((lies) => (
              <pattern key={lies} id={`both-${lies}`} width="1" height="1" patternContentUnits="objectBoundingBox">
                <rect width="1" height="1" fill={lower.css} />
                <rect {...UPPER[lies]} fill={upper.css} />
              </pattern>
            ))}
          </defs>
          {drawn.map((place) => {
            const panel = on.get(placeKey(kind, place.id));
            return (
              <path
                key={place.id}
                d={outlinePath(usualOutline(place))}
                fill={!panel ? "none" : panel.colour === "both" ? `url(#both-${place.lies})` : shadeOf(job, panel.colour).css}
                stroke={panel ? "var(--ink)" : "var(--edge)"}
                strokeWidth={unit * 0.003}
              />
            );
          })}
        </>
      )}
    </Unfolded>
  );
}
