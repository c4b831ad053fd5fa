import { standInTube } from "#server/devices/stand-in-photo";
import { serverContext } from "#server/running";
import { inWords } from "~/kit/form/in-words.server";
import type { Route } from "./+types/stand-in-tube.do";

/** The stand-in camera's picture of a tube in the panel, or with `?of=neighbour` in its neighbour. */
export async function loader({ request, params: { panelId } }: Route.LoaderArgs) {
  const of = new URL(request.url).searchParams.get("of") === "neighbour" ? "neighbour" : "own";
  return inWords(async () => {
    const { png, setup } = await standInTube(await serverContext(), panelId, of);
    return new Response(new Uint8Array(png), {
      headers: { "Content-Type": "image/png", "Cache-Control": "no-store", "X-Simulated": "1", "X-Setup": JSON.stringify(setup) },
    });
  });
}
