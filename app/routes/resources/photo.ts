import { data } from "react-router";
import { serverContext } from "#server/context";
import { getPhoto } from "#server/repos/photo-repo";
import type { Route } from "./+types/photo";

/** A photograph's bytes; it never changes. */
export async function loader({ params: { photoId } }: Route.LoaderArgs) {
  const photo = await getPhoto((await serverContext()).db, photoId);
  if (!photo) throw data("This photograph is not in the file.", { status: 404 });
  return new Response(new Uint8Array(photo.bytes), {
    headers: { "Content-Type": photo.mime, "Cache-Control": "private, max-age=31536000, immutable" },
  });
}
