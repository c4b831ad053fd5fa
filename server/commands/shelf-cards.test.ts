import sharp from "sharp";
import { keepCardRow, saveCard, strikeCard } from "#server/commands/cards";
import { importShelf } from "#server/commands/import-shelf";
import { saveProduct } from "#server/commands/jobs";
import { keepPhoto, withoutNotes } from "#server/commands/photos";
import { recordMix } from "#server/commands/record-mix";
import { addContainer, changeContainer } from "#server/commands/shelf";
import { takeStandInGloss } from "#server/devices/take-gloss";
import { createDeviceHub } from "#server/devices/device-hub";
import { readShelf, shelfFromCsv, shelfFromJson, shelfToCsv, shelfToJson } from "#server/interchange/shelf-file";
import { getCard, listCards } from "#server/repos/card-repo";
import { getContainer, listContainers } from "#server/repos/container-repo";
import { listEntries } from "#server/repos/ledger-repo";
import { getPhoto } from "#server/repos/photo-repo";
import { listShelf } from "#server/repos/product-repo";
import { cardBody, sheet, testContext, testJob } from "#server/testing/fixtures";
import { loadCans } from "#server/views/cans-view";

const DAY_MS = 86_400_000;
const HARDENER = { name: "Hardener T", kind: "hardener", speed: "medium", density_kg_m3: 1050 } as const;
let ctx: Awaited<ReturnType<typeof testContext>>;
beforeEach(async () => {
  ctx = await testContext();
});
afterEach(async () => {
  await ctx.db.destroy();
});

describe("cans", () => {
  const can = async (openedDaysAgo: number) => {
    const { productId } = await saveProduct(ctx, HARDENER);
    return addContainer(ctx, {
      productId,
      batch: "B1",
      size_m3: 1e-3,
      left_m3: 5e-4,
      opened_ms: ctx.now_ms() - openedDaysAgo * DAY_MS,
      keeping: "shelf",
    });
  };
  test("hardener opened 13 days ago is to be used today; a day later it is over", async () => {
    await can(13.2);
    expect((await loadCans(ctx))[0]).toMatchObject({ name: "Hardener T", age: { state: "today", words: "use today" } });
    ctx.advance(DAY_MS);
    expect((await loadCans(ctx))[0]!.age.state).toBe("over");
  });
  test("a can that is used up is off the shelf", async () => {
    const id = await can(1);
    const change = { id, version: "1", batch: "B1", left_m3: 4e-4, opened_ms: null, keeping: "cold" as const, gone: false };
    await changeContainer(ctx, change);
    expect(await getContainer(ctx.db, id)).toMatchObject({ left_m3: 4e-4, keeping: "cold", version: 2 });
    await changeContainer(ctx, { ...change, version: "2", gone: true });
    expect(await listContainers(ctx.db)).toEqual([]);
  });
  test("more in a can than it holds, a day to come and an unknown product are refused at their field", async () => {
    const id = await can(1);
    const { productId } = (await getContainer(ctx.db, id))!;
    const fresh = { productId, batch: "", size_m3: 1e-3, left_m3: 1e-3, opened_ms: null, keeping: "shelf" as const };
    await expect(addContainer(ctx, { ...fresh, left_m3: 2e-3 })).rejects.toMatchObject({ field: "left" });
    await expect(addContainer(ctx, { ...fresh, opened_ms: ctx.now_ms() + 3 * DAY_MS })).rejects.toMatchObject({ field: "opened" });
    await expect(addContainer(ctx, { ...fresh, productId: "none" })).rejects.toMatchObject({ field: "productId" });
  });
  test("a kept mix takes every part out of its can once, however often it is sent", async () => {
    const [canId, clearCan] = [await can(1), await can(2)];
    const { panelId } = await testJob(ctx);
    const parts = [400, 200, 60].map((ml, i) => ({
      name: ["clear", "hardener", "reducer"][i]!,
      volume_m3: ml * 1e-6,
      mass_kg: null,
      poured_kg: null,
      batch: "b",
      canId: [clearCan, canId, null][i]!,
    }));
    const mix = {
      panelId,
      volume_m3: 660e-6,
      reducer: 0.1,
      potLife_s: 5400,
      temperature_K: 295,
      panels: [panelId],
      parts,
      formKey: "mix-1",
      by: "painter A",
    };
    expect(await recordMix(ctx, mix)).toBe(await recordMix(ctx, mix));
    expect((await getContainer(ctx.db, canId))!.left_m3).toBeCloseTo(300e-6, 12);
    expect((await getContainer(ctx.db, clearCan))!.left_m3).toBeCloseTo(100e-6, 12);
    expect((await listEntries(ctx.db, panelId)).filter((e) => e.kind === "mix")).toHaveLength(1);
  });
});

