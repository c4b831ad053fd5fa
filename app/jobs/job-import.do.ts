import { acting } from "~/kit/form/in-words.server";
import { redirect } from "react-router";
import { importJob } from "#server/commands/job-bundles";
import { Refusal } from "#server/commands/refusal";
import { serverContext } from "#server/running";
import { withSentFile } from "~/kit/http/body.server";
import { guardedAction } from "~/kit/form/guarded-action";
import type { Route } from "./+types/job-import.do";

/** Takes a job file in whole, or refuses it whole with where and why. */
export const action = acting(async ({ request }: Route.ActionArgs) => {
  const ctx = await serverContext();
  const read = await withSentFile(request, async (path) => (path === null ? null : ctx.inFileThread("readBundleFile", path)));
  if (!read) return { problem: { line: 1, column: null, reason: "The file is empty" } };
  if (!read.ok) return { problem: read.problem };
  try {
    await importJob(ctx, read.value);
    return redirect(`/jobs/${encodeURIComponent(read.value.job.id)}`);
  } catch (error) {
    if (!(error instanceof Refusal)) throw error;
    return { problem: { line: 1, column: error.field, reason: error.message } };
  }
});

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => guardedAction(serverAction);
