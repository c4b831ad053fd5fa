import { serverContext } from "#server/running";
import { loadStands } from "#server/views/stands-view";
import { readPrefs } from "~/kit/http/prefs.server";
import { entryLine } from "~/kit/words/entry-words";
import type { Route } from "./+types/stands.do";

/** What stands in an entry's place now, in words: beside what somebody else wanted to make of it. Null where its panel is not there any more. */
export async function loader({ request, params: { entryId } }: Route.LoaderArgs) {
  const stands = await loadStands(await serverContext(), entryId);
  if (!stands) return { stands: null };
  const { entry, shape, takenOut, by, at_ms, ledger } = stands;
  const { units } = await readPrefs(request);
  return { stands: { words: `${entryLine(entry, shape, units)}${takenOut ? ", taken out" : ""}`, by, at_ms, ledger } };
}
