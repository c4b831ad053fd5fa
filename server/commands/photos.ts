import { createHash } from "node:crypto";
import sharp from "sharp";
import type { ServerContext } from "../context";
import { type Photo, findPhotoByDigest, insertPhoto } from "../repos/photo-repo";
import { Refusal } from "./refusal";
import { run } from "./run";
import { jpegWithoutNotes } from "./without-notes";

/** Bounds of one photograph; a picture that takes longer than `seconds` to read is refused. */
export const PHOTO_LIMITS = { bytes: 40_000_000, pixels: 60_000_000, side_px: 2400, seconds: 20 } as const;

/** Kinds of picture that are read, by their first bytes: what a file calls itself is not believed, and nothing else is handed to a decoder. */
const MAGIC = [
  ["jpeg", (b: Uint8Array) => b[0] === 0xff && b[1] === 0xd8 && b[2] === 0xff],
  ["png", (b: Uint8Array) => latin(b, 0, 8) === "\x89PNG\r\n\x1a\n"],
  ["webp", (b: Uint8Array) => latin(b, 0, 4) === "RIFF" && latin(b, 8, 12) === "WEBP"],
] as const;
const latin = (b: Uint8Array, from: number, to: number) => Buffer.from(b.subarray(from, to)).toString("latin1");
type PictureKind = (typeof MAGIC)[number][0];
export const pictureKind = (bytes: Uint8Array): PictureKind | null => MAGIC.find(([, is]) => is(bytes))?.[0] ?? null;

interface SentPicture {
  name: string;
  bytes: Uint8Array;
}

/**
 * Keeps a photograph: for the screen turned upright and at most 2400 px a side, and beside it the original; both without the position and
 * other notes the camera wrote into it. The same file sent again is the photograph that is kept already.
 * @throws Refusal in words for a file that is no picture, empty, or too large.
 */
export async function keepPhoto(ctx: ServerContext, file: SentPicture): Promise<string> {
  requirePicture(file);
  const digest = createHash("sha256").update(file.bytes).digest("hex");
  const known = await findPhotoByDigest(ctx.db, digest);
  if (known) return known;
  const [image, original] = await Promise.all([
    uprightJpeg(file.bytes, { side_px: PHOTO_LIMITS.side_px, quality: 88 }),
    withoutNotes(file.bytes),
  ]).catch((error: unknown) => refusePicture(file.name, error));
  return run(ctx, null, async ({ db, now_ms }) => {
    const meanwhile = await findPhotoByDigest(db, digest);
    if (meanwhile) return meanwhile;
    const id = ctx.newId();
    await insertPhoto(db, {
      id,
      mime: "image/jpeg",
      bytes: new Uint8Array(image.data),
      width: image.info.width,
      height: image.info.height,
      name: file.name.slice(0, 120),
      original,
      digest,
      now_ms,
    });
    return id;
  });
}

/**
 * A picture of a job file as it may be kept: its kind told by its content, decoded once to see that it is one, and nothing but the picture in
 * it. A JPEG of our own comes out as it went in, so that a file goes from shop to shop without loss; any other kind becomes a JPEG.
 * @throws Refusal in words
 */
export async function takenInPicture(file: SentPicture): Promise<Pick<Photo, "mime" | "bytes" | "width" | "height">> {
  const kind = requirePicture(file);
  try {
    if (kind === "jpeg") {
      const { info } = await reader(file.bytes).raw().toBuffer({ resolveWithObject: true });
      const { bytes } = await withoutNotes(file.bytes);
      return { mime: "image/jpeg", bytes, width: info.width, height: info.height };
    }
    const { data, info } = await uprightJpeg(file.bytes, { side_px: PHOTO_LIMITS.side_px, quality: 88 });
    return { mime: "image/jpeg", bytes: new Uint8Array(data), width: info.width, height: info.height };
  } catch (error) {
    return refusePicture(file.name, error);
  }
}

/** An original of a job file, cut to what is promised. @throws Refusal in words */
export async function takenInOriginal(file: SentPicture): Promise<NonNullable<Photo["original"]>> {
  requirePicture(file);
  return withoutNotes(file.bytes).catch((error: unknown) => refusePicture(file.name, error));
}

/**
 * A picture with its pixels as they were and without notes: a JPEG is not encoded again, any other kind is packed as PNG, without loss.
 * @throws Error for bytes that are no whole picture
 */
export async function withoutNotes(bytes: Uint8Array): Promise<{ bytes: Uint8Array; mime: string }> {
  const { format, orientation } = await reader(bytes).metadata();
  if (format === "jpeg") return { bytes: jpegWithoutNotes(bytes, orientation ?? 1), mime: "image/jpeg" };
  return { bytes: new Uint8Array(await reader(bytes).rotate().png().toBuffer()), mime: "image/png" };
}

/** Longest side of a picture that is counted in: twelve megapixels at the usual shape. */
const LOOK_SIDE_PX = 4000;

/**
 * A picture as it is counted in: upright, at most 4000 px a side, without the camera's notes, before anything is stored.
 * @throws Refusal in words for a file that is no picture, empty, or too large
 */
export async function pictureToLookAt(file: SentPicture): Promise<Buffer> {
  requirePicture(file);
  const { data } = await uprightJpeg(file.bytes, { side_px: LOOK_SIDE_PX, quality: 95 }).catch((error: unknown) =>
    refusePicture(file.name, error),
  );
  return data;
}

/** What kind of picture a file is. @throws Refusal in words for one that is empty, too large, or of no kind that is read */
function requirePicture({ name, bytes }: SentPicture): PictureKind {
  if (bytes.length === 0) throw new Refusal("photos", `${name} is empty`);
  if (bytes.length > PHOTO_LIMITS.bytes) throw new Refusal("photos", `${name} is over 40 MB; send a smaller picture`);
  return pictureKind(bytes) ?? refusePicture(name, null);
}

function refusePicture(name: string, error: unknown): never {
  if (error instanceof Refusal) throw error;
  const said = error instanceof Error ? error.message : "";
  throw new Refusal(
    "photos",
    said.includes("pixel limit")
      ? `${name} has more than 60 megapixels; send a smaller picture`
      : said.includes("timeout")
        ? `${name} takes too long to read; send a smaller picture`
        : `${name} is not a picture that can be read (JPEG, PNG or WebP up to 60 megapixels)`,
  );
}

const reader = (bytes: Uint8Array) => sharp(bytes, { limitInputPixels: PHOTO_LIMITS.pixels }).timeout({ seconds: PHOTO_LIMITS.seconds });

/** A picture turned upright and fitted into a square, without the camera's notes. */
const uprightJpeg = (bytes: Uint8Array, { side_px, quality }: { side_px: number; quality: number }) =>
  reader(bytes)
    .rotate()
    .resize({ width: side_px, height: side_px, fit: "inside", withoutEnlargement: true })
    .jpeg({ quality })
    .toBuffer({ resolveWithObject: true });
