import { importShelf } from "#server/commands/import-shelf";
import { serverContext } from "#server/context";
import type { Route } from "./+types/shelf-import";

const MOST_BYTES = 4_000_000;

/** Reads a shelf file whole, or refuses it whole with row and reason. */
export async function action({ request }: Route.ActionArgs) {
  const sent = (await request.formData()).get("file");
  const refuse = (reason: string) => ({ ok: false as const, problems: [{ line: 1, column: null as string | null, reason }], more: 0 });
  if (!(sent instanceof File)) return refuse("No file was sent");
  if (sent.size > MOST_BYTES) return refuse("The file is over 4 MB");
  const outcome = await importShelf(await serverContext(), await sent.text());
  if (!outcome.ok) return { ok: false as const, problems: outcome.problems, more: outcome.problemCount - outcome.problems.length };
  const { added, revised, same } = outcome.value;
  return { ok: true as const, message: `${added} new, ${revised} with a new revision, ${same} unchanged.` };
}
