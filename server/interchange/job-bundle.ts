import { z } from "zod";
import { ENTRY_KINDS, LEDGER_BODIES } from "#core/ledger/bodies";
import { productSheet } from "#core/product/sheet";
import { SHAPE_KINDS } from "#core/panel/shapes";
import { SUBSTRATES, type Substrate } from "#core/ledger/derive-panel";
import { FINISH_KEYS } from "#core/ways/house-ways";
import type { Problem } from "./readings-csv";

export const BUNDLE_FORMAT = "yakamoz-job";
const VERSION = 1;
const MOST_CHARACTERS = 120_000_000;

const id = z.string().min(1).max(80);
const point = z.tuple([z.number(), z.number()]);
const ms = z.int().min(0);

const entry = z.object({
  id,
  kind: z.enum(ENTRY_KINDS),
  body: z.unknown(),
  at_ms: ms,
  recordedAt_ms: ms,
  by: z.string().max(80),
  simulated: z.boolean(),
  supersedes: id.nullable(),
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
    wayId: z.string().max(60),
    createdAt_ms: ms,
  }),
  /** What of the shop's settings the figures depend on. */
  shop: z.object({
    floor_m: z.number().positive(),
    readingsPerSpot: z.int().min(1).max(5),
    learntFilm: z.unknown(),
    learntRuns: z.unknown(),
    learntTexture: z.unknown(),
    learntRemoval: z.unknown(),
    learntSteps: z.unknown().optional(),
    rates: z.object({ labourPerHour: z.number().min(0), rejected: z.number().min(0) }),
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
          bodyLines: z.array(z.array(point)).max(40),
          sides: z.tuple([z.string(), z.string(), z.string(), z.string()]),
        }),
        tilt_rad: z.number().min(0).max(Math.PI),
        substrate: z.enum(Object.keys(SUBSTRATES) as [Substrate, ...Substrate[]]),
        productRevisionId: id,
        coatsPlanned: z.int().min(1).max(20),
        entries: z.array(entry).max(50_000),
      }),
    )
    .min(1)
    .max(200),
  photos: z
    .array(
      z.object({
        id,
        mime: z.string(),
        width: z.int(),
        height: z.int(),
        name: z.string(),
        base64: z.base64(),
        original: z.object({ mime: z.string(), base64: z.base64() }).nullable().default(null),
      }),
    )
    .max(500),
});
export type JobBundle = z.infer<typeof jobBundle>;

/** The bundle's JSON Schema (draft 2020-12). */
export const bundleSchema = () => z.toJSONSchema(jobBundle, { io: "input" });

/** Reads a bundle whole; the first thing that is wrong refuses it, with where it stands. */
export function readBundle(text: string): { ok: true; value: JobBundle } | { ok: false; problem: Problem } {
  const refuse = (reason: string, where: string | null = null) => ({ ok: false as const, problem: { line: 1, column: where, reason } });
  if (text.trim() === "") return refuse("The file is empty");
  if (text.length > MOST_CHARACTERS) return refuse("The file is larger than 120 million characters");
  let json: unknown;
  try {
    json = JSON.parse(text.replace(/^\uFEFF/, ""));
  } catch {
    return refuse("This is not JSON");
  }
  const parsed = jobBundle.safeParse(json);
  if (!parsed.success) {
    const [issue] = parsed.error.issues;
    return refuse(issue?.message ?? "Not understood", issue?.path.join(".") ?? null);
  }
  const bundle = parsed.data;
  const sheets = new Set(bundle.products.map((p) => p.revisionId));
  const seen = new Set<string>();
  for (const [p, panel] of bundle.panels.entries()) {
    if (!sheets.has(panel.productRevisionId)) return refuse("The panel's product is not in the file", `panels.${p}.productRevisionId`);
    for (const [i, e] of panel.entries.entries()) {
      const where = `panels.${p}.entries.${i}`;
      if (seen.has(e.id)) return refuse(`Entry ${e.id} is in the file twice`, where);
      seen.add(e.id);
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
