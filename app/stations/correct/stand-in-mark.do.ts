import { serverContext } from "#server/running";
import { readStandInMark } from "#server/devices/take-readings";
import { inWords } from "~/kit/form/in-words.server";
import type { Route } from "./+types/stand-in-mark.do";

/** What the stand-in gauge reads at the mark of the step in hand, `?when=before` or `after`. */
export async function loader({ request, params: { panelId } }: Route.LoaderArgs) {
  const when = new URL(request.url).searchParams.get("when") === "after" ? "after" : "before";
  return inWords(async () => Response.json({ ...(await readStandInMark(await serverContext(), panelId, when)), simulated: true }));
}
