import type { HoldUntil } from "../models/defects/holds";
import { DEFECT_KINDS } from "../models/defects/kinds";
import { z } from "zod";
import { keysOf } from "../kernel/keys";
import { BACKING, type Backing, GRAIN_M, type Grit, POLISH_M, type Polish } from "../models/correction/abrasives";
import { SANDING_TOOLS } from "../models/correction/removal-plan";
import { RUN_SCHOOLS, type RunSchool } from "../models/correction/run-work";
import { CORRECTION_SCHOOL_IDS } from "../models/correction/schools";
import { MATTE_RULE_IDS } from "../models/gloss/matte-knowledge";
import { MEND_CARD_IDS } from "../models/prep/mend-cards";
import { PREFLIGHT_IDS } from "../models/prep/preflight-ids";
import { foilFault } from "../models/film/gauge-check";
import { CLIMATE_BOUNDS, FILM_BOUNDS, GUN_BOUNDS } from "../models/bounds";
import { COLOUR_EDGES, type ColourEdge, LAYER_KEYS } from "../models/prep/layer-names";
import { sheetContradictions } from "../models/product/sheet";
import { productSheet } from "../models/product/sheet-schema";
import { PRESSURE_AT, type PressureAt } from "../models/spray/pressure-at";
import { UNDER_STEP_IDS } from "../models/prep/under-clear";
import { CAUSE_IDS } from "../models/defects/causes";
import { OBSERVATION_IDS } from "../models/defects/observations";
import { COAT_ZONE_KEYS, FLATTEN_BY, type FlattenBy } from "../models/ways/terms";
import {
  EYE_COLOURS,
  EYE_LIGHTS,
  type EyeColour,
  type EyeLight,
  OUTCOMES,
  OUT_POINTS,
  type Outcome,
  PANEL_PARTS,
  PART_HELD,
  PHASES,
  type PanelPart,
  type PartHeld,
  SEEN_TO,
  SIDES,
  VERDICTS,
  type DefectKind,
  type Phase,
} from "./kinds";

const within = ({ min, max }: { min: number; max: number }) => z.number().min(min).max(max);
const film_m = z
  .number()
  .min(FILM_BOUNDS.total_m.min, "Film cannot be below zero")
  .max(FILM_BOUNDS.total_m.max, "Film above 5 mm is outside any gauge here");
const coordinate_m = z.number().min(-0.01).max(6.01);
const at = z.object({ x_m: coordinate_m, y_m: coordinate_m });
const text = (most: number) => z.string().trim().max(most);

/** A reading as it was typed, beside its SI value. */
const gunSettings = z.object({
  fluidRate_m3_s: within(GUN_BOUNDS.fluidRate_m3_s),
  fluidFrom: z.enum(["measured", "turns"]),
  turns: z.number().positive().max(10).nullable(),
  /** At the gun; where it was told at the hose, worked out from there. */
  pressure_Pa: within(GUN_BOUNDS.pressure_Pa),
  pressureAt: z.enum(keysOf<PressureAt>(PRESSURE_AT)).optional(),
  distance_m: within(GUN_BOUNDS.distance_m),
  overlap: within(GUN_BOUNDS.overlap),
  handSpeed_m_s: within(GUN_BOUNDS.handSpeed_m_s),
  fan_m: within(GUN_BOUNDS.fan_m).nullable(),
});

/** What is written with every coat, of the clear or below it. */
const howSprayed = {
  /** How long it took, where it was started and stopped in the booth view. */
  duration_s: z.number().min(0).max(86400).nullable().default(null),
  /** Which face, where on it, and how it lay; null: as the panel is planned. */
  side: z.enum(SIDES).default("front"),
  zone: z.enum(COAT_ZONE_KEYS).default("whole"),
  tilt_rad: z.number().min(0).max(Math.PI).nullable().default(null),
  /** The pot that it came out of, and how much by the strokes; null: nobody knows. */
  potId: text(80).nullable().default(null),
  volume_m3: z.number().min(0).max(0.1).nullable().default(null),
};

const filmReading = z.object({ thickness_m: film_m, entered: text(24), unit: text(8) });

/** Readings at one mark. */
const atMark = { before: z.array(filmReading).min(1).max(20), after: z.array(filmReading).min(1).max(20) };

const removalStep = z.union([
  z.object({ grit: z.enum(keysOf<Grit>(GRAIN_M)), backing: z.enum(keysOf<Backing>(BACKING)), tool: z.enum(SANDING_TOOLS).optional() }),
  z.object({ polish: z.enum(keysOf<Polish>(POLISH_M)) }),
]);

