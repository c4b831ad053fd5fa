import { requireRight } from "../access/actor";
import type { ServerContext } from "../context";
import { type JobBundle, readBundle } from "../interchange/job-bundle";
import { getJob } from "../repos/job-repo";
import { readLedger } from "../repos/ledger-repo";
import { listPanels } from "../repos/panel-repo";
import { forgetRemovedJob, removeJob, removedJobFile } from "../repos/removed-job-repo";
import { forgetRemovedPanelsOf } from "../repos/removed-panel-repo";
import { exportJob, importJob } from "./job-bundles";
import { Refusal } from "./refusal";
import { run } from "./run";

/**
 * Deletes a job that is put away: its job file is kept and can be taken back in; all its rows go, in one transaction.
 * @throws Refusal while the job is on the floor, changed meanwhile, or holds entries that this version cannot read and its file would not carry
 */
export async function deleteJob(ctx: ServerContext, { jobId, by }: { jobId: string; by: string }): Promise<void> {
  requireRight(ctx, "delete");
  const bundle = await exportJob(ctx, jobId);
  if (!bundle) throw new Refusal(null, "This job is not in the file.", 404);
  await run(ctx, null, async ({ db, now_ms, tell }) => {
    const job = await getJob(db, jobId);
    if (!job) throw new Refusal(null, "This job is not in the file.", 404);
    if (job.archivedAt_ms === null) throw new Refusal(null, "Put the job away first; a job on the floor is not deleted.", 409);
    const ledgers = await Promise.all((await listPanels(db, jobId)).map((p) => readLedger(db, p.id)));
    if (ledgers.some((l) => l.unread.length > 0))
      throw new Refusal(null, "This job holds entries of another version, which its file would lose. It was not deleted.", 409);
    const seen = ledgers.map((l) => l.entries.length).join();
    if (seen !== bundle.panels.map((p) => p.entries.length).join())
      throw new Refusal(null, "Something was logged on this job just now. It was not deleted; look again.", 409);
    await removeJob(db, {
      jobId,
      vehicle: job.vehicle,
      removedAt_ms: now_ms,
      by,
      file: JSON.stringify(bundle),
    });
    tell({ topic: "job", id: jobId });
  });
}

/** The job file that a deleted job or a removed panel left. @throws Refusal where it cannot be read */
export function keptBundle(file: string): JobBundle {
  const read = readBundle(file);
  if (!read.ok) throw new Refusal(read.problem.column, `Its file cannot be read: ${read.problem.reason}`, 422);
  return read.value;
}

/** Takes a deleted job back in from the file that it left. @throws Refusal when there is none */
export async function takeBackJob(ctx: ServerContext, jobId: string): Promise<void> {
  requireRight(ctx, "delete");
  const file = await removedJobFile(ctx.db, jobId);
  if (file === null) throw new Refusal(null, "No file is kept of this job.", 404);
  await importJob(ctx, keptBundle(file));
}

/** Lets the file of a deleted job go: after that nothing of the job is left here. @throws Refusal when there is none */
export async function forgetJob(ctx: ServerContext, jobId: string): Promise<void> {
  requireRight(ctx, "delete");
  await run(ctx, null, async ({ db, tell }) => {
    if (!(await forgetRemovedJob(db, jobId))) throw new Refusal(null, "No file is kept of this job.", 404);
    await forgetRemovedPanelsOf(db, jobId);
    tell({ topic: "job", id: jobId });
  });
}
