import { SUBSTRATES, type Substrate } from "#core/panel/brief";
import { z } from "zod";
import { type PanelShape, SHAPES, SHAPE_KINDS, ownShape, panelShape } from "#core/kernel/geometry/shapes";
import type { UnitPreferences } from "#core/kernel/units/quantities";
import { FINISH_KEYS } from "#core/models/ways/terms";
import type { NewPanel } from "#server/commands/jobs";
import { parseCorners } from "./corners";
import type { JobBrief } from "#core/panel/job-brief";
import { USUALLY_HANGS, numbered } from "#core/panel/usual-hang";
import { dayAtNoon, optionalQuantity, quantity, wholeNumber } from "~/kit/form/fields";

export const OWN_SHAPE = "own";
const substrates = Object.keys(SUBSTRATES) as [Substrate, ...Substrate[]];

function shapeFrom(v: { shape: string; width: number; height: number; corners: string }, units: UnitPreferences): PanelShape | string {
  const kind = SHAPE_KINDS.find((k) => k === v.shape);
  if (kind) return panelShape(kind, { width_m: v.width, height_m: v.height });
  const parsed = parseCorners(v.corners, units);
  if (!parsed.ok) return parsed.message;
  try {
    return ownShape(parsed.corners);
  } catch (error) {
    return error instanceof RangeError ? "At least 3 corners that enclose an area" : String(error);
  }
}

const panelFields = (units: UnitPreferences) => ({
  panelName: z.string().trim().max(60).default(""),
  /** What it is called when nothing is typed, in the shop's words. */
  usualName: z.string().trim().max(60).default(""),
  shape: z.enum([...SHAPE_KINDS, OWN_SHAPE]),
  width: quantity("length", units, { min: 0.05, max: 6 }),
  height: quantity("length", units, { min: 0.05, max: 6 }),
  corners: z.string().max(4000).default(""),
  orientation: z.enum(["vertical", "horizontal", "angle"]),
  angle: quantity("angle", units, { min: 0, max: Math.PI / 2 }),
  substrate: z.enum(substrates),
  productRevisionId: z.string({ error: "Choose a product" }).min(1, "Choose a product"),
  coatsPlanned: wholeNumber(1, 12),
  sides: z.enum(["1", "2"]).default("1"),
});
type PanelFields = z.infer<z.ZodObject<ReturnType<typeof panelFields>>>;

/** So many alike, and further parts of usual size: a tap each. */
const MOST_PANELS = 20;
const severalFields = {
  count: wholeNumber(1, MOST_PANELS).default(1),
  more: oneOrMore(z.enum(SHAPE_KINDS)),
  moreName: oneOrMore(z.string().trim().max(60)),
};
type Several = z.infer<z.ZodObject<typeof severalFields>>;

/** A field that may be sent several times. */
function oneOrMore<S extends z.ZodType>(one: S) {
  return z.union([z.array(one).max(MOST_PANELS, `At most ${MOST_PANELS} parts at once`), one.transform((v) => [v])]).default([]);
}

/** The panel as described, as many as are alike, and the further parts: of usual size, sprayed as it is; each by a name of its own. */
function toPanels(v: PanelFields & Several, units: UnitPreferences, ctx: z.core.$RefinementCtx): [NewPanel, ...NewPanel[]] {
  const first = toPanel(v, units, ctx);
  const alike = Array.from({ length: v.count }, () => first);
  const others = v.more.map((kind, i): NewPanel => {
    const [width_m, height_m] = SHAPES[kind].size_m;
    return {
      ...first,
      name: v.moreName[i] || SHAPES[kind].name,
      shape: panelShape(kind, { width_m, height_m }),
      tilt_rad: USUALLY_HANGS[kind] === "vertical" ? Math.PI / 2 : 0,
    };
  });
  const all = [...alike, ...others];
  const names = numbered(all.map((p) => p.name));
  return all.map((p, i) => ({ ...p, name: names[i]! })) as [NewPanel, ...NewPanel[]];
}