const strip = z.object({ within_m: z.number().min(0).max(1), share: z.number().min(0).max(2) });

/** A sheet as it stood when it was planned with, or sprayed: what contradicts itself can be worked with nowhere. */
const soundSheet = productSheet.superRefine((sheet, ctx) => {
  for (const { field, message } of sheetContradictions(sheet)) ctx.addIssue({ code: "custom", path: [field], message });
});

/** As many coats of one layer as are planned. */
export const MOST_LAYER_COATS = 8;

/** Where a step of the work is done. */
export const WORK_ZONES = ["panel", "run", "spot", "hand"] as const;

/** What an entry of each kind holds. SI; missing is null, never zero. */
export const LEDGER_BODIES = {
  climate: z.object({
    air_K: within(CLIMATE_BOUNDS.air_K),
    part_K: within(CLIMATE_BOUNDS.part_K).nullable(),
    relativeHumidity: z.number().min(0.01).max(1),
    material_K: within(CLIMATE_BOUNDS.material_K).nullable().default(null),
  }),
  mix: z.object({
    volume_m3: z.number().positive().max(0.1),
    reducer: z.number().min(0).max(1),
    potLife_s: z
      .number()
      .positive()
      .max(30 * 86_400),
    /** What went in, when it was mixed by the program's own figures; nulls where it was not weighed. */
    parts: z
      .array(
        z.object({
          name: text(80),
          volume_m3: z.number().min(0),
          mass_kg: z.number().min(0).nullable(),
          poured_kg: z.number().min(0).nullable(),
          /** Batch of the can that it came out of. */
          batch: text(40).default(""),
        }),
      )
      .max(6)
      .default([]),
    /** What was mixed, by name; empty: the panel's own clear. */
    product: text(80).default(""),
    /** Speed of the hardener in it; null: as the product's sheet has it. */
    speed: z.enum(["fast", "medium", "slow"]).nullable().default(null),
    /** Share of matting component by weight; null: not about matte. */
    mattingShare: z.number().min(0).max(1).nullable().default(null),
    /** It settles, and is stirred again so long after. */
    settles_s: z.number().min(60).max(86_400).nullable().default(null),
    /** Panels this pot is for. */
    panels: z.array(text(80)).max(40).default([]),
    temperature_K: z.number().min(253).max(333).nullable().default(null),
  }),
  gloss: z.object({
    /** The vehicle's own gloss to match, or the sprayed part's. */
    role: z.enum(["target", "part"]),
    angle: z.union([z.literal(20), z.literal(60), z.literal(85)]),
    place: text(60),
    meter: text(40),
    readings: z
      .array(
        z.object({
          gloss_GU: z.number().min(0, "Gloss cannot be below zero").max(200, "Above 200 GU is outside the scale"),
          entered: text(24),
        }),
      )
      .min(1)
      .max(40),
  }),
  matteCheck: z.object({ rules: z.array(z.enum(MATTE_RULE_IDS)) }),
  coat: z.object({
    number: z.int().min(1).max(20),
    role: text(40),
    settings: gunSettings,
    reducer: z.number().min(0).max(1),
    wetReading_m: film_m.nullable(),
    ...howSprayed,
  }),
  /** The mix that was chosen for a gloss: what the pot is weighed by. */
  matteMix: z.object({
    share: z.number().min(0).max(1),
    /** Gloss wanted at 60°, and where the share comes from. */
    target_GU: z.number().min(0.5).max(100),
    low: z.number().min(0).max(1).nullable(),
    high: z.number().min(0).max(1).nullable(),
    from: z.enum(["cards", "sheet", "told"]),
  }),
  /** Sanded flat over the whole part before further clear: with what, and what came off by forecast or by readings. */
  flatten: z.object({
    grit: z.int().min(400).max(5000),
    by: z.enum(keysOf<FlattenBy>(FLATTEN_BY)),
    removal_m: z.number().min(0).max(300e-6),
    u_m: z.number().min(0).max(100e-6),
    from: z.enum(["forecast", "told"]),
    note: text(200).default(""),
  }),
  /** The part was turned, hung or laid: how it lies from now on. */
  turn: z.object({ how: z.enum(keysOf<PartHeld>(PART_HELD)), side: z.enum(SIDES), tilt_rad: z.number().min(0).max(Math.PI) }),
  /** Heat on; the bake itself is written when it is off. */
  bakeStart: z.object({ air_K: z.number().min(293).max(400).nullable() }),
  /** Baked, and off again: what the part held for how long, as the painter tells it. */
  bake: z.object({
    part_K: z.number().min(293).max(400),
    time_s: z
      .number()
      .min(60)
      .max(24 * 3600),
  }),
  /** A gun and its settings taken up for the coats to come. */
  gunSet: z.object({ name: text(60), gunId: z.string().nullable(), settings: gunSettings }),
  /** A wet comb in a coat just sprayed; it stands beside the coat of that number. */
  wetComb: z.object({ number: z.int().min(1).max(20), thickness_m: film_m, entered: text(24), unit: text(8) }),
  /** One step below the clear as it was done; null: not asked or not known. */
  under: z.object({
    step: z.enum(UNDER_STEP_IDS),
    grit: z.int().min(60).max(5000).nullable(),
    coats: z.int().min(1).max(12).nullable(),
    film_m: within(FILM_BOUNDS.layer_m).nullable(),
    pressure_Pa: within(GUN_BOUNDS.pressure_Pa).nullable(),
    reach_m: z.number().min(0).max(6).nullable(),
    note: text(200),
  }),
  /** What goes on below the clear, from below up: each with its product's sheet as it stood then; null: as is usual for the layer. */
  layerPlan: z.object({
    layers: z
      .array(z.object({ layer: z.enum(LAYER_KEYS), coats: z.int().min(1).max(MOST_LAYER_COATS), sheet: soundSheet.nullable() }))
      .max(LAYER_KEYS.length)
      .refine((layers) => new Set(layers.map((l) => l.layer)).size === layers.length, "Each layer once"),
    /** Shade of the undercoat by the colour's formula, and whether what lies there has it; null: not looked at. */
    shade: text(40).default(""),
    shadeRight: z.boolean().nullable().default(null),
    /** How the colour ends at the panel's edge; null: not said. */
    edge: z.enum(keysOf<ColourEdge>(COLOUR_EDGES)).nullable().default(null),
  }),
  /** A coat below the clear, one at a time; null settings: as is usual for the layer. */
  colourCoat: z.object({
    coat: z.enum(LAYER_KEYS),
    settings: gunSettings.nullable().default(null),
    reducer: z.number().min(0).max(1).nullable().default(null),
    /** What it was sprayed with, as the sheet stood then; null: nobody said. */
    sheet: soundSheet.nullable().default(null),
    ...howSprayed,
  }),
  /** A step of a mend on the way, as its card has it, counted from 0. */
  mendStep: z.object({ card: z.enum(MEND_CARD_IDS), step: z.int().min(0).max(20) }),
  preflight: z.object({ ticks: z.array(z.enum(PREFLIGHT_IDS)) }),
  /** How the surface looks on the scale 1 glass … 5 heavy, by eye along a light tube. */
  texture: z.object({ role: z.enum(["target", "part"]), rating: z.number().min(1).max(5), place: text(60) }),
  /** Temperature of the part since its last coat. */
  oven: z.object({
    probe: text(40),
    samples: z
      .array(
        z.object({
          at_s: z
            .number()
            .min(0)
            .max(30 * 86400),
          part_K: z.number().min(253).max(400),
        }),
      )
      .min(2)
      .max(2000),
  }),
  /** The trigger was pulled for a coat; the coat itself is written when it is stopped. */
  coatStart: z.object({ number: z.int().min(1).max(20) }),
  reading: z.object({
    phase: z.enum(keysOf<Phase>(PHASES)),
    spot: text(12).min(1),
    at,
    gauge: text(40),
    readings: z.array(filmReading).min(1).max(20),
    /** The place was found again by a mark or a template. */
    template: z.boolean().default(false),
  }),
  /** A metal strip beside a part on which no gauge reads: read before clear and after it. */
  strip: z.object({ phase: z.enum(["before", "after"]), gauge: text(40), readings: z.array(filmReading).min(1).max(20) }),
  /** Zero and foil of a gauge, as it read them. */
  gaugeCheck: z
    .object({
      gauge: text(40).min(1),
      foil_m: within(FILM_BOUNDS.foil_m),
      uFoil_m: z.number().min(0).max(1e-4),
      zero: z
        .array(z.object({ thickness_m: z.number().min(-1e-3).max(1e-3), entered: text(24), unit: text(8) }))
        .min(1)
        .max(20),
      onFoil: z.array(filmReading).min(1).max(20),
      /** The gauge does not set itself: its readings from now on are set right here. */
      correct: z.boolean(),
    })
    .refine(
      ({ zero, onFoil, foil_m }) =>
        foilFault({ zero_m: zero.map((r) => r.thickness_m), onFoil_m: onFoil.map((r) => r.thickness_m), foil_m }) === null,
      { path: ["onFoil"], error: "The gauge does not read this foil: nothing like it, or no more than bare metal" },
    ),
  /** How many places the panel is read at, and places added to them. */
  spotPlan: z.object({ count: z.int().min(3).max(40), added: z.array(z.object({ name: text(12).min(1), at })).max(24) }),
  defect: z.object({
    kind: z.enum(keysOf<DefectKind>(DEFECT_KINDS)),
    at,
    length_m: z.number().positive().max(3).nullable(),
    width_m: z.number().positive().max(3).nullable(),
    height_m: z.number().positive().max(2e-3).nullable(),
    measured: z.boolean(),
    /** How many of them lie there: nibs counted, runs one. */
    count: z.int().min(1).max(2000).default(1),
    photoId: z.string().max(80).nullable().default(null),
    note: text(200).default(""),
    /** Drawn on the panel: each of several points, a line along it, or the area it covers. */
    trace: z
      .object({ as: z.enum(["points", "line", "area"]), at: z.array(at).min(1).max(500) })
      .nullable()
      .default(null),
  }),
  /** What the painter answered about a defect's causes, and the final word; null: not settled. */
  cause: z.object({
    kind: z.enum(keysOf<DefectKind>(DEFECT_KINDS)),
    answers: z.partialRecord(z.enum(OBSERVATION_IDS), z.boolean()),
    causeId: z.enum(CAUSE_IDS).nullable(),
  }),
  /** The panel beside, as it was found before or beside the work: what this one is matched to. */
  neighbour: z.object({
    name: text(60).min(1),
    /** All layers together. */
    readings: z.array(filmReading).max(20),
    rating: z.number().min(1).max(5).nullable(),
    gloss60_GU: z.number().min(0).max(200).nullable(),
    photoId: z.string().max(80).nullable().default(null),
  }),
  /** A light tube photographed in this panel and in the one beside: slope of either surface, rms, in the pictures' own trace. */
  reflection: z.object({ own_rad: z.number().positive().max(0.1), beside_rad: z.number().positive().max(0.1) }),
  /** Colour and coverage by the painter's eye, in a named light. */
  eye: z.object({ colour: z.enum(keysOf<EyeColour>(EYE_COLOURS)), covered: z.boolean(), light: z.enum(keysOf<EyeLight>(EYE_LIGHTS)) }),
  /** What came of the coats, told with one tap. */
  outcome: z.object({ result: z.enum(keysOf<Outcome>(OUTCOMES)) }),
  /** Looked along with a moving light, and nothing found. */
  lookedOver: z.object({ note: text(200).default("") }),
  /** What a marked fault held work back for is done: it is hard or dry now, was taken back to what is sound, or sprayed again below. */
  seenTo: z.object({ markId: text(80).min(1), as: z.enum(keysOf<HoldUntil>(SEEN_TO)), note: text(200).default("") }),
  /** Colour on the cloth: the clear is through there. */
  throughClear: z.object({ note: text(200) }),
  plan: z.object({
    schoolId: z.enum(CORRECTION_SCHOOL_IDS),
    runSchool: z.enum(keysOf<RunSchool>(RUN_SCHOOLS)).nullable(),
    tape_m: z.number().min(0).max(0.5),
    floor_m: z.number().positive().max(FILM_BOUNDS.removal_m.max),
    steps: z.array(
      z.object({
        name: text(40),
        use: removalStep.nullable(),
        removal_m: within(FILM_BOUNDS.removal_m),
        u_m: within(FILM_BOUNDS.removal_m),
        /** Parts of that doubt which are one unknown for several steps, by its name; below nothing where it makes this one less. */
        common_m: z.record(z.string().max(40), z.number().min(-FILM_BOUNDS.removal_m.max).max(FILM_BOUNDS.removal_m.max)).default({}),
        /** The places of work at single places; empty for what goes over the panel or its strips. */
        at: z.array(at).max(2000).default([]),
        passes: z.int().min(1).max(60).default(1),
        /** Where: over the panel, or only at runs, spots, or rim and body lines. Only the first thins the panel. */
        zone: z.enum(WORK_ZONES).default("panel"),
        tool: text(80).default(""),
        wet: z.boolean().nullable().default(null),
        doThis: text(200).default(""),
        lookFor: text(200).default(""),
        minutes: z.number().min(0).max(1e5).default(0),
        /** The texture's share of the removal, and what the defaults say for all of it. */
        texture_m: within(FILM_BOUNDS.removal_m).default(0),
        default_m: within(FILM_BOUNDS.removal_m).default(0),
        /** The removal is this shop's own, learnt step by step. */
        own: z.boolean().default(false),
        /** Gloss to expect at 60° after it, an illustration. */
        gloss60_GU: z.number().min(0).max(200).nullable().default(null),
      }),
    ),
    /** Rim left under tape or by hand; body lines by hand or left. */
    edges: z.enum(["left", "hand"]).default("left"),
    lines: z.enum(["hand", "left"]).default("hand"),
    /** What comes off in those strips as a share of the flat (0: taped), from where the rim is judged, and the chance at runs and nibs. */
    byHand: z.object({ edge: strip.optional(), line: strip.optional() }).default({}),
    judgedFrom_m: z.number().min(0).max(0.5).nullable().default(null),
    /** Craters and pops are filled with a drop of clear first. */
    fill: z.boolean().default(false),
    /** The part that is levelled and its share of the panel; null: all of it. */
    part: z
      .object({
        name: z.enum(keysOf<PanelPart>(PANEL_PARTS)),
        outlines: z.array(z.array(at).min(3).max(500)).min(1).max(24),
        share: z.number().min(0).max(1),
      })
      .nullable()
      .default(null),
    /** Only in plans of an older version: the chance at runs and nibs, worked out beside the panel's. */
    localCutChance: z.number().min(0).max(1).default(0),
    removal_m: within(FILM_BOUNDS.removal_m),
    u_removal_m: within(FILM_BOUNDS.removal_m),
    verdict: z.enum(VERDICTS),
    cutChance: z.number().min(0).max(1).nullable(),
    thinChance: z.number().min(0).max(1).nullable(),
    inferred: z.boolean(),
  }),
  step: z.object({
    planId: z.string(),
    index: z.int().min(0),
    name: text(40),
    /** What a mark reads may come out a little below nothing. */
    removal_m: z.number().min(-FILM_BOUNDS.total_m.max).max(FILM_BOUNDS.total_m.max),
    u_m: z.number().min(0).max(FILM_BOUNDS.total_m.max),
    note: text(200),
    /** Where it was done, as in the plan. */
    zone: z.enum(WORK_ZONES).default("panel"),
    /** How long it took, where it was started on its card. */
    duration_s: z.number().min(0).max(86400).nullable().default(null),
    /** Film at a mark before and after it, and at `more` marks on other places, as read; `removal_m` then weighs it with the forecast. */
    measured: z
      .object({ ...atMark, more: z.array(z.object(atMark)).max(4).default([]) })
      .nullable()
      .default(null),
    forecast_m: within(FILM_BOUNDS.removal_m).nullable().default(null),
    gloss60_GU: z.number().min(0).max(200).nullable().default(null),
    /** One pass more of the last step: marks of the step before were still there. It ticks nothing. */
    extra: z.boolean().default(false),
  }),
  /** A step's card was started; the step itself is written when it is done. */
  stepStart: z.object({ planId: z.string(), index: z.int().min(0) }),
  /** Handed over, with what spoke against it and what nobody had looked at. */
  handOver: z.object({
    note: text(400),
    against: z.array(z.enum(OUT_POINTS)).default([]),
    notLooked: z.array(z.enum(OUT_POINTS)).default([]),
  }),
  note: z.object({ text: text(1000).min(1, "Write something first") }),
  /** `whole`: with every version of what it aims at; else only that version, so that the one before counts again. */
  strike: z.object({ reason: text(200), whole: z.boolean().default(false) }),
} as const;

export type EntryKind = keyof typeof LEDGER_BODIES;
export const ENTRY_KINDS = Object.keys(LEDGER_BODIES) as [EntryKind, ...EntryKind[]];
export type BodyOf<K extends EntryKind> = z.infer<(typeof LEDGER_BODIES)[K]>;
/** A body before it is checked: whatever has a default may be left away. */
export type BodyInputOf<K extends EntryKind> = z.input<(typeof LEDGER_BODIES)[K]>;
/** A zone's step by its own name; the run's own work has no abrasive of the ladder. */
export type PlanStep = BodyOf<"plan">["steps"][number];
