import { keysOf } from "#core/kernel/keys";
import { COAT_LIMITS, type HouseWay, type HouseWayBody, WAY_LIMITS } from "#core/models/ways/way";
import { COAT_ROLES, COAT_ZONE_KEYS, FINISHES, FINISH_KEYS, FLATTEN_BY, type FlattenBy } from "#core/models/ways/terms";
import { NIB_TOOLS, POLISHERS, POLISHING, WET_OR_DRY } from "#core/models/correction/bench-habits";
import { CORRECTION_SCHOOLS, CORRECTION_SCHOOL_IDS } from "#core/models/correction/schools";
import { RUN_SCHOOLS, type RunSchool } from "#core/models/correction/run-work";
import { TRIGGERS, type Trigger } from "#core/models/spray/trigger";
import { type Quantity, type UnitPreferences, preferredUnit } from "#core/kernel/units/quantities";
import type { ShownField } from "~/kit/form/answer";
import { initial } from "~/kit/form/initial";
import { type Limits, type TypedReader, readQuantity, readTyped } from "~/kit/form/read-typed";

const L = WAY_LIMITS;
export const MOST_COATS = L.coats;
const MINUTE_S = 60;
const HOUR_S = 3600;
const scaled = ({ min, max }: Limits, by: number): Limits => ({ min: min / by, max: max / by });

/** One coat of a way as typed; every field of all coats is a list of its own when it is sent. */
export type CoatTyped = Record<
  "role" | "speed" | "fluid" | "wait" | "distance" | "pressure" | "overlap" | "reducer" | "zone" | "sand",
  string
>;
/** How a coat's figures are typed, with their limits. */
const COAT_FIELDS = {
  speed: ["share", COAT_LIMITS.speedFactor],
  fluid: ["share", COAT_LIMITS.fluidFactor],
  wait: ["count", COAT_LIMITS.flashFactor],
  distance: ["share", COAT_LIMITS.distanceFactor],
  pressure: ["pressure", COAT_LIMITS.pressureShift_Pa],
  overlap: ["share", COAT_LIMITS.overlapShift],
  reducer: ["share", COAT_LIMITS.reducerShift],
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
    turns: way.gun.turns === null ? "" : String(way.gun.turns),
    lyingTurns: way.gun.lyingTurns === null ? "" : String(way.gun.lyingTurns),
    fan: initial("length", way.gun.fan_m, units),
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
    polishing: way.bench.polishing as string,
    polisher: way.bench.polisher as string,
    discs: way.bench.discs as string,
    guardCut: way.bench.guardCut as string,
    nibTool: way.bench.nibTool as string,
    coats: way.coats.map((c): CoatTyped => coatTyped(c, units)),
  };
}

/** The choices of a way by their fields, in words. */
export const WAY_CHOICES = {
  finish: FINISHES,
  trigger: TRIGGERS,
  flatBy: FLATTEN_BY,
  correction: Object.fromEntries(CORRECTION_SCHOOLS.map((s) => [s.id, s.name])),
  discs: WET_OR_DRY,
  polishing: POLISHING,
  polisher: POLISHERS,
  runSchool: Object.fromEntries(Object.entries(RUN_SCHOOLS).map(([id, s]) => [id, s.name])),
  guardCut: WET_OR_DRY,
  nibTool: NIB_TOOLS,
} satisfies Partial<Record<keyof ReturnType<typeof wayTyped>, Record<string, string>>>;

/** What stands there now of a way that another window has changed: its plain fields, choices in words. */
export function wayShown(there: HouseWay, units: UnitPreferences): Record<string, ShownField> {
  const choices: Record<string, Record<string, string>> = WAY_CHOICES;
  return Object.fromEntries(
    Object.entries(wayTyped(there, units)).flatMap(([name, value]) =>
      typeof value === "string" ? [[name, { value, said: choices[name]?.[value] ?? value }]] : [],
    ),
  );
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
  fan: "length",
  flatOff: "film",
  flatU: "film",
  coats: { pressure: "pressure" },
} as const;

/** A way as typed; its coats come as lists of one length. */
export const readWay = (typed: Record<string, unknown>, units: UnitPreferences) =>
  readTyped(typed, units, (r): HouseWayBody => {
    const name = r.text("name").trim();
    if (name === "") r.wrong("name", "Give the way a name");
    if (name.length > L.nameLength) r.wrong("name", `At most ${L.nameLength} characters`);
    for (const field of ["goodFor", "price"] as const)
      if (r.text(field).trim().length > L.noteLength) r.wrong(field, `At most ${L.noteLength} characters`);
    const air_min = r.optional("airBeforeHeat", "count", scaled(L.airBeforeHeat_s, MINUTE_S));
    return {
      name,
      goodFor: r.text("goodFor").trim(),
      price: r.text("price").trim(),
      finish: r.oneOf("finish", FINISH_KEYS),
      coats: readCoats(r, units),
      gun: {
        distance_m: r.optional("distance", "length", L.distance_m),
        pressure_Pa: r.optional("pressure", "pressure", L.pressure_Pa),
        turns: r.optional("turns", "count", L.turns),
        lyingTurns: r.optional("lyingTurns", "count", L.turns),
        fan_m: r.optional("fan", "length", L.fan_m),
      },
      trigger: r.oneOf("trigger", keysOf<Trigger>(TRIGGERS)),
      lastPaper: r.whole("lastPaper", L.lastPaper.min, L.lastPaper.max),
      flatten: {
        grit: r.whole("flatGrit", L.flattenGrit.min, L.flattenGrit.max),
        by: r.oneOf("flatBy", keysOf<FlattenBy>(FLATTEN_BY)),
        removal_m: r.quantity("flatOff", "film", L.flattenRemoval_m),
        u_m: r.quantity("flatU", "film", L.flattenU_m),
      },
      airBeforeHeat_s: air_min === null ? null : air_min * MINUTE_S,
      correctAfter_s: HOUR_S * r.quantity("correctAfter", "count", scaled(L.correctAfter_s, HOUR_S)),
      correction: r.oneOf("correction", CORRECTION_SCHOOL_IDS),
      runSchool: r.oneOf("runSchool", keysOf<RunSchool>(RUN_SCHOOLS)),
      bench: {
        polishing: r.oneOf("polishing", keysOf<keyof typeof POLISHING>(POLISHING)),
        polisher: r.oneOf("polisher", keysOf<keyof typeof POLISHERS>(POLISHERS)),
        discs: r.oneOf("discs", keysOf<keyof typeof WET_OR_DRY>(WET_OR_DRY)),
        guardCut: r.oneOf("guardCut", keysOf<keyof typeof WET_OR_DRY>(WET_OR_DRY)),
        nibTool: r.oneOf("nibTool", keysOf<keyof typeof NIB_TOOLS>(NIB_TOOLS)),
      },
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
