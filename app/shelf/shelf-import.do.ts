import { acting } from "~/kit/form/in-words.server";
import { importShelf } from "#server/commands/import-shelf";
import { Refusal } from "#server/commands/refusal";
import { SHELF_FILE_BYTES } from "#server/http/body-limits";
import { serverContext } from "#server/running";
import { withSentFile } from "~/kit/http/body.server";
import { guardedAction } from "~/kit/form/guarded-action";
import type { Route } from "./+types/shelf-import.do";

/** Reads a shelf file whole, or refuses it whole with row and reason. */
export const action = acting(async ({ request }: Route.ActionArgs) => {
  const refuse = (reason: string) => ({ ok: false as const, problems: [{ line: 1, column: null as string | null, reason }], more: 0 });
  const ctx = await serverContext();
  const read = await withSentFile(request, async (path) =>
    path === null ? null : ctx.inFileThread("readShelfFile", { path, most: SHELF_FILE_BYTES }),
  );
  if (!read) return refuse("No file was sent, or it is empty");
  let outcome: Awaited<ReturnType<typeof importShelf>>;
  try {
    outcome = await importShelf(ctx, read);
  } catch (error) {
    if (error instanceof Refusal) return refuse(error.message);
    throw error;
  }
  if (!outcome.ok) return { ok: false as const, problems: outcome.problems, more: outcome.problemCount - outcome.problems.length };
  const { added, revised, same } = outcome.value;
  return { ok: true as const, message: `${added} new, ${revised} with a new revision, ${same} unchanged.` };
});

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => guardedAction(serverAction);
