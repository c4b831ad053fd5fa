import fc from "fast-check";
import { sql } from "kysely";
import { archiveJob } from "#server/commands/jobs";
import { recordEntry } from "#server/commands/record-entry";
import { deleteJob, takeBackJob } from "#server/commands/remove-job";
import { run } from "#server/commands/run";
import { forgetKeptLedgers, insertEntries, readLedger } from "#server/repos/ledger-repo";
import { testContext, testJob } from "#server/testing/fixtures";

const by = "painter A";
type Act = "write" | "read" | "fail" | "fail and write" | "change file";

test("a ledger that is read on from what is known is the one in the file: after writes, writes that failed, rows put there by other hands, a job that was deleted and taken back", async () => {
  await fc.assert(
    fc.asyncProperty(
      fc.array(fc.constantFrom<Act>("write", "read", "fail", "fail and write", "change file"), { maxLength: 14 }),
      async (acts) => {
        const ctx = await testContext();
        const { jobId, panelId } = await testJob(ctx);
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
          const known = await readLedger(ctx.db, panelId);
          forgetKeptLedgers(ctx.db);
          const whole = await readLedger(ctx.db, panelId);
          expect({ entries: known.entries, unread: known.unread }).toEqual({ entries: whole.entries, unread: whole.unread });
        }
        await ctx.db.destroy();
      },
    ),
    { numRuns: 40 },
  );
});
