import type { ReactNode } from "react";
import type { Polygon } from "#core/kernel/geometry/geometry";
import {
  VEHICLES,
  type Vehicle,
  type VehicleKind,
  type VehiclePlace,
  outlineOnVehicle,
  placeKey,
  placeOfKey,
  placesOf,
  vehicleBox,
} from "#core/vehicle/vehicles";
import { SHAPES } from "#core/kernel/geometry/shapes";
import { MM, svgPath } from "~/kit/ui/svg-path";

const PAD_M = 0.06;

/** Outline of a place as a vehicle has it, where no part of a job lies there. */
export const usualOutline = (place: VehiclePlace): Polygon => outlineOnVehicle(place, SHAPES[place.kind].outline);
export const outlinePath = (outline: Polygon): string => `${svgPath(outline)}Z`;

/** The vehicle that parts belong to by their places, and what of it is drawn: shuts only where the job has them; null: none of them lies on a vehicle. */
export function vehicleOf(
  places: readonly (string | null | undefined)[],
): { vehicle: Vehicle; kind: VehicleKind; drawn: readonly VehiclePlace[] } | null {
  const kind = places.flatMap((place) => placeOfKey(place)?.vehicle ?? [])[0];
  if (!kind) return null;
  const vehicle: Vehicle = VEHICLES[kind];
  const keys = new Set(places);
  return { vehicle, kind, drawn: placesOf(vehicle).filter((place) => !place.of || keys.has(placeKey(kind, place.id))) };
}

interface UnfoldedProps {
  drawn: readonly VehiclePlace[];
  /** A group where parts of it can be pressed. */
  role: "img" | "group";
  label: string;
  caption: string;
  /** How high it may be. */
  className: string;
  /** What lies on it. @param unit length of its longer side, which everything drawn goes by */
  children: (unit: number) => ReactNode;
}

/** A vehicle unfolded, its front upwards: the frame that all maps of one are drawn in. */
export function Unfolded({ drawn, role, label, caption, className, children }: UnfoldedProps) {
  const { x0, x1, y0, y1 } = vehicleBox(drawn);
  return (
    <figure>
      <svg
        viewBox={`${(x0 - PAD_M) * MM} ${(y0 - PAD_M) * MM} ${(x1 - x0 + 2 * PAD_M) * MM} ${(y1 - y0 + 2 * PAD_M) * MM}`}
        className={`mx-auto block w-full ${className}`}
        role={role}
        aria-label={label}
      >
        {children(Math.max(x1 - x0, y1 - y0) * MM)}
      </svg>
      <figcaption className="mt-1 text-center text-[13px] text-ink2">{caption}</figcaption>
    </figure>
  );
}
