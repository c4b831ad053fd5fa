import { redirect } from "react-router";
import { importJob } from "#server/commands/job-bundles";
import { Refusal } from "#server/commands/refusal";
import { serverContext } from "#server/context";
import { readBundle } from "#server/interchange/job-bundle";
import type { Route } from "./+types/job-import";

const MOST_BYTES = 120_000_000;

/** Takes a job file in whole, or refuses it whole with where and why. */
export async function action({ request }: Route.ActionArgs) {
  const sent = (await request.formData()).get("file");
  if (!(sent instanceof File) || sent.size === 0) return { problem: { line: 1, column: null, reason: "The file is empty" } };
  if (sent.size > MOST_BYTES) return { problem: { line: 1, column: null, reason: "The file is over 120 MB" } };
  const read = readBundle(await sent.text());
  if (!read.ok) return { problem: read.problem };
  try {
    const { jobId } = await importJob(await serverContext(), read.value);
    return redirect(`/jobs/${jobId}`);
  } catch (error) {
    if (!(error instanceof Refusal)) throw error;
    return { problem: { line: 1, column: null, reason: error.message } };
  }
}
