import { standInPhoto } from "#server/devices/stand-in-photo";
import { serverContext } from "#server/running";
import { inWords } from "~/kit/form/in-words.server";
import type { Route } from "./+types/stand-in-photo.do";

/** The stand-in camera's picture of a panel; its header says how wide the panel is that it sees. */
export async function loader({ params: { panelId } }: Route.LoaderArgs) {
  return inWords(async () => {
    const { png, width_m } = await standInPhoto(await serverContext(), panelId);
    return new Response(new Uint8Array(png), {
      headers: { "Content-Type": "image/png", "Cache-Control": "no-store", "X-Width-M": String(width_m), "X-Simulated": "1" },
    });
  });
}
