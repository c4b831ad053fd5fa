import { standInPhoto } from "#server/devices/stand-in-photo";
import type { Route } from "./+types/stand-in-photo";

/** The stand-in camera's picture of a panel; its header says how wide the panel is that it sees. */
export async function loader({ params: { panelId } }: Route.LoaderArgs) {
  const { png, width_m } = await standInPhoto(panelId);
  return new Response(new Uint8Array(png), {
    headers: { "Content-Type": "image/png", "Cache-Control": "no-store", "X-Width-M": String(width_m), "X-Simulated": "1" },
  });
}
