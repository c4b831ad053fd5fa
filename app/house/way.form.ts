import { type HouseWay, type HouseWayBody, COAT_ROLES, COAT_ZONE_KEYS, FINISH_KEYS } from "#core/models/ways/way";
import { CORRECTION_SCHOOL_IDS } from "#core/models/correction/schools";
import { RUN_SCHOOLS, type RunSchool } from "#core/models/correction/run-work";
import { TRIGGERS, type Trigger } from "#core/models/spray/strokes";
import { type Quantity, type UnitPreferences, preferredUnit } from "#core/kernel/units/quantities";
import { initial } from "~/kit/form/initial";
import { type Limits, type TypedReader, readQuantity, readTyped } from "~/kit/form/read-typed";

export const MOST_COATS = 12;
const MINUTE_S = 60;
const HOUR_S = 3600;

/** One coat of a way as typed; every field of all coats is a list of its own when it is sent. */
export type CoatTyped = Record<
  "role" | "speed" | "fluid" | "wait" | "distance" | "pressure" | "overlap" | "reducer" | "zone" | "sand",
  string
>;
/** How a coat's figures are typed, with their limits. */
const COAT_FIELDS = {
  speed: ["share", { min: 0.4, max: 4 }],
  fluid: ["share", { min: 0.4, max: 2.5 }],
  wait: ["count", { min: 0.3, max: 10 }],
  distance: ["share", { min: 0.5, max: 2 }],
  pressure: ["pressure", { min: -1.5e5, max: 1.5e5 }],
  overlap: ["share", { min: -0.4, max: 0.4 }],
  reducer: ["share", { min: 0, max: 0.3 }],
} as const satisfies Partial<Record<keyof CoatTyped, readonly [Quantity, Limits]>>;
export const coatField = (name: keyof CoatTyped) => `coat-${name}` as const;

/** A way as its fields begin, in the units now shown. */
export function wayTyped(way: HouseWay, units: UnitPreferences) {
  return {
    name: way.name,
    goodFor: way.goodFor,
    price: way.price,
    finish: way.finish as string,
    distance: initial("length", way.gun.distance_m, units),
    pressure: initial("pressure", way.gun.pressure_Pa, units),
    trigger: way.trigger as string,
    lastPaper: String(way.lastPaper),
    flatGrit: String(way.flatten.grit),
    flatBy: way.flatten.by as string,
    flatOff: initial("film", way.flatten.removal_m, units),
    flatU: initial("film", way.flatten.u_m, units),
    airBeforeHeat: way.airBeforeHeat_s === null ? "" : String(way.airBeforeHeat_s / MINUTE_S),
    correctAfter: String(way.correctAfter_s / HOUR_S),
    correction: way.correction as string,
    runSchool: way.runSchool as string,
    coats: way.coats.map((c): CoatTyped => coatTyped(c, units)),
  };
}
export const coatTyped = (c: HouseWay["coats"][number], units: UnitPreferences): CoatTyped => ({
  role: c.role,
  speed: initial("share", c.speedFactor, units),
  fluid: initial("share", c.fluidFactor, units),
  wait: String(c.flashFactor),
  distance: initial("share", c.distanceFactor, units),
  pressure: initial("pressure", c.pressureShift_Pa, units),
  overlap: initial("share", c.overlapShift, units),
  reducer: initial("share", c.reducerShift, units),
  zone: c.zone,
  sand: c.sandAfter ? "yes" : "no",
});
/** The fields whose unit stands beside them. */
export const WAY_QUANTITIES = {
  distance: "length",
  pressure: "pressure",
  flatOff: "film",
  flatU: "film",
  coats: { pressure: "pressure" },
} as const;

/** A way as typed; its coats come as lists of one length. */
export const readWay = (typed: Record<string, unknown>, units: UnitPreferences) =>
  readTyped(typed, units, (r): HouseWayBody => {
    const name = r.text("name").trim();
    if (name === "") r.wrong("name", "Give the way a name");
    if (name.length > 40) r.wrong("name", "At most 40 characters");
    for (const field of ["goodFor", "price"] as const) if (r.text(field).trim().length > 120) r.wrong(field, "At most 120 characters");
    const air_min = r.optional("airBeforeHeat", "count", { min: 1, max: 120 });
    return {
      name,
      goodFor: r.text("goodFor").trim(),
      price: r.text("price").trim(),
      finish: r.oneOf("finish", FINISH_KEYS),
      coats: readCoats(r, units),
      gun: {
        distance_m: r.optional("distance", "length", { min: 0.08, max: 0.35 }),
        pressure_Pa: r.optional("pressure", "pressure", { min: 0.7e5, max: 4e5 }),
      },
      trigger: r.oneOf("trigger", Object.keys(TRIGGERS) as Trigger[]),
      lastPaper: r.whole("lastPaper", 400, 2000),
      flatten: {
        grit: r.whole("flatGrit", 400, 3000),
        by: r.oneOf("flatBy", ["machine", "hand"] as const),
        removal_m: r.quantity("flatOff", "film", { min: 1e-6, max: 60e-6 }),
        u_m: r.quantity("flatU", "film", { min: 0.5e-6, max: 20e-6 }),
      },
      airBeforeHeat_s: air_min === null ? null : air_min * MINUTE_S,
      correctAfter_s: HOUR_S * r.quantity("correctAfter", "count", { min: 0, max: 720 }),
      correction: r.oneOf("correction", CORRECTION_SCHOOL_IDS),
      runSchool: r.oneOf("runSchool", Object.keys(RUN_SCHOOLS) as RunSchool[]),
    };
  });

function readCoats(r: TypedReader, units: UnitPreferences): HouseWayBody["coats"] {
  const lists = Object.fromEntries(
    (["role", "zone", "sand", ...Object.keys(COAT_FIELDS)] as (keyof CoatTyped)[]).map((f) => [f, r.list(coatField(f))]),
  ) as Record<keyof CoatTyped, string[]>;
  const count = lists.role.length;
  if (count === 0) r.wrong("coats", "At least one coat");
  if (count > MOST_COATS) r.wrong("coats", `At most ${MOST_COATS} coats`);
  return lists.role.slice(0, MOST_COATS).map((role, i) => {
    const figure = (field: keyof typeof COAT_FIELDS): number => {
      const [kind, limits] = COAT_FIELDS[field];
      const read = readQuantity(kind, preferredUnit(kind, units), limits, lists[field][i] ?? "");
      if ("si" in read) return read.si;
      r.wrong(`${coatField(field)}-${i}`, read.message);
      return NaN;
    };
    return {
      role: COAT_ROLES.find((known) => known === role) ?? "full wet",
      speedFactor: figure("speed"),
      fluidFactor: figure("fluid"),
      flashFactor: figure("wait"),
      distanceFactor: figure("distance"),
      pressureShift_Pa: figure("pressure"),
      overlapShift: figure("overlap"),
      reducerShift: figure("reducer"),
      zone: COAT_ZONE_KEYS.find((z) => z === lists.zone[i]) ?? "whole",
      sandAfter: lists.sand[i] === "yes" && i < count - 1,
    };
  });
}
