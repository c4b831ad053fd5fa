import fc from "fast-check";
import { sql } from "kysely";
import { AT_THE_MACHINE } from "../access/actor";
import { saveCard } from "../commands/cards";
import { changeShop } from "../commands/house";
import { archiveJob, stopClock } from "../commands/jobs";
import { setUpOwner } from "../commands/people";
import { recordEntry, strikeEntry } from "../commands/record-entry";
import { deleteJob, takeBackJob } from "../commands/remove-job";
import { addContainer } from "../commands/shelf";
import type { ServerContext } from "../context";
import { cardBody, coatBody, readingBody, testContext, testJob } from "../testing/fixtures";
import { REPLICATED } from "./rows-repo";
import { rowsForDevice } from "../views/rows-view";

const by = "painter A";
type Kept = Map<string, string>;

/** A device that follows: what it keeps, as a text for each row. */
async function follow(ctx: ServerContext, was: { epoch: string | null; seq: number | null; kept: Kept }) {
  const { epoch, seq, whole, rows } = await rowsForDevice(ctx, { epoch: was.epoch, since: was.seq });
  const kept: Kept = new Map(whole ? [] : [...was.kept]);
  for (const { table, key, row } of rows)
    if (row) kept.set(`${table} ${key}`, JSON.stringify(row));
    else kept.delete(`${table} ${key}`);
  return { epoch, seq, kept };
}
const NOTHING = { epoch: null, seq: null, kept: new Map<string, string>() };
const sorted = (kept: Kept) => [...kept].sort(([a], [b]) => (a < b ? -1 : 1));

test("whatever is done in a shop, in any order: a device that follows now and then keeps what one keeps that asks for all", async () => {
  await fc.assert(
    fc.asyncProperty(fc.array(fc.tuple(fc.nat(11), fc.nat(), fc.boolean()), { minLength: 4, maxLength: 22 }), async (steps) => {
      const ctx = await testContext();
      const jobs = [await testJob(ctx), await testJob(ctx)];
      const entries: string[] = [];
      const removed = new Set<string>();
      let device = await follow(ctx, NOTHING);
      for (const [what, which, looks] of steps) {
        const job = jobs[which % jobs.length]!;
        const { panelId, jobId } = job;
        ctx.advance(60_000);
        const here = !removed.has(jobId);
        const does: (() => Promise<unknown>)[] = [
          async () => here && entries.push(await recordEntry(ctx, { panelId, kind: "coat", body: coatBody(1), by })),
          async () =>
            here &&
            entries.push(await recordEntry(ctx, { panelId, kind: "reading", body: readingBody("before", "1", 90 + (which % 9)), by })),
          async () => here && entries.length > 0 && (await strikeEntry(ctx, entries[which % entries.length]!, { by, reason: "" })),
          async () => here && (await archiveJob(ctx, jobId, which % 2 === 0)),
          async () => here && (await deleteJob(ctx, { jobId, by }), removed.add(jobId)),
          async () => !here && (await takeBackJob(ctx, jobId), removed.delete(jobId)),
          async () => void jobs.push(await testJob(ctx)),
          () => changeShop(ctx, (now) => ({ ...now, name: `Shop ${which}` })),
          () => saveCard(ctx, { body: cardBody, by, clientKey: null }),
          () =>
            addContainer(ctx, {
              productId: job.productId,
              batch: String(which),
              size_m3: 1e-3,
              left_m3: 1e-3,
              opened_ms: null,
              keeping: "shelf",
            }),
          async () => {
            const clock = await ctx.db.selectFrom("clock").select("id").where("stopped_ms", "is", null).executeTakeFirst();
            if (clock) await stopClock(ctx, clock.id, true);
          },
          () => setUpOwner(ctx, { name: "Owner", passcode: "harbour-9-clear" }),
        ];
        await does[what]!().catch(() => {}); // what a command refuses changes nothing
        if (looks) device = await follow(ctx, device);
      }
      device = await follow(ctx, device);
      expect(sorted(device.kept)).toEqual(sorted((await follow(ctx, NOTHING)).kept));
      // Of jobs that are put away or taken out nothing is kept, and no secret ever.
      const open = await ctx.db.selectFrom("job").select("id").where("archived_at_ms", "is", null).execute();
      expect([...device.kept.keys()].filter((k) => k.startsWith("job "))).toHaveLength(open.length);
      expect([...device.kept.values()].join()).not.toContain("$argon2");
      await ctx.db.destroy();
    }),
    { numRuns: 12 },
  );
});

test("what work costs is not on the device of somebody who may not see it; when somebody else signs in there it begins anew", async () => {
  const ctx = await testContext();
  await changeShop(ctx, (now) => ({ ...now, rates: { ...now.rates, labourPerHour: 4321 } }));
  const asApprentice = { ...ctx, actor: { ...AT_THE_MACHINE, role: "apprentice" as const } };
  const apprentice = await follow(asApprentice, NOTHING);
  expect([...apprentice.kept.values()].join()).not.toContain("4321");
  const painter = await rowsForDevice(
    { ...ctx, actor: { ...AT_THE_MACHINE, role: "painter" } },
    { epoch: apprentice.epoch, since: apprentice.seq },
  );
  expect(painter.whole).toBe(true);
  expect(JSON.stringify(painter.rows)).toContain("4321");
  // A number of changes that this file has never come to says nothing.
  expect((await rowsForDevice(ctx, { epoch: painter.epoch, since: 1e9 })).whole).toBe(true);
  await ctx.db.destroy();
});

/** What stays with the server, and why. */
const NOT_FOR_DEVICES = {
  device: "who may come in is decided there",
  device_person: "the same",
  removed_job: "taken back only there",
  removed_panel: "the same",
  sent_form: "what was asked for, by its key",
  row_change: "the list of changes itself",
};

test("every table is either for devices, with each of its changes written down, or said to be not, and why", async () => {
  const ctx = await testContext();
  const { rows } = await sql<{ type: string; name: string; tbl_name: string; sql: string | null }>`select * from sqlite_master`.execute(
    ctx.db,
  );
  const tables = rows.filter((r) => r.type === "table" && !/^(sqlite_|kysely_)/.test(r.name)).map((r) => r.name);
  expect(tables.filter((t) => t in NOT_FOR_DEVICES === (REPLICATED as readonly string[]).includes(t))).toEqual([]);
  expect(Object.keys(NOT_FOR_DEVICES).filter((t) => !tables.includes(t))).toEqual([]);
  const writes = (t: string) =>
    rows.flatMap((r) =>
      r.type === "trigger" && r.tbl_name === t && r.sql?.includes("row_change")
        ? r.sql.match(/after (insert|update|delete)/i)![1]!.toLowerCase()
        : [],
    );
  for (const table of REPLICATED) expect([table, writes(table).sort()]).toEqual([table, ["delete", "insert", "update"]]);
});
