import fc from "fast-check";
import { sql } from "kysely";
import { panelShape } from "#core/kernel/geometry/shapes";
import { addPanel, archiveJob } from "#server/commands/jobs";
import { recordEntry } from "#server/commands/record-entry";
import { deleteJob, takeBackJob } from "#server/commands/remove-job";
import { run } from "#server/commands/run";
import { entriesServing, forgetKeptLedgers, insertEntries, readLedger } from "#server/repos/ledger-repo";
import { listPanels } from "#server/repos/panel-repo";
import { testContext, testJob } from "#server/testing/fixtures";

const by = "painter A";
type Act = "write" | "climate" | "beside" | "read" | "fail" | "fail and write" | "change file";

test("a ledger that is read on from what is known is the one in the file: after writes, writes that failed, rows put there by other hands, a job that was deleted and taken back", async () => {
  await fc.assert(
    fc.asyncProperty(
      fc.array(fc.constantFrom<Act>("write", "climate", "beside", "read", "fail", "fail and write", "change file"), { maxLength: 14 }),
      async (acts) => {
        const ctx = await testContext();
        const { jobId, panelId, revisionId } = await testJob(ctx);
        const shape = panelShape("door", { width_m: 1, height_m: 0.8 });
        const other = {
          name: "Door",
          shape,
          tilt_rad: 1.5,
          substrate: "refinish" as const,
          productRevisionId: revisionId,
          coatsPlanned: 2,
        };
        const besideId = await addPanel(ctx, jobId, other);
        const air = (of: string) =>
          recordEntry(ctx, {
            panelId: of,
            kind: "climate",
            body: { air_K: 290 + n++, part_K: null, relativeHumidity: 0.5, material_K: null },
            by,
          });
        let n = 0;
        const note = () => ({ text: `note ${n++}` });
        const write = () => recordEntry(ctx, { panelId, kind: "note", body: note(), by });
        const failing = () =>
          run(ctx, null, async ({ db, now_ms }) => {
            const entry = { panelId, kind: "note" as const, at_ms: now_ms, recordedAt_ms: now_ms, by, simulated: false, supersedes: null };
            await insertEntries(db, [{ ...entry, id: ctx.newId(), body: note() }]);
            await readLedger(db, panelId); // as a command does that looks at what it has written
            throw new Error("power cut");
          }).catch(() => undefined);
        for (const act of acts) {
          if (act === "write") await write();
          if (act === "climate") await air(panelId);
          if (act === "beside") await air(besideId);
          if (act === "read") await readLedger(ctx.db, panelId);
          if (act.startsWith("fail")) await failing();
          if (act === "fail and write") await write();
          if (act === "change file") {
            await archiveJob(ctx, jobId, true);
            await deleteJob(ctx, { jobId, by });
            // The same ids with other words: a file that somebody has edited.
            await ctx.db
              .updateTable("removed_job")
              .set({ bundle_json: sql`replace(bundle_json, 'note ', ${`word ${n} `})` })
              .execute();
            await takeBackJob(ctx, jobId);
          }
          const panels = await listPanels(ctx.db, jobId);
          const serving = async () => Promise.all(panels.map((p) => entriesServing(ctx.db, p)));
          const [known, served] = [await readLedger(ctx.db, panelId), await serving()];
          forgetKeptLedgers(ctx.db);
          const whole = await readLedger(ctx.db, panelId);
          expect({ entries: known.entries, unread: known.unread }).toEqual({ entries: whole.entries, unread: whole.unread });
          expect(served).toEqual(await serving());
          expect(
            served.map((entries) => entries.filter((e) => e.elsewhere).every((e) => e.kind === "climate" || e.kind === "strike")),
          ).not.toContain(false);
        }
        await ctx.db.destroy();
      },
    ),
    { numRuns: 40 },
  );
});

test("a statement prepared once goes on after it failed, after the schema changed, and while another reads", async () => {
  const { db } = await testContext();
  await sql`create table kept (id text primary key, n integer not null)`.execute(db);
  const put = (id: string, n: number) => sql`insert into kept (id, n) values (${id}, ${n})`.execute(db);
  const all = async () => (await sql<{ id: string }>`select * from kept order by id`.execute(db)).rows;
  await put("a", 1);
  await expect(put("a", 2)).rejects.toThrow(/UNIQUE/);
  await put("b", 3);
  expect(await all()).toEqual([
    { id: "a", n: 1 },
    { id: "b", n: 3 },
  ]);
  await sql`alter table kept add column more integer`.execute(db);
  expect((await all())[0]).toEqual({ id: "a", n: 1, more: null });
  const both = await Promise.all([all(), put("c", 4), all()]);
  expect(both.flatMap((rows) => (Array.isArray(rows) ? [rows.length] : []))).toEqual([2, 3]);
  await db.destroy();
});
