import fc from "fast-check";
import sharp from "sharp";
import { keepPhoto, pictureKind, pictureToLookAt, takenInOriginal, takenInPicture, withoutNotes } from "#server/commands/photos";
import { getPhoto } from "#server/repos/photo-repo";
import { testContext } from "#server/testing/fixtures";

const pixels = (b: Uint8Array) => sharp(b).raw().toBuffer();
const jpeg = (options: sharp.JpegOptions = {}) => {
  const noise = Uint8Array.from({ length: 64 * 48 * 3 }, (_, i) => (i * 37 + (i >> 5)) % 251);
  return sharp(noise, { raw: { width: 64, height: 48, channels: 3 } })
    .withMetadata({ icc: "srgb", exif: { IFD3: { GPSLatitude: "52/1 30/1 0/1" } } })
    .jpeg({ quality: 90, ...options })
    .toBuffer();
};
const segment = (marker: number, text: string) => {
  const body = Buffer.from(text, "latin1");
  return Buffer.concat([Buffer.from([0xff, marker, (body.length + 2) >> 8, (body.length + 2) & 255]), body]);
};
/** A photograph as a phone writes it: notes in many segments, and behind the picture a moving one with a place in it. */
async function phonePicture(options: sharp.JpegOptions = {}) {
  const plain = await jpeg(options);
  const notes = [
    [0xe1, "http://ns.adobe.com/xap/1.0/\0<x:PLACE/>"],
    [0xe2, "MPF\0PLACE of further pictures"],
    [0xe3, "Meta\0PLACE"],
    [0xe5, "PLACE"],
    [0xed, "Photoshop 3.0\0PLACE"],
    [0xef, "PLACE"],
    [0xfe, "a comment with PLACE"],
  ].map(([m, t]) => segment(m as number, t as string));
  const tail = Buffer.from("\0\0\0\x18ftypmp42 PLACE moov ©xyz PLACE", "latin1");
  return Buffer.concat([plain.subarray(0, 2), ...notes, plain.subarray(2), tail]);
}

test.each([
  ["baseline", {}],
  ["progressive, many scans", { progressive: true }],
  ["with restart-free optimised tables", { optimiseCoding: false, chromaSubsampling: "4:4:4" }],
])("an original keeps every pixel and its colours and none of the notes, not even behind its end (%s)", async (_what, options) => {
  const bytes = await phonePicture(options);
  const { bytes: kept, mime } = await withoutNotes(bytes);
  const text = Buffer.from(kept).toString("latin1");
  expect([text.includes("PLACE"), text.includes("GPS"), text.includes("MPF"), mime]).toEqual([false, false, false, "image/jpeg"]);
  expect(text.includes("ICC_PROFILE")).toBe(true);
  expect([kept.at(-2), kept.at(-1)]).toEqual([0xff, 0xd9]);
  expect((await pixels(kept)).equals(await pixels(bytes))).toBe(true);
  expect(await withoutNotes(kept)).toEqual({ bytes: kept, mime }); // cut once, it stays as it is
});

test("a JPEG cut off or damaged anywhere is refused or kept whole, never half read", async () => {
  const whole = await phonePicture();
  await fc.assert(
    fc.asyncProperty(fc.integer({ min: 3, max: whole.length - 40 }), async (at) => {
      await expect(withoutNotes(whole.subarray(0, at))).rejects.toThrow();
    }),
    { numRuns: 60 },
  );
});

test("what a file is, is told by its first bytes; an SVG, a script or a page of HTML never reaches a decoder", async () => {
  const blur = '<svg xmlns="http://www.w3.org/2000/svg"><filter id="b"><feGaussianBlur stdDeviation="999"/></filter></svg>';
  for (const text of [blur, `<?xml version="1.0"?>${blur}`, "<!doctype html><script>1</script>", "GIF89a", "%PDF-1.4", "BM", ""]) {
    const file = { name: "x.jpg", bytes: new TextEncoder().encode(text) };
    expect(pictureKind(file.bytes)).toBeNull();
    for (const attempt of [pictureToLookAt(file), takenInPicture(file), takenInOriginal(file)])
      await expect(attempt).rejects.toMatchObject({ name: "Refusal", field: "photos" });
  }
});

test("a picture of a job file: one of our own comes out as it went in, any other kind becomes a JPEG, a disguise is refused", async () => {
  const { bytes: own } = await withoutNotes(await jpeg());
  expect(await takenInPicture({ name: "a", bytes: own })).toEqual({ mime: "image/jpeg", bytes: own, width: 64, height: 48 });
  const png = await sharp(await jpeg())
    .png()
    .toBuffer();
  expect(await takenInPicture({ name: "a", bytes: png })).toMatchObject({ mime: "image/jpeg", width: 64, height: 48 });
  const disguise = Buffer.concat([Buffer.from([0xff, 0xd8, 0xff, 0xe0]), Buffer.from("<script>alert(1)</script>")]);
  await expect(takenInPicture({ name: "evil.html", bytes: disguise })).rejects.toThrow("evil.html is not a picture");
});

test("the same file sent again is the photograph that is kept already", async () => {
  const ctx = await testContext();
  const bytes = await jpeg();
  const [a, b] = await Promise.all([keepPhoto(ctx, { name: "a.jpg", bytes }), keepPhoto(ctx, { name: "again.jpg", bytes })]);
  expect(b).toBe(a);
  expect(await keepPhoto(ctx, { name: "a.jpg", bytes })).toBe(a);
  expect(await ctx.db.selectFrom("photo").select("id").execute()).toHaveLength(1);
  expect((await getPhoto(ctx.db, a))!.width).toBe(64);
});

test("one picture of more pixels than are read is refused in words", async () => {
  const bytes = await sharp({ create: { width: 9000, height: 7000, channels: 3, background: "#fff" } })
    .jpeg({ quality: 1 })
    .toBuffer();
  await expect(pictureToLookAt({ name: "wide.jpg", bytes })).rejects.toThrow("more than 60 megapixels");
});
