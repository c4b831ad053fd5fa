import { serverContext } from "#server/context";
import { readStandInMark } from "#server/devices/take-readings";
import type { Route } from "./+types/stand-in-mark";

/** What the stand-in gauge reads at the mark of the step in hand, `?when=before` or `after`. */
export async function loader({ request, params: { panelId } }: Route.LoaderArgs) {
  const when = new URL(request.url).searchParams.get("when") === "after" ? "after" : "before";
  return Response.json({ ...(await readStandInMark(await serverContext(), panelId, when)), simulated: true });
}
