import { type Polygon, boundingBox } from "../kernel/geometry/geometry";
import type { ShapeKind } from "../kernel/geometry/shapes";

/** How a part lies on a vehicle that is unfolded, its front upwards: on top of it, or on a side, its upper edge towards the roof. */
type Lies = "top" | "left" | "right";

/** A place on a vehicle that a part goes to. */
export interface VehiclePlace {
  id: string;
  name: string;
  kind: ShapeKind;
  size_m: readonly [number, number];
  lies: Lies;
  /** Its corner on the unfolded vehicle, m from the front's left: of a part on a side where its upper edge begins at the front. */
  at: readonly [number, number];
}

/** A shut or jamb, seen when its part stands open. */
export interface ShutPlace extends VehiclePlace {
  /** The place of the part that lies over it. */
  of: string;
}

/** Where two places meet, rows from above down; what a dry edge there costs against one on a surface that goes on. Common practice; weights are defaults of ours. */
export interface VehicleBorder {
  a: string;
  b: string;
  lies: "beside" | "above";
  /** `turn`: round the edge into the opening, where nobody looks along it. */
  meets: "surface" | "gap" | "trim" | "turn";
}
export const BORDER_WEIGHT: Record<VehicleBorder["meets"], number> = { surface: 1, gap: 0.5, trim: 0.25, turn: 0.25 };

export interface Vehicle {
  name: string;
  places: readonly VehiclePlace[];
  /** What is seen when its parts stand open; drawn beside it. */
  shuts?: readonly ShutPlace[];
  borders: readonly VehicleBorder[];
}

/** From the middle line to where a side is folded out. */
const HALF_M = 0.78;
const GAP_M = 0.05;

const top = (id: string, name: string, kind: ShapeKind, size_m: readonly [number, number], y_m: number): VehiclePlace => ({
  ...{ id, name, kind, size_m, lies: "top" },
  at: [-size_m[0] / 2, y_m],
});

type SidePart = readonly [id: string, name: string, kind: ShapeKind, size_m: readonly [number, number], y_m: number];
/** A part of both sides. */
const sides = ([id, name, kind, size_m, y_m]: SidePart): VehiclePlace[] =>
  (["left", "right"] as const).map((lies) => ({
    ...{ id: `${id}-${lies}`, name: `${name}, ${lies}`, kind, size_m, lies },
    at: [lies === "left" ? -HALF_M - GAP_M : HALF_M + GAP_M, y_m],
  }));

type Pair = readonly [a: string, b: string, lies: VehicleBorder["lies"], meets: VehicleBorder["meets"]];
/** A border that both sides have; a name ending in * is of that side. */
const bothSides = (pairs: readonly Pair[]): VehicleBorder[] =>
  pairs.flatMap(([a, b, lies, meets]) =>
    ["left", "right"].map((side) => ({ a: a.replace("*", `-${side}`), b: b.replace("*", `-${side}`), lies, meets })),
  );
const border = ([a, b, lies, meets]: Pair): VehicleBorder => ({ a, b, lies, meets });

const carFront = [
  top("bumper-front", "Front bumper", "bumper", [1.8, 0.5], 0),
  top("bonnet", "Bonnet", "bonnet", [1.4, 1.15], 0.6),
  ...sides(["wing", "Wing", "wing", [0.9, 0.65], 0.6]),
];
const carRear = (y_m: number) => [
  top("boot", "Boot lid", "bootLid", [1.2, 0.6], y_m),
  top("bumper-rear", "Rear bumper", "bumper", [1.8, 0.5], y_m + 0.9),
];
const CAR_BORDERS = [
  ...bothSides([
    ["bonnet", "wing*", "beside", "gap"],
    ["wing*", "door-front*", "beside", "gap"],
    ["roof", "quarter*", "above", "surface"],
    ["boot", "quarter*", "beside", "gap"],
    ["wing*", "bumper-front", "beside", "trim"],
    ["quarter*", "bumper-rear", "beside", "trim"],
  ]),
  border(["bonnet", "bumper-front", "above", "trim"]),
  border(["boot", "bumper-rear", "above", "trim"]),
];

const smallParts = (n: number, name: string, size_m: readonly [number, number]): VehiclePlace[] =>
  Array.from({ length: n }, (_, i) => ({
    ...{ id: `part-${i + 1}`, name: `${name} ${i + 1}`, kind: "mirrorCap" as const, size_m, lies: "top" as const },
    at: [(i % 4) * (size_m[0] + 0.12), Math.floor(i / 4) * (size_m[1] + 0.12)],
  }));

