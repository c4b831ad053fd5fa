import { z } from "zod";
import { BOOTH_PARTS_MOST } from "#core/models/schedule/booth-problem";
import type { Db, Tx } from "../db/open";
import { versionOf } from "./digest";

const ms = z.number().int();
/** What the painter decided of the day: the schedule itself is worked out from it and from the ledgers, never stored. */
export const boothPlanBody = z.object({
  start_ms: ms,
  parts: z
    .array(
      z.object({
        panelId: z.string(),
        sides: z.union([z.literal(1), z.literal(2)]),
        group: z.string().max(8).nullable(),
        spray_s: z.number().positive().max(86_400).nullable(),
      }),
    )
    .max(BOOTH_PARTS_MOST),
  rules: z.object({
    painters: z.int().min(1).max(8),
    places: z.int().min(1).max(60),
    mix_s: z.number().min(0).max(86_400),
    potsMost: z.int().min(0).max(99).nullable(),
    carryOut_s: z.number().min(0),
    end_ms: ms.nullable(),
  }),
  fixed: z.array(z.object({ panelId: z.string(), coat: z.int().min(1), start_ms: ms })).max(400),
  /** When the last coat was to be on, by the plan as it was set: a delay is told against it. */
  promisedEnd_ms: ms.nullable(),
});
export type BoothPlanBody = z.infer<typeof boothPlanBody>;

/** Of a plan what its form says: times fixed by hand and the promise are not in it. */
export type BoothRules = Omit<BoothPlanBody, "fixed" | "promisedEnd_ms">;
/** The version of what the form of a plan says; a coat fixed by hand is no other plan to it. */
export const rulesVersion = (body: BoothRules | null): string => versionOf(body && [body.start_ms, body.parts, body.rules]);

export async function getBoothPlan(db: Db): Promise<{ body: BoothPlanBody; version: number } | null> {
  const row = await db.selectFrom("booth_plan").selectAll().executeTakeFirst();
  return row ? { body: boothPlanBody.parse(JSON.parse(row.body_json)), version: row.version } : null;
}

/** Writes the plan where nobody else has changed it since `version` (0: none yet). @returns false when somebody has */
export async function putBoothPlan(db: Tx, body: BoothPlanBody, version: number, now_ms: number): Promise<boolean> {
  const row = { body_json: JSON.stringify(body), version: version + 1, updated_at_ms: now_ms };
  if (version === 0) {
    const { numInsertedOrUpdatedRows } = await db
      .insertInto("booth_plan")
      .values({ id: 1, ...row })
      .onConflict((c) => c.doNothing())
      .executeTakeFirst();
    return (numInsertedOrUpdatedRows ?? 0n) > 0n;
  }
  const { numUpdatedRows } = await db.updateTable("booth_plan").set(row).where("version", "=", version).executeTakeFirst();
  return numUpdatedRows > 0n;
}

/** Stores when the plan that stands was to end: no change of it, so whatever is sent upon its version still is. */
export async function setPromisedEnd(db: Tx, body: BoothPlanBody): Promise<void> {
  await db
    .updateTable("booth_plan")
    .set({ body_json: JSON.stringify(body) })
    .execute();
}