describe("cards", () => {
  test("a corrected card keeps its number; the earlier one stays in the file and a lost correction is refused", async () => {
    const first = await saveCard(ctx, { body: cardBody, by: "painter A" });
    const second = await saveCard(ctx, { body: { ...cardBody, name: "Half, again" }, by: "painter A", supersedes: first });
    expect((await listCards(ctx.db)).map((c) => [c.number, c.body.name])).toEqual([[1, "Half, again"]]);
    expect(await getCard(ctx.db, first)).toMatchObject({ supersededBy: second, body: { name: "Half" } });
    await expect(saveCard(ctx, { body: cardBody, by: "b", supersedes: first })).rejects.toThrow("Nothing was overwritten");
    await strikeCard(ctx, second, true);
    expect((await listCards(ctx.db)).map((c) => c.body.name)).toEqual(["Half"]);
    await strikeCard(ctx, second, false);
    expect((await listCards(ctx.db)).map((c) => c.body.name)).toEqual(["Half, again"]);
  });
  test("an original held sideways stays so without its place; a PNG keeps its pixels, damage is no picture", async () => {
    const sideways = await sharp({ create: { width: 60, height: 20, channels: 3, background: "#406080" } })
      .withExif({ IFD3: { GPSLatitude: "52/1 30/1 0/1" } })
      .withMetadata({ orientation: 6 })
      .jpeg()
      .toBuffer();
    const held = await withoutNotes(sideways);
    expect((await sharp(held.bytes).metadata()).orientation).toBe(6);
    expect(Buffer.from(held.bytes).length).toBeLessThan(sideways.length);
    const noise = Uint8Array.from({ length: 12 * 8 * 3 }, (_, i) => (i * 37) % 251);
    const png = await sharp(noise, { raw: { width: 12, height: 8, channels: 3 } })
      .png()
      .withExif({ IFD0: { Copyright: "somebody" } })
      .toBuffer();
    const kept = await withoutNotes(png);
    expect([kept.mime, (await sharp(kept.bytes).metadata()).exif]).toEqual(["image/png", undefined]);
    expect(new Uint8Array(await sharp(kept.bytes).raw().toBuffer())).toEqual(noise);
    await expect(withoutNotes(new Uint8Array([0xff, 0xd8, 0xff]))).rejects.toThrow();
  });
  test("a card keeps its product's name when the product changes", async () => {
    const { productId, revisionId } = await saveProduct(ctx, { ...sheet, name: "Matte T", kind: "matte clear" });
    const id = await saveCard(ctx, { body: { ...cardBody, productRevisionId: revisionId }, by: "painter A" });
    await saveProduct(ctx, { ...sheet, name: "Matte T2", kind: "matte clear" }, productId);
    expect((await getCard(ctx.db, id))!.body.productName).toBe("Matte T");
  });
  test("a photograph is kept upright, smaller and without what the camera wrote into it; no picture is refused in words", async () => {
    const bytes = await sharp({ create: { width: 3000, height: 1200, channels: 3, background: "#406080" } })
      .withExif({ IFD3: { GPSLatitude: "52/1 30/1 0/1", GPSLatitudeRef: "N" } })
      .jpeg()
      .toBuffer();
    expect(bytes.includes("Exif")).toBe(true);
    const id = await keepPhoto(ctx, { name: "card.jpg", bytes });
    const photo = (await getPhoto(ctx.db, id))!;
    expect([photo.width, photo.height]).toEqual([2400, 960]);
    expect(Buffer.from(photo.bytes).includes("Exif")).toBe(false);
    // The original: every pixel as it came, the place gone.
    const original = Buffer.from(photo.original!.bytes);
    const pixels = (b: Buffer | Uint8Array) => sharp(b).raw().toBuffer();
    expect(photo.original!.mime).toBe("image/jpeg");
    expect((await pixels(original)).equals(await pixels(bytes))).toBe(true);
    expect(original.includes("GPS")).toBe(false);
    expect((await sharp(original).metadata()).exif).toBeUndefined();
    await expect(keepPhoto(ctx, { name: "list.txt", bytes: new TextEncoder().encode("no picture") })).rejects.toThrow(
      "list.txt is not a picture that can be read",
    );
    await expect(keepPhoto(ctx, { name: "nothing.jpg", bytes: new Uint8Array() })).rejects.toThrow("nothing.jpg is empty");
    await expect(saveCard(ctx, { body: { ...cardBody, photoIds: ["none"] }, by: "a" })).rejects.toMatchObject({ field: "photos" });
  });
});

