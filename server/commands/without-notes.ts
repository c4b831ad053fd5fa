const SOI = 0xd8;
const EOI = 0xd9;
const SOS = 0xda;
const COM = 0xfe;
const [APP0, APP1, APP2, APP14, APP15] = [0xe0, 0xe1, 0xe2, 0xee, 0xef];
const ICC = "ICC_PROFILE\0";

/** Segments that change how the pixels look: JFIF, the colour profile, Adobe's colour transform. Every other application segment is a note. */
function isNote(marker: number, body: Uint8Array): boolean {
  if (marker === COM) return true;
  if (marker < APP0 || marker > APP15 || marker === APP0 || marker === APP14) return false;
  return !(marker === APP2 && Buffer.from(body.subarray(0, ICC.length)).toString("latin1") === ICC);
}

/**
 * A JPEG with its pixels as they were (not encoded again), without what the camera wrote beside them: place, time, serial numbers, previews,
 * and everything behind the end of the picture (where phones keep a moving picture of the same moment). The way it was held is kept. Done by
 * hand instead of by an EXIF package, which would leave other notes where a place may stand too.
 * @param orientation EXIF orientation, 1 to 8
 * @throws Error for bytes that are no whole JPEG
 */
export function jpegWithoutNotes(bytes: Uint8Array, orientation: number): Uint8Array {
  if (bytes[0] !== 0xff || bytes[1] !== SOI) throw new Error("no JPEG");
  const kept: Uint8Array[] = [bytes.subarray(0, 2)];
  if (orientation > 1) kept.push(orientationOnly(orientation));
  let at = 2;
  for (;;) {
    while (bytes[at] === 0xff && bytes[at + 1] === 0xff) at++; // fill bytes
    if (at + 2 > bytes.length || bytes[at] !== 0xff) throw new Error("a JPEG segment is damaged");
    const marker = bytes[at + 1]!;
    if (marker === EOI) {
      kept.push(bytes.subarray(at, at + 2));
      return new Uint8Array(Buffer.concat(kept));
    }
    const end = at + 2 + (bytes[at + 2]! << 8) + bytes[at + 3]!;
    if (!(end >= at + 4 && end <= bytes.length)) throw new Error("a JPEG segment is damaged");
    const data = marker === SOS ? scanEnd(bytes, end) : end;
    if (!isNote(marker, bytes.subarray(at + 4, end))) kept.push(bytes.subarray(at, data));
    at = data;
  }
}

/** Where the entropy-coded bytes of a scan end: at the next marker that is no stuffing and no restart. */
function scanEnd(bytes: Uint8Array, from: number): number {
  for (let i = from; i + 1 < bytes.length; i++) {
    if (bytes[i] !== 0xff) continue;
    const next = bytes[i + 1]!;
    if (next !== 0 && next !== 0xff && !(next >= 0xd0 && next <= 0xd7)) return i;
  }
  throw new Error("the JPEG is cut off");
}

/** An EXIF segment (TIFF, big-endian) that says how the picture was held and nothing else. */
function orientationOnly(orientation: number): Uint8Array {
  const tiff = [0x4d, 0x4d, 0, 42, 0, 0, 0, 8, 0, 1, 0x01, 0x12, 0, 3, 0, 0, 0, 1, 0, orientation, 0, 0, 0, 0, 0, 0];
  const body = [...Buffer.from("Exif\0\0", "latin1"), ...tiff];
  return Uint8Array.from([0xff, APP1, 0, body.length + 2, ...body]);
}
