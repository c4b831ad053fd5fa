import sharp from "sharp";
import type { ServerContext } from "../context";
import { insertPhoto } from "../repos/photo-repo";
import { Refusal } from "./refusal";
import { withoutNotes } from "./without-notes";

/** Bounds of one photograph. */
export const PHOTO_LIMITS = { bytes: 40_000_000, pixels: 60_000_000, side_px: 2400 } as const;

/**
 * Keeps a photograph: for the screen turned upright and at most 2400 px a side, and beside it the original; both without the position and
 * other notes the camera wrote into it.
 * @throws Refusal in words for a file that is no picture, empty, or too large.
 */
export async function keepPhoto(ctx: ServerContext, file: { name: string; bytes: Uint8Array }): Promise<string> {
  if (file.bytes.length === 0) throw new Refusal("photos", `${file.name} is empty`);
  if (file.bytes.length > PHOTO_LIMITS.bytes) throw new Refusal("photos", `${file.name} is over 40 MB; send a smaller picture`);
  const [image, original] = await Promise.all([
    uprightJpeg(file.bytes, { side_px: PHOTO_LIMITS.side_px, quality: 88 }),
    withoutNotes(file.bytes, PHOTO_LIMITS.pixels),
  ]).catch(() => {
    throw new Refusal("photos", `${file.name} is not a picture that can be read (JPEG, PNG or WebP up to 60 megapixels)`);
  });
  const id = ctx.newId();
  await insertPhoto(ctx.db, {
    id,
    mime: "image/jpeg",
    bytes: new Uint8Array(image.data),
    width: image.info.width,
    height: image.info.height,
    name: file.name.slice(0, 120),
    original,
    now_ms: ctx.now_ms(),
  });
  return id;
}

/** Longest side of a picture that is counted in: twelve megapixels at the usual shape. */
const LOOK_SIDE_PX = 4000;

/**
 * A picture as it is counted in: upright, at most 4000 px a side, without the camera's notes, before anything is stored.
 * @throws Refusal in words for a file that is no picture, empty, or too large
 */
export async function pictureToLookAt(file: { name: string; bytes: Uint8Array }): Promise<Buffer> {
  if (file.bytes.length === 0) throw new Refusal("photos", `${file.name} is empty`);
  if (file.bytes.length > PHOTO_LIMITS.bytes) throw new Refusal("photos", `${file.name} is over 40 MB; send a smaller picture`);
  const { data } = await uprightJpeg(file.bytes, { side_px: LOOK_SIDE_PX, quality: 95 }).catch((error: unknown) => {
    throw new Refusal(
      "photos",
      error instanceof Error && error.message.includes("pixel limit")
        ? `${file.name} has more than 60 megapixels; send a smaller picture`
        : `${file.name} is not a picture that can be read (JPEG, PNG or WebP)`,
    );
  });
  return data;
}

/** A picture turned upright and fitted into a square, without the camera's notes. */
const uprightJpeg = (bytes: Uint8Array, { side_px, quality }: { side_px: number; quality: number }) =>
  sharp(bytes, { limitInputPixels: PHOTO_LIMITS.pixels })
    .rotate()
    .resize({ width: side_px, height: side_px, fit: "inside", withoutEnlargement: true })
    .jpeg({ quality })
    .toBuffer({ resolveWithObject: true });
