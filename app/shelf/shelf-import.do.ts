import { acting } from "~/kit/form/in-words.server";
import { importShelf } from "#server/commands/import-shelf";
import { Refusal } from "#server/commands/refusal";
import { SHELF_FILE_BYTES } from "#server/http/body-limits";
import { serverContext } from "#server/running";
import { formOf } from "~/kit/http/body.server";
import { guardedAction } from "~/kit/form/guarded-action";
import type { Route } from "./+types/shelf-import.do";

/** Reads a shelf file whole, or refuses it whole with row and reason. */
export const action = acting(async ({ request }: Route.ActionArgs) => {
  const sent = (await formOf(request)).get("file");
  const refuse = (reason: string) => ({ ok: false as const, problems: [{ line: 1, column: null as string | null, reason }], more: 0 });
  if (!(sent instanceof File)) return refuse("No file was sent");
  if (sent.size > SHELF_FILE_BYTES) return refuse("The file is over 4 MB");
  const ctx = await serverContext();
  const text = await sent.text();
  let outcome: Awaited<ReturnType<typeof importShelf>>;
  try {
    outcome = await importShelf(ctx, text);
  } catch (error) {
    if (error instanceof Refusal) return refuse(error.message);
    throw error;
  }
  if (!outcome.ok) return { ok: false as const, problems: outcome.problems, more: outcome.problemCount - outcome.problems.length };
  const { added, revised, same } = outcome.value;
  return { ok: true as const, message: `${added} new, ${revised} with a new revision, ${same} unchanged.` };
});

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => guardedAction(serverAction);
