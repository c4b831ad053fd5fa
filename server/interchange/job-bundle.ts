import { readFileSync } from "node:fs";
import { NO_BRIEF } from "#core/panel/job-brief";
import { jobBriefBody } from "#core/panel/job-brief-body";
import { SUBSTRATES, type Substrate } from "#core/panel/brief";
import { z } from "zod";
import { ENTRY_KINDS, LEDGER_BODIES } from "#core/record/bodies";
import { productSheet } from "#core/models/product/sheet-schema";
import { rowPlanBody } from "#core/models/spray/row-plan-body";
import { ONE_COLOUR, PART_COLOURS } from "#core/models/colour/job-colours";
import { jobColoursBody } from "#core/models/colour/job-colours-body";
import { SHAPE_KINDS } from "#core/kernel/geometry/shapes";
import { polygonArea } from "#core/kernel/geometry/geometry";
import { FINISH_KEYS } from "#core/models/ways/terms";
import { houseWayBody } from "#core/models/ways/way-body";
import { isOfAll } from "#core/models/ways/house-ways";
import { PHOTO_LIMITS } from "../commands/photos";
import { shopSettings } from "../repos/shop-repo";
import { beyondBounds } from "./json-bounds";
import type { Problem } from "./readings-csv";

export const BUNDLE_FORMAT = "yakamoz-job";
const VERSION = 1;
const MOST_CHARACTERS = 120_000_000;

/** An id as this program makes them: it goes into addresses and file names as it is. */
const id = z.string().regex(/^[A-Za-z0-9_-]{1,80}$/, "An id has letters, digits, - and _, at most 80");
/** Six metres of panel, with room; nothing here is larger. */
const coordinate = z.number().min(-10).max(10);
const point = z.tuple([coordinate, coordinate]);
/** From 1970 to the end of 2099. */
const ms = z.int().min(0).max(4_102_444_799_999, "A time lies before the year 2100");
const side = z.string().max(40);
const MOST_PHOTO_CHARACTERS = Math.ceil((PHOTO_LIMITS.bytes * 4) / 3) + 4;
/** Its characters are looked at when it is decoded: a pattern over a hundred million of them would hold the server up. */
const base64 = z.string().min(1).max(MOST_PHOTO_CHARACTERS);
/** What a shop has learnt, as its settings hold it. */
const learnt = shopSettings.shape.learntFilm;

const entry = z.object({
  id,
  kind: z.enum(ENTRY_KINDS, { error: "This kind of entry is not known here" }),
  body: z.unknown(),
  at_ms: ms,
  recordedAt_ms: ms,
  by: z.string().max(80),
  simulated: z.boolean(),
  supersedes: id.nullable(),
  /** Place in the order of writing among all entries of the job: what was logged on one panel may serve another. Older files have none. */
  order: z.int().min(0).optional(),
  /** Who entered it and on which device, by their ids in the shop that wrote the file; absent where nobody signed in. */
  who: z.object({ personId: id.nullable(), deviceId: id.nullable() }).optional(),
});

