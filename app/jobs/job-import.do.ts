import { acting } from "~/kit/form/in-words.server";
import { redirect } from "react-router";
import { importJob } from "#server/commands/job-bundles";
import { Refusal } from "#server/commands/refusal";
import { serverContext } from "#server/running";
import { JOB_FILE_BYTES } from "#server/http/body-limits";
import { readBundle } from "#server/interchange/job-bundle";
import { formOf } from "~/kit/http/body.server";
import { guardedAction } from "~/kit/form/guarded-action";
import type { Route } from "./+types/job-import.do";

/** Takes a job file in whole, or refuses it whole with where and why. */
export const action = acting(async ({ request }: Route.ActionArgs) => {
  const sent = (await formOf(request)).get("file");
  if (!(sent instanceof File) || sent.size === 0) return { problem: { line: 1, column: null, reason: "The file is empty" } };
  if (sent.size > JOB_FILE_BYTES) return { problem: { line: 1, column: null, reason: "The file is over 120 MB" } };
  const read = readBundle(await sent.text());
  if (!read.ok) return { problem: read.problem };
  const there = redirect(`/jobs/${encodeURIComponent(read.value.job.id)}`);
  try {
    await importJob(await serverContext(), read.value);
    return there;
  } catch (error) {
    if (!(error instanceof Refusal)) throw error;
    return { problem: { line: 1, column: error.field, reason: error.message } };
  }
});

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => guardedAction(serverAction);
