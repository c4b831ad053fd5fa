import { shadeOf, shadesOf } from "#core/models/colour/job-colours";
import { SHAPES } from "#core/kernel/geometry/shapes";
import { VEHICLES, type Vehicle, outlineOnVehicle, placeKey, placeOfKey, placesOf, vehicleBox } from "#core/vehicle/vehicles";
import type { ColoursView } from "#server/views/vehicle-view";
import { MM, svgPath } from "~/kit/ui/svg-path";

const PAD_M = 0.06;

type Lies = Vehicle["places"][number]["lies"];
/** The upper half of a part as it lies unfolded: of a side's, towards the roof. */
const UPPER = {
  top: { width: 1, height: 0.5 },
  left: { x: 0.5, width: 0.5, height: 1 },
  right: { width: 0.5, height: 1 },
} satisfies Record<Lies, React.ComponentProps<"rect">>;

/** The vehicle unfolded in its colours; a part with both has a line through it. Old paint is an outline. */
export function ColourMap({ job, panels, order }: Pick<ColoursView, "job" | "panels" | "order">) {
  const kind = panels.flatMap((p) => placeOfKey(p.place)?.vehicle ?? [])[0];
  if (!kind) return null;
  const vehicle: Vehicle = VEHICLES[kind];
  const on = new Map(panels.map((p) => [p.place, p]));
  const drawn = placesOf(vehicle).filter((place) => !place.of || on.has(placeKey(kind, place.id)));
  const { x0, x1, y0, y1 } = vehicleBox(drawn);
  const unit = Math.max(x1 - x0, y1 - y0) * MM;
  const [first, second = first] = shadesOf(job);
  const [lower, upper] = order?.goesFirst === "second" ? [second, first] : [first, second];
  return (
    <figure>
      <svg
        viewBox={`${(x0 - PAD_M) * MM} ${(y0 - PAD_M) * MM} ${(x1 - x0 + 2 * PAD_M) * MM} ${(y1 - y0 + 2 * PAD_M) * MM}`}
        className="mx-auto block max-h-[50dvh] w-full"
        role="img"
        aria-label={`${vehicle.name} in its colours: ${panels.map((p) => `${p.name} ${shadeOf(job, p.colour).name}`).join(", ")}`}
      >
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
              d={`${svgPath(outlineOnVehicle(place, SHAPES[place.kind].outline))}Z`}
              fill={!panel ? "none" : panel.colour === "both" ? `url(#both-${place.lies})` : shadeOf(job, panel.colour).css}
              stroke={panel ? "var(--ink)" : "var(--edge)"}
              strokeWidth={unit * 0.003}
            />
          );
        })}
      </svg>
      <figcaption className="mt-1 text-center text-[13px] text-ink2">front upwards; old paint as an outline</figcaption>
    </figure>
  );
}