/** A job with everything its figures come from: panels with their ledgers, the sheets they were planned with, photographs, the shop's own settings. */
export const jobBundle = z.object({
  format: z.literal(BUNDLE_FORMAT),
  version: z.literal(VERSION),
  job: z.object({
    id,
    vehicle: z.string().max(120),
    colourName: z.string().max(120),
    colourCss: z.string().regex(/^#[0-9a-f]{6}$/i),
    finish: z.enum(FINISH_KEYS),
    wayId: id,
    /** The whole way, where it is a shop's own. */
    way: houseWayBody.optional(),
    brief: jobBriefBody.default(NO_BRIEF),
    colours: jobColoursBody.default(ONE_COLOUR),
    createdAt_ms: ms,
  }),
  /** What of the shop's settings the figures depend on. */
  shop: z.object({
    floor_m: shopSettings.shape.floor_m,
    readingsPerSpot: shopSettings.shape.readingsPerSpot,
    learntFilm: learnt,
    learntRuns: learnt,
    learntTexture: learnt,
    learntRemoval: learnt,
    learntSteps: shopSettings.shape.learntSteps,
    rates: shopSettings.shape.rates,
  }),
  products: z.array(z.object({ productId: id, revisionId: id, sheet: productSheet })).max(200),
  panels: z
    .array(
      z.object({
        id,
        name: z.string().min(1).max(80),
        shape: z.object({
          kind: z.enum([...SHAPE_KINDS, "own"]),
          outline: z.array(point).min(3).max(2000),
          bodyLines: z.array(z.array(point).max(500)).max(40),
          sides: z.tuple([side, side, side, side]),
        }),
        tilt_rad: z.number().min(0).max(Math.PI),
        substrate: z.enum(Object.keys(SUBSTRATES) as [Substrate, ...Substrate[]]),
        productRevisionId: id,
        coatsPlanned: z.int().min(1).max(20),
        sides: z.union([z.literal(1), z.literal(2)]).default(1),
        rows: rowPlanBody.optional(),
        place: z.string().max(80).optional(),
        colour: z.enum(PART_COLOURS).optional(),
        entries: z.array(entry).max(50_000),
      }),
    )
    .min(1)
    .max(200),
  photos: z
    .array(
      z.object({
        id,
        /** What the file says; what it is, is told by its content. */
        mime: z.string().max(60),
        width: z.int().min(1).max(100_000),
        height: z.int().min(1).max(100_000),
        name: z.string().max(120),
        base64,
        original: z
          .object({ mime: z.string().max(60), base64 })
          .nullable()
          .default(null),
      }),
    )
    .max(500),
});
export type JobBundle = z.infer<typeof jobBundle>;

const LEAST_AREA_M2 = 1e-4;
const firstTwice = (ids: readonly string[]): string | null => ids.find((one, i) => ids.indexOf(one) !== i) ?? null;

/** The bundle's JSON Schema (draft 2020-12). */
export const bundleSchema = () => z.toJSONSchema(jobBundle, { io: "input" });

/** So many entries at most are in one file, all its panels together. */
const MOST_ENTRIES = 100_000;
/** Lists of a bundle and how long each may be: counted before its schema is walked, which looks at every member of a list. */
const COUNTS = [
  ["photos", 500],
  ["panels", 200],
  ["products", 200],
] as const;

function tooMany(json: unknown): { reason: string; where: string } | null {
  if (typeof json !== "object" || json === null) return null;
  const lists = json as Record<string, unknown>;
  for (const [name, most] of COUNTS) {
    const list = lists[name];
    if (Array.isArray(list) && list.length > most)
      return { reason: `A file has at most ${most} ${name}, this one ${list.length}`, where: name };
  }
  const entriesOf = (panel: unknown): number => {
    const entries = typeof panel === "object" && panel !== null ? (panel as { entries?: unknown }).entries : null;
    return Array.isArray(entries) ? entries.length : 0;
  };
  const entries = Array.isArray(lists.panels) ? lists.panels.reduce((a: number, p) => a + entriesOf(p), 0) : 0;
  return entries > MOST_ENTRIES ? { reason: `A file has at most ${MOST_ENTRIES} entries, this one ${entries}`, where: "panels" } : null;
}

/** A list inside an entry's body is no longer than any body of ours has. */
const MOST_IN_A_BODY = 2000;
const tooLongInside = (body: unknown): boolean =>
  typeof body === "object" &&
  body !== null &&
  (Array.isArray(body) ? body.length > MOST_IN_A_BODY || body.some(tooLongInside) : Object.values(body).some(tooLongInside));

export type ReadBundle = { ok: true; value: JobBundle } | { ok: false; problem: Problem };
const refuse = (reason: string, where: string | null = null) => ({ ok: false as const, problem: { line: 1, column: where, reason } });

/** A job file on the disk: looked over before anything is made of it, then read. It takes long for a large one: in a thread of its own. */
export function readBundleFile(path: string): ReadBundle {
  const bytes = readFileSync(path);
  const beyond = beyondBounds(bytes);
  return beyond ? refuse(beyond) : readBundle(new TextDecoder().decode(bytes));
}

/** Reads a bundle whole; the first thing that is wrong refuses it, with where it stands. */
export function readBundle(text: string): ReadBundle {
  if (text.trim() === "") return refuse("The file is empty");
  if (text.length > MOST_CHARACTERS) return refuse("The file is larger than 120 million characters");
  let json: unknown;
  try {
    json = JSON.parse(text.replace(/^\uFEFF/, ""));
  } catch {
    return refuse("This is not JSON");
  }
  const many = tooMany(json);
  if (many) return refuse(many.reason, many.where);
  const parsed = jobBundle.safeParse(json);
  if (!parsed.success) {
    const [issue] = parsed.error.issues;
    return refuse(issue?.message ?? "Not understood", issue?.path.join(".") ?? null);
  }
  const bundle = parsed.data;
  if (!bundle.job.way && !isOfAll(bundle.job.wayId)) return refuse("This house way is not known here", "job.wayId");
  const sheets = new Set(bundle.products.map((p) => p.revisionId));
  const seen = new Set<string>();
  const twice = firstTwice(bundle.panels.map((p) => p.id)) ?? firstTwice(bundle.photos.map((p) => p.id));
  if (twice) return refuse(`${twice} is in the file twice`);
  if (firstTwice(bundle.products.map((p) => p.revisionId))) return refuse("A product's revision is in the file twice", "products");
  for (const [p, panel] of bundle.panels.entries()) {
    if (polygonArea(panel.shape.outline) < LEAST_AREA_M2) return refuse("The outline encloses no area", `panels.${p}.shape.outline`);
    if (!sheets.has(panel.productRevisionId)) return refuse("The panel's product is not in the file", `panels.${p}.productRevisionId`);
    for (const [i, e] of panel.entries.entries()) {
      const where = `panels.${p}.entries.${i}`;
      if (seen.has(e.id)) return refuse(`Entry ${e.id} is in the file twice`, where);
      seen.add(e.id);
      if (e.supersedes === e.id) return refuse("It corrects itself", where);
      if (tooLongInside(e.body)) return refuse(`A list in it has more than ${MOST_IN_A_BODY} members`, `${where}.body`);
      const body = LEDGER_BODIES[e.kind].safeParse(e.body);
      if (!body.success)
        return refuse(body.error.issues[0]?.message ?? "Not understood", `${where}.body.${body.error.issues[0]?.path.join(".") ?? ""}`);
      e.body = body.data;
      if (e.supersedes && !panel.entries.some((o) => o.id === e.supersedes))
        return refuse("It corrects an entry that is not in the file", where);
    }
  }
  return { ok: true, value: bundle };
}
