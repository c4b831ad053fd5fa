import { readFilms } from "~/kit/form/film-readings";
import { FILM_BOUNDS } from "#core/models/bounds";
import { askedAgain, foilFault } from "#core/models/film/gauge-check";
import { DEFECT_KINDS } from "#core/models/defects/kinds";
import { z } from "zod";
import { MOST_RUN_HEIGHT_M } from "#core/panel/derive-panel";
import { keysOf } from "#core/kernel/keys";
import type { HoldUntil } from "#core/models/defects/holds";
import { type DefectKind, SEEN_TO, isFold } from "#core/record/kinds";
import { type Polygon, isInside } from "#core/kernel/geometry/geometry";
import type { UnitPreferences } from "#core/kernel/units/quantities";
import { optionalQuantity, quantity } from "~/kit/form/fields";

const FOIL_FAULTS = {
  "no more than bare metal": "The foil must read more than the bare metal",
  "not that foil": "Nothing like this foil: another one, or a slip of the finger",
} as const;

/** Zero and foil as the gauge read them, several with spaces between. */
export const gaugeCheckForm = (units: UnitPreferences) =>
  z
    .object({
      gauge: z.string().trim().min(1, "Name the gauge").max(40),
      foil: quantity("film", units, FILM_BOUNDS.foil_m),
      uFoil: quantity("film", units, { min: 0, max: 1e-4 }),
      zero: z.string().trim().min(1, "Type what it reads on bare metal"),
      onFoil: z.string().trim().min(1, "Type what it reads on the foil"),
      correct: z.literal("on").optional(),
    })
    .transform((v, ctx) => {
      const read = (name: "zero" | "onFoil", limit?: (si: number) => string | null) => {
        const { problem, readings } = readFilms(v[name], units, limit);
        if (problem !== null) ctx.addIssue({ code: "custom", path: [name], message: problem });
        return readings;
      };
      const zero = read("zero", (si) => (Math.abs(si) > 1e-3 ? "More than 1 mm on bare metal is no zero" : null));
      const onFoil = read("onFoil");
      const films = (list: readonly { thickness_m: number }[]) => list.map((r) => r.thickness_m);
      const fault = zero.length && onFoil.length ? foilFault({ zero_m: films(zero), onFoil_m: films(onFoil), foil_m: v.foil }) : null;
      for (const [name, list] of [
        ["zero", zero],
        ["onFoil", onFoil],
      ] as const) {
        const again = list.length > 0 ? askedAgain(films(list)) : null;
        const what = again && (again.odd === null ? "They lie far apart" : `${list[again.odd]!.entered} lies far from the others`);
        if (what) ctx.addIssue({ code: "custom", path: [name], message: `${what}: read it again` });
      }
      if (fault) ctx.addIssue({ code: "custom", path: ["onFoil"], message: FOIL_FAULTS[fault] });
      return { gauge: v.gauge, foil_m: v.foil, uFoil_m: v.uFoil, zero, onFoil, correct: v.correct === "on" };
    });

export const seenToForm = z.object({ markId: z.string().min(1).max(80), as: z.enum(keysOf<HoldUntil>(SEEN_TO)) });

const kinds = Object.keys(DEFECT_KINDS) as [DefectKind, ...DefectKind[]];

const tracePoint = z.object({ x_m: z.number(), y_m: z.number() });
/** How a defect was drawn, as the page sends it: JSON, or nothing for a single place. */
const traceText = z
  .string()
  .default("")
  .transform((text, ctx) => {
    if (text === "") return null;
    const parsed = z
      .object({ as: z.enum(["points", "line", "area"]), at: z.array(tracePoint).min(1).max(500) })
      .safeParse(jsonOrNull(text));
    if (parsed.success) return parsed.data;
    ctx.addIssue({ code: "custom", message: "The drawing was not understood: draw it again" });
    return z.NEVER;
  });

function jsonOrNull(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return null;
  }
}

const LEAST_POINTS = { points: 1, line: 2, area: 3 } as const;

/** A defect placed on the panel. The correction works with a run once it has its length, width and height. */
export const defectForm = (units: UnitPreferences, outline: Polygon) =>
  z
    .object({
      kind: z.enum(kinds),
      x: quantity("length", units, { min: 0, max: 6 }),
      y: quantity("length", units, { min: 0, max: 6 }),
      length: optionalQuantity("length", units, { min: 0.0001, max: 3 }),
      width: optionalQuantity("length", units, { min: 0.0001, max: 3 }),
      height: optionalQuantity("film", units, { min: 0.1e-6, max: 2e-3 }),
      measured: z.enum(["measured", "judged"]),
      count: z.string().trim().default(""),
      photoId: z.string().max(80).default(""),
      note: z.string().trim().max(200).default(""),
      trace: traceText,
    })
    .transform((v, ctx) => {
      if (v.trace && v.trace.at.length < LEAST_POINTS[v.trace.as])
        ctx.addIssue({
          code: "custom",
          path: ["trace"],
          message: v.trace.as === "area" ? "An area needs three corners" : "A line needs two ends",
        });
      if (v.trace?.at.some((p) => !isInside([p.x_m, p.y_m], outline)))
        ctx.addIssue({ code: "custom", path: ["trace"], message: "A part of the drawing is not on the panel" });
      if (!isInside([v.x, v.y], outline)) ctx.addIssue({ code: "custom", path: ["x"], message: "This place is not on the panel" });
      const many = v.count === "" ? (v.trace?.as === "points" ? v.trace.at.length : 1) : Number(v.count);
      if (!Number.isInteger(many) || many < 1 || many > 2000)
        ctx.addIssue({ code: "custom", path: ["count"], message: "A whole number from 1 to 2000" });
      // Its size may come later: until then it is sized first wherever something is chosen for it.
      if (isFold(v.kind) && v.height !== null && v.height > MOST_RUN_HEIGHT_M)
        ctx.addIssue({
          code: "custom",
          path: ["height"],
          message: `A ${DEFECT_KINDS[v.kind].name.toLowerCase()} stands less than ${units.film === "mil" ? "40 mil" : "1000 µm"} high: look at the unit`,
        });
      if (v.kind === "run" && v.length !== null && v.width !== null && v.length < v.width)
        ctx.addIssue({ code: "custom", path: ["length"], message: "A run is at least as long as it is wide" });
      return {
        kind: v.kind,
        at: { x_m: v.x, y_m: v.y },
        length_m: v.length,
        width_m: v.width,
        height_m: v.height,
        measured: v.measured === "measured",
        count: many,
        photoId: v.photoId || null,
        note: v.note,
        trace: v.trace,
      };
    });

/** Nibs confirmed in a photograph, at the place of the panel that it shows. */
export const nibCountForm = z.object({
  count: z.coerce.number().int().min(1, "No nib is marked").max(2000),
  /** None where every mark was set by hand. */
  largest_m: z.union([z.literal("").transform(() => null), z.coerce.number().min(1e-5).max(3)]),
  x_m: z.coerce.number().min(0).max(6),
  y_m: z.coerce.number().min(0).max(6),
  /** Where each of them lies on the panel, where the picture was placed on it. */
  trace: traceText,
  simulated: z.enum(["yes", "no"]).transform((v) => v === "yes"),
});
