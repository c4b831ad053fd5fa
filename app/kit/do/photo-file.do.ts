import { data } from "react-router";
import { serverContext } from "#server/running";
import { getPhoto } from "#server/repos/photo-repo";
import type { Route } from "./+types/photo-file.do";

const PICTURES = ["image/jpeg", "image/png", "image/webp"] as const;

/** A photograph's bytes, with `?original` as it came; it never changes. */
export async function loader({ request, params: { photoId } }: Route.LoaderArgs) {
  const photo = await getPhoto((await serverContext()).db, photoId);
  if (!photo) throw data("This photograph is not in the file.", { status: 404 });
  const shown = new URL(request.url).searchParams.has("original") ? (photo.original ?? photo) : photo;
  return new Response(new Uint8Array(shown.bytes), {
    headers: {
      "Content-Type": PICTURES.find((m) => m === shown.mime) ?? "application/octet-stream",
      "Cache-Control": "private, max-age=31536000, immutable",
      // Whatever a file of earlier versions holds, it is a picture or nothing: no script runs of it.
      "Content-Security-Policy": "sandbox; default-src 'none'",
    },
  });
}
