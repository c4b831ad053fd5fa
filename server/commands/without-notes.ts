import sharp from "sharp";

const SOI = 0xd8;
const SOS = 0xda;
const [APP1, APP13, COM] = [0xe1, 0xed, 0xfe];

/**
 * An original photograph with its pixels as they were, without what the camera wrote beside them (place, time, serial numbers). A JPEG is not
 * encoded again: its note segments are left out and the way it was held is kept. PNG is packed again without loss; any other kind becomes a
 * PNG. Kept by hand instead of an EXIF package, which would leave XMP and IPTC notes, where a place may stand too.
 * @throws Error for bytes that are no picture
 */
export async function withoutNotes(bytes: Uint8Array, limitInputPixels: number): Promise<{ bytes: Uint8Array; mime: string }> {
  const { format, orientation } = await sharp(bytes, { limitInputPixels }).metadata();
  if (format === "jpeg") return { bytes: jpegWithoutNotes(bytes, orientation ?? 1), mime: "image/jpeg" };
  const png = await sharp(bytes, { limitInputPixels }).rotate().png().toBuffer();
  return { bytes: new Uint8Array(png), mime: "image/png" };
}

function jpegWithoutNotes(bytes: Uint8Array, orientation: number): Uint8Array {
  if (bytes[0] !== 0xff || bytes[1] !== SOI) throw new Error("no JPEG");
  const kept: Uint8Array[] = [bytes.subarray(0, 2)];
  if (orientation > 1) kept.push(orientationOnly(orientation));
  let at = 2;
  while (at + 4 <= bytes.length) {
    if (bytes[at] !== 0xff) throw new Error("a JPEG segment is damaged");
    const marker = bytes[at + 1]!;
    if (marker === SOS) break;
    const end = at + 2 + (bytes[at + 2]! << 8) + bytes[at + 3]!;
    if (marker !== APP1 && marker !== APP13 && marker !== COM) kept.push(bytes.subarray(at, end));
    at = end;
  }
  kept.push(bytes.subarray(at));
  return new Uint8Array(Buffer.concat(kept));
}

/** An EXIF segment (TIFF, big-endian) that says how the picture was held and nothing else. */
function orientationOnly(orientation: number): Uint8Array {
  const tiff = [0x4d, 0x4d, 0, 42, 0, 0, 0, 8, 0, 1, 0x01, 0x12, 0, 3, 0, 0, 0, 1, 0, orientation, 0, 0, 0, 0, 0, 0];
  const body = [...Buffer.from("Exif\0\0", "latin1"), ...tiff];
  return Uint8Array.from([0xff, APP1, 0, body.length + 2, ...body]);
}