function toPanel(v: PanelFields, units: UnitPreferences, ctx: z.core.$RefinementCtx): NewPanel {
  const shape = shapeFrom(v, units);
  if (typeof shape === "string") {
    ctx.addIssue({ code: "custom", path: ["corners"], message: shape });
    return z.NEVER;
  }
  return { ...toBrief(v, shape), shape };
}

function toBrief(v: Omit<PanelFields, "shape" | "width" | "height" | "corners">, shape: PanelShape): Omit<NewPanel, "shape"> {
  const tilt_rad = v.orientation === "vertical" ? Math.PI / 2 : v.orientation === "horizontal" ? 0 : v.angle;
  const name = v.panelName || v.usualName || (shape.kind === OWN_SHAPE ? "Own shape" : SHAPES[shape.kind].name);
  return {
    name,
    tilt_rad,
    substrate: v.substrate,
    productRevisionId: v.productRevisionId,
    coatsPlanned: v.coatsPlanned,
    sides: v.sides === "2" ? 2 : 1,
  };
}

/** One more panel for a job. */
export const panelForm = (units: UnitPreferences) =>
  z
    .object({ ...panelFields(units), ...severalFields, formKey: z.string().max(80) })
    .transform((v, ctx) => ({ panels: toPanels(v, units, ctx), formKey: v.formKey }));

/** A panel put right. */
export const changedPanelForm = (units: UnitPreferences) => z.object(panelFields(units)).transform((v, ctx) => toPanel(v, units, ctx));
/** The same of a panel whose outline stays: shape and size are not sent. */
export const sameOutlineForm = (units: UnitPreferences, shape: PanelShape) =>
  z
    .object(panelFields(units))
    .omit({ shape: true, width: true, height: true, corners: true })
    .transform((v) => ({ ...toBrief(v, shape), shape }));

/** What a job is about. */
const brief = {
  vehicle: z.string({ error: "Say which vehicle or part" }).trim().min(1, "Say which vehicle or part").max(80),
  colourName: z.string().trim().max(60).default(""),
  colourCss: z.string().regex(/^#[0-9a-f]{6}$/i, "A colour"),
  finish: z.enum(FINISH_KEYS),
  wayId: z.string({ error: "Choose a house way" }).min(1, "Choose a house way").max(80),
};
/** What it was told beside its parts. */
const told = (units: UnitPreferences) => ({
  targetGloss: optionalQuantity("gloss", units, { min: 1, max: 100 }),
  colourCode: z.string().trim().max(40).default(""),
  customer: z.string().trim().max(80).default(""),
  plate: z.string().trim().max(20).default(""),
  promised: dayAtNoon,
});
type Told = z.infer<z.ZodObject<ReturnType<typeof told>>>;
const toJob = (v: z.infer<z.ZodObject<typeof brief>> & Told) => ({
  vehicle: v.vehicle,
  colourName: v.colourName,
  colourCss: v.colourCss,
  finish: v.finish,
  wayId: v.wayId,
  brief: {
    targetGloss_GU: v.targetGloss,
    colourCode: v.colourCode,
    customer: v.customer,
    plate: v.plate,
    promised_ms: v.promised,
  } satisfies JobBrief,
});
export const changedJobForm = (units: UnitPreferences) => z.object({ ...brief, ...told(units) }).transform(toJob);

/** A new job with its first panel. */
export const jobForm = (units: UnitPreferences) =>
  z
    .object({
      ...panelFields(units),
      ...severalFields,
      ...brief,
      ...told(units),
      formKey: z.string().max(80),
    })
    .transform((v, ctx) => {
      const [panel, ...morePanels] = toPanels(v, units, ctx);
      return { ...toJob(v), clientKey: v.formKey, panel, morePanels };
    });

/** Which removed panel is meant. */
export const removedForm = z.object({ panelId: z.string().min(1).max(80) });