describe("the shelf as a file", () => {
  const shelf = async () => (await listShelf(ctx.db)).map((p) => p.sheet);
  beforeEach(async () => {
    await saveProduct(ctx, { ...sheet, potLifeAt: [{ temperature_K: 303.15, life_s: 2700 }], levels: [{ share: 0.5, gloss60_GU: 34 }] });
    await saveProduct(ctx, HARDENER);
  });
  test("JSON out and into an empty shop gives every figure back; again it changes nothing", async () => {
    const text = shelfToJson(await shelf());
    const other = await testContext();
    expect(await importShelf(other, readShelf(text))).toEqual({ ok: true, value: { added: 2, revised: 0, same: 0 } });
    expect((await listShelf(other.db)).map((p) => p.sheet)).toEqual(await shelf());
    expect(await importShelf(other, readShelf(text))).toEqual({ ok: true, value: { added: 0, revised: 0, same: 2 } });
    await other.db.destroy();
  });
  test("CSV out and in, with a byte-order mark and a decimal comma", async () => {
    const text = shelfToCsv([sheet]).replace("48,", '"48,5",');
    expect(await importShelf(ctx, readShelf(`\uFEFF${text}`))).toMatchObject({ ok: true, value: { added: 0, revised: 1, same: 0 } });
    expect((await listShelf(ctx.db)).find((p) => p.sheet.name === sheet.name)).toMatchObject({
      revision: 2,
      sheet: { volumeSolids: 0.485 },
    });
  });
  test.each([
    [
      "name,kind,paint\nA,clear,1",
      { line: 1, column: "paint", reason: expect.stringContaining('"paint" is not a column of the shelf') as string },
    ],
    ["name,kind\nA,varnish", { line: 2, column: "kind", reason: '"varnish" is not a kind of product' }],
    ["name,kind,density g/ml\nA,hardener,-1", { line: 2, column: "density g/ml", reason: "Below 0.5 g/ml is no paint" }],
    ["name,kind,density g/ml\nA,hardener,heavy", { line: 2, column: "density g/ml", reason: '"heavy" is not a number' }],
    ["name,kind\nA,hardener\nA,reducer", { line: 3, column: "name", reason: '"A" stands here twice' }],
    ["", { line: 1, column: null, reason: "The file is empty" }],
  ])("%p is refused whole with row and reason", async (text, problem) => {
    const before = await shelf();
    const outcome = shelfFromCsv(text);
    expect(outcome.ok).toBe(false);
    expect(!outcome.ok && outcome.problems[0]).toEqual(problem);
    expect((await importShelf(ctx, readShelf(text))).ok).toBe(false);
    expect(await shelf()).toEqual(before);
  });
  test("a JSON file of something else is refused", () => {
    expect(shelfFromJson("{}")).toMatchObject({ ok: false, problems: [{ reason: expect.stringContaining("yakamoz-shelf") as string }] });
    expect(shelfFromJson("{")).toMatchObject({ ok: false, problems: [{ reason: "This is not JSON" }] });
  });
});

describe("devices", () => {
  test("gloss taken with the stand-in meter is stored as simulated", async () => {
    const { panelId } = await testJob(ctx);
    await takeStandInGloss(ctx, { panelId, role: "target", angle: 60, place: "edge", matte: true, count: 5, by: "painter A" });
    const [entry] = await listEntries(ctx.db, panelId);
    expect(entry).toMatchObject({ kind: "gloss", simulated: true, body: { meter: "Stand-in gloss meter", angle: 60 } });
  });
  test("a real bridge's line silences the stand-in scale for five seconds and takes its own tare", () => {
    const hub = createDeviceHub();
    hub.pushScale({ mass_kg: 0.25, stable: true }, 1000);
    hub.tareScale(1000);
    hub.pushScale({ mass_kg: 0.4, stable: true }, 2000);
    expect(hub.scaleReading(2000)).toMatchObject({ simulated: false, device: "Scale" });
    expect(hub.scaleReading(2000).mass_kg).toBeCloseTo(0.15, 12);
    expect(hub.scaleReading(8000)).toMatchObject({ simulated: true, device: "Stand-in scale" });
  });
});

test("a row of cards is kept as a whole, once for a key, named by its mix, with what the last card of the product had", async () => {
  await saveCard(ctx, { body: { ...cardBody, productName: "Matte T", reducer: 0.05, coats: 3, place: "board 2" }, by: "painter" });
  const row = {
    productName: "Matte T",
    base: "grey",
    colourCode: "",
    orientation: "vertical",
    cure: "air",
    cards: [
      { share: 0.6, gloss_GU: [20, 22] },
      { share: 0.7, gloss_GU: [13] },
    ],
  } as const;
  const ids = await keepCardRow(ctx, row, "painter", "row-1");
  expect(await keepCardRow(ctx, row, "painter", "row-1")).toEqual(ids);
  const kept = (await listCards(ctx.db)).filter((c) => ids.includes(c.id)).map((c) => c.body);
  expect(kept.map((b) => [b.name, b.mattingShare, b.gloss.map((g) => g.gloss_GU), b.reducer, b.coats, b.place]).reverse()).toEqual([
    ["Matte T 60 %", 0.6, [20, 22], 0.05, 3, "board 2"],
    ["Matte T 70 %", 0.7, [13], 0.05, 3, "board 2"],
  ]);
  const before = (await listCards(ctx.db)).length;
  const broken = { ...row, cards: [...row.cards, { share: 2, gloss_GU: [10] }] };
  await expect(keepCardRow(ctx, broken, "painter", "row-2")).rejects.toThrow(RangeError);
  const tooMany = { ...row, cards: [...row.cards, { share: 0.8, gloss_GU: Array.from({ length: 31 }, () => 10) }] };
  await expect(keepCardRow(ctx, tooMany, "painter", "row-3")).rejects.toMatchObject({ field: "gloss" });
  expect((await listCards(ctx.db)).length).toBe(before);
});
