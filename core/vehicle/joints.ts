import { lab } from "d3-color";
import type { ShapeKind } from "../kernel/geometry/shapes";
import type { JobColours, PartColour } from "../models/colour/job-colours";
import type { Finish } from "../models/ways/terms";
import { VEHICLES, bordersOf, placeKey, placeOfKey, placesOf } from "./vehicles";

/** A part of a job as its edges are looked at. */
export interface JointPart {
  id: string;
  name: string;
  place?: string | undefined;
  colour: PartColour;
}

/** Why an edge to old paint is blended or butted. */
export type JointWhy = "matte" | "trim" | "turn" | "effect" | "notSaid" | "light" | "solidDark";

/** How colour ends where two parts, two colours, or new and old paint meet. */
export type Joint =
  /** Two colours at a gap: each opening is masked from behind, no line is seen. */
  | { how: "gap"; parts: readonly [string, string] }
  /** Two colours on one surface, within a part or over two: a fine line. */
  | { how: "fineLine"; parts: readonly [string] | readonly [string, string] }
  /** No gap to the neighbour: clear ends nowhere on a surface, it is taken on to the neighbour's next edge. */
  | { how: "goOn"; parts: readonly [string]; neighbour: string }
  | { how: "blend" | "butt"; parts: readonly [string]; neighbour: string; why: JointWhy };

interface Painted {
  colourCss: string;
  finish: Finish;
  colours: JobColours;
}

/** CIE lightness from which a solid colour shows a small difference at a gap in daylight. Default of ours; that light colours are blended sooner is common practice. */
const LIGHT_L = 70;

/**
 * Where the colours of a job end, and how: between its own parts where it has two colours, and to each neighbour on the vehicle that is not part of the
 * job. Common practice: matte is never blended; a trim or an opening hides a difference; a metallic or light colour shows it.
 */
export function jointsOf(parts: readonly JointPart[], painted: Painted): Joint[] {
  const within = parts.flatMap((p): Joint[] => (p.colour === "both" ? [{ how: "fineLine", parts: [p.name] }] : []));
  return [...within, ...parts.flatMap((part) => atBordersOf(part, parts, painted))];
}

function atBordersOf(part: JointPart, parts: readonly JointPart[], painted: Painted): Joint[] {
  const at = placeOfKey(part.place);
  if (!at) return [];
  const vehicle = VEHICLES[at.vehicle];
  return bordersOf(vehicle).flatMap(({ a, b, meets }): Joint[] => {
    if (a !== at.place.id && b !== at.place.id) return [];
    const other = a === at.place.id ? b : a;
    const there = parts.find((p) => p.place === placeKey(at.vehicle, other));
    if (there) {
      // Told once, by the part that the border names first.
      if (a !== at.place.id || there.colour === part.colour || part.colour === "both" || there.colour === "both") return [];
      return [{ how: meets === "surface" ? "fineLine" : "gap", parts: [part.name, there.name] }];
    }
    const place = placesOf(vehicle).find((p) => p.id === other)!;
    if (place.of) return []; // a shut that nobody sprays stays as it is, its part masked at the edge
    const old = { parts: [part.name] as const, neighbour: place.name };
    return [meets === "surface" ? { how: "goOn", ...old } : { ...edgeTo(meets, part.colour, painted), ...old }];
  });
}

/** Whether colour is blended into an old neighbour, or ends at the edge. */
function edgeTo(
  meets: "gap" | "trim" | "turn",
  colour: PartColour,
  { finish, colours, colourCss }: Painted,
): { how: "blend" | "butt"; why: JointWhy } {
  if (finish === "matte") return { how: "butt", why: "matte" };
  if (meets !== "gap") return { how: "butt", why: meets };
  if (colours.paint !== "solid") return { how: "blend", why: colours.paint === "effect" ? "effect" : "notSaid" };
  const css = colour === "second" && colours.second ? colours.second.css : colourCss;
  return lab(css).l >= LIGHT_L ? { how: "blend", why: "light" } : { how: "butt", why: "solidDark" };
}

/** How high a part lies on a vehicle that stands, its middle: usual ones of ours, to tell an upper colour from a lower. */
const HEIGHT_M: Record<ShapeKind, number> = {
  bonnet: 0.95,
  door: 0.75,
  wing: 0.7,
  quarter: 0.8,
  roof: 1.45,
  bootLid: 0.95,
  bumper: 0.45,
  tank: 0.9,
  mirrorCap: 1,
  jamb: 0.75,
};

/** Which of two colours lies lower and so goes on first; null: nothing that is known tells them apart. */
export function lowerColour(parts: readonly JointPart[]): "first" | "second" | null {
  const mean = (colour: PartColour) => {
    const heights = parts
      .flatMap((p) => (p.colour === colour ? (placeOfKey(p.place)?.place.kind ?? []) : []))
      .map((kind) => HEIGHT_M[kind]);
    return heights.length === 0 ? null : heights.reduce((a, h) => a + h, 0) / heights.length;
  };
  const [first, second] = [mean("first"), mean("second")];
  if (first === null || second === null || Math.abs(first - second) < 0.01) return null;
  return first < second ? "first" : "second";
}