/** Flange and sill of an opening, unrolled: its width is a usual one. */
const SHUT_WIDTH_M = 0.14;
type Shut = readonly [of: string, name: string, length_m: number, y_m: number];
const shut = (lies: "left" | "right", [of, name, length_m, y_m]: Shut, out_m: number): ShutPlace => ({
  ...{ id: `shut-${of}`, name, of, kind: "jamb", size_m: [length_m, SHUT_WIDTH_M], lies },
  at: [lies === "left" ? -out_m : out_m, y_m],
});
/** Shuts in a column beside each side; a name ending in * is of that side. @param out_m from the middle line to the column */
const shutsBeside = (out_m: number, both: readonly Shut[], alone: readonly Shut[]): ShutPlace[] => [
  ...both.flatMap(([of, name, length_m, y_m]) =>
    (["left", "right"] as const).map((side) => shut(side, [`${of}-${side}`, `${name}, ${side}`, length_m, y_m], out_m)),
  ),
  ...alone.map((one) => shut("left", one, out_m)),
];

/** Vehicles in general proportions; nobody's. Sizes are usual ones and are put right on the panel. */
export const VEHICLES = {
  car5: {
    name: "Car, five doors",
    places: [
      ...carFront,
      top("roof", "Roof", "roof", [1.2, 1.5], 2.2),
      ...sides(["door-front", "Front door", "door", [1.1, 0.7], 1.55]),
      ...sides(["door-rear", "Rear door", "door", [0.95, 0.7], 2.7]),
      ...sides(["quarter", "Rear quarter", "quarter", [1.25, 0.8], 3.7]),
      ...carRear(4.1),
    ],
    borders: [
      ...CAR_BORDERS,
      ...bothSides([
        ["door-front*", "door-rear*", "beside", "gap"],
        ["door-rear*", "quarter*", "beside", "gap"],
      ]),
    ],
    shuts: shutsBeside(
      1.71,
      [
        ["door-front", "Front door shut", 1.05, 1.55],
        ["door-rear", "Rear door shut", 0.9, 2.7],
      ],
      [
        ["bonnet", "Bonnet shut", 1.3, 0.1],
        ["boot", "Boot shut", 1.1, 3.75],
      ],
    ),
  },
  car3: {
    name: "Car, three doors",
    places: [
      ...carFront,
      top("roof", "Roof", "roof", [1.2, 1.4], 2.15),
      ...sides(["door-front", "Door", "door", [1.35, 0.7], 1.55]),
      ...sides(["quarter", "Rear quarter", "quarter", [1.4, 0.8], 2.95]),
      ...carRear(3.75),
    ],
    borders: [...CAR_BORDERS, ...bothSides([["door-front*", "quarter*", "beside", "gap"]])],
    shuts: shutsBeside(
      1.71,
      [["door-front", "Door shut", 1.3, 1.55]],
      [
        ["bonnet", "Bonnet shut", 1.3, 0.1],
        ["boot", "Boot shut", 1.1, 3.4],
      ],
    ),
  },
  van: {
    name: "Van",
    places: [
      top("bumper-front", "Front bumper", "bumper", [1.8, 0.5], 0),
      top("bonnet", "Bonnet", "bonnet", [1.4, 0.7], 0.6),
      ...sides(["wing", "Wing", "wing", [0.8, 0.65], 0.6]),
      ...sides(["door-front", "Front door", "door", [1.1, 1.1], 1.45]),
      top("roof", "Roof", "roof", [1.5, 3.2], 1.9),
      ...sides(["side", "Side", "quarter", [2.6, 1.4], 2.6]),
      ...(["left", "right"] as const).map((side) => ({
        ...{
          id: `door-back-${side}`,
          name: `Rear door, ${side}`,
          kind: "door" as const,
          size_m: [0.75, 1.4] as const,
          lies: "top" as const,
        },
        at: [side === "left" ? -0.77 : 0.02, 5.25] as const,
      })),
    ],
    borders: [
      ...bothSides([
        ["bonnet", "wing*", "beside", "gap"],
        ["wing*", "door-front*", "beside", "gap"],
        ["door-front*", "side*", "beside", "gap"],
        ["roof", "side*", "above", "surface"],
        ["side*", "door-back*", "beside", "gap"],
        ["wing*", "bumper-front", "beside", "trim"],
      ]),
      border(["door-back-left", "door-back-right", "beside", "gap"]),
      border(["bonnet", "bumper-front", "above", "trim"]),
    ],
    shuts: shutsBeside(
      2.31,
      [["door-front", "Door shut", 1.05, 1.45]],
      [
        ["bonnet", "Bonnet shut", 1.2, 0.1],
        ["door-back-left", "Rear doors' shut", 1.5, 3.6],
      ],
    ),
  },
  motorcycle: {
    name: "Motorcycle set",
    places: [
      top("mudguard-front", "Front mudguard", "wing", [0.5, 0.28], 0),
      top("tank", "Tank", "tank", [0.55, 0.32], 0.4),
      ...(["left", "right"] as const).map((side, i) => ({
        ...{
          id: `cover-${side}`,
          name: `Side cover, ${side}`,
          kind: "mirrorCap" as const,
          size_m: [0.35, 0.28] as const,
          lies: "top" as const,
        },
        at: [i === 0 ? -0.75 : 0.4, 0.8] as const,
      })),
      top("tail", "Tail", "bootLid", [0.5, 0.26], 1.2),
    ],
    borders: [],
  },
  trailer: {
    name: "Trailer",
    places: [
      top("front", "Front", "bonnet", [1.5, 1.1], 0),
      ...sides(["side", "Side", "quarter", [2.4, 1.1], 0.6]),
      top("roof", "Roof", "roof", [1.5, 2.2], 1.25),
      top("back", "Back", "bootLid", [1.5, 1.1], 3.6),
    ],
    borders: bothSides([
      ["roof", "side*", "above", "surface"],
      ["front", "side*", "beside", "surface"],
      ["side*", "back", "beside", "gap"],
    ]),
  },
  wheels: { name: "Four wheels", places: smallParts(4, "Wheel", [0.43, 0.43]), borders: [] },
  small: { name: "Twelve equal small parts", places: smallParts(12, "Part", [0.22, 0.16]), borders: [] },
} as const satisfies Record<string, Vehicle>;
export type VehicleKind = keyof typeof VEHICLES;
export const VEHICLE_KINDS = Object.keys(VEHICLES) as [VehicleKind, ...VehicleKind[]];

/** All places of a vehicle: its own, and what is seen when its parts stand open. */
export const placesOf = ({ places, shuts = [] }: Vehicle): readonly (VehiclePlace & { of?: string })[] => [...places, ...shuts];

/** Where two places meet, each shut with its part beside them. */
export const bordersOf = ({ borders, shuts = [] }: Vehicle): readonly VehicleBorder[] => [
  ...borders,
  ...shuts.map(({ id, of }): VehicleBorder => ({ a: id, b: of, lies: "beside", meets: "turn" })),
];

/** A panel's place as it is kept: which vehicle, and where on it. */
export const placeKey = (vehicle: VehicleKind, placeId: string): string => `${vehicle}/${placeId}`;

/** The place that a key names; null where there is none. */
export function placeOfKey(key: string | null | undefined): { vehicle: VehicleKind; place: ReturnType<typeof placesOf>[number] } | null {
  const [vehicle, id] = key?.split("/") ?? [];
  if (!vehicle || !Object.hasOwn(VEHICLES, vehicle)) return null;
  const place = placesOf(VEHICLES[vehicle as VehicleKind]).find((p) => p.id === id);
  return place ? { vehicle: vehicle as VehicleKind, place } : null;
}

/** A part's outline where it lies on the unfolded vehicle, its own size drawn to the place's. */
export function outlineOnVehicle({ lies, at: [x, y], size_m: [w, h] }: VehiclePlace, outline: Polygon): Polygon {
  const { x0, x1, y0, y1 } = boundingBox(outline);
  return outline.map(([px, py]) => {
    const [u, v] = [((px - x0) / (x1 - x0)) * w, ((py - y0) / (y1 - y0)) * h];
    return lies === "top" ? [x + u, y + v] : [lies === "left" ? x - v : x + v, y + u];
  });
}

/** Where the middle of a place lies on the unfolded vehicle. */
export function middleOf({ lies, at: [x, y], size_m: [w, h] }: VehiclePlace): readonly [number, number] {
  return lies === "top" ? [x + w / 2, y + h / 2] : [lies === "left" ? x - h / 2 : x + h / 2, y + w / 2];
}

/** The unfolded vehicle's reach, by the places that are drawn. */
export function vehicleBox(places: readonly VehiclePlace[]): { x0: number; x1: number; y0: number; y1: number } {
  return boundingBox(
    places.flatMap((p) =>
      outlineOnVehicle(p, [
        [0, 0],
        [1, 0],
        [1, 1],
        [0, 1],
      ]),
    ),
  );
}
