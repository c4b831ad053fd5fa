import { isOfAll } from "#core/models/ways/house-ways";
import { ownWay } from "#core/models/ways/way";
import { houseWayBody } from "#core/models/ways/way-body";
import type { LedgerEntry } from "#core/record/entry";
import { livingEntries } from "#core/record/timeline";
import type { ServerContext } from "../context";
import { BUNDLE_FORMAT, type JobBundle } from "../interchange/job-bundle";
import type { Db, Tx } from "../db/open";
import { countJobs, getJob, insertJob } from "../repos/job-repo";
import { type NewEntry, insertEntries, knownEntryIds, listEntries } from "../repos/ledger-repo";
import { type Panel, getPanel, insertPanel, listPanels } from "../repos/panel-repo";
import { type Photo, getPhoto, hasPhoto, insertPhoto } from "../repos/photo-repo";
import { getProductRevision, hasProduct, insertProduct, insertRevision } from "../repos/product-repo";
import { forgetRemovedJob } from "../repos/removed-job-repo";
import { getShop, saveShop, shopSettings } from "../repos/shop-repo";
import { refreshSummary } from "../repos/summary-repo";
import { takenInOriginal, takenInPicture } from "./photos";
import { Refusal } from "./refusal";
import { type Running, run } from "./run";
import { wayById } from "./ways";

/**
 * A job with all that its figures come from; null when it is not there.
 * @param only of its panels this one
 */
export async function exportJob(ctx: ServerContext, jobId: string, only?: string): Promise<JobBundle | null> {
  const { db } = ctx;
  const [job, all, shop] = await Promise.all([getJob(db, jobId), listPanels(db, jobId), getShop(db)]);
  const panels = all.filter((p) => only === undefined || p.id === only);
  if (!job) return null;
  const ledgers = await Promise.all(panels.map((p) => listEntries(db, p.id)));
  const order = new Map(
    ledgers
      .flat()
      .sort((a, b) => a.seq - b.seq)
      .map((e, i) => [e.id, i]),
  );
  const revisions = [...new Set(panels.map((p) => p.productRevisionId))];
  const products = (await Promise.all(revisions.map((r) => getProductRevision(db, r)))).filter((p) => p !== null);
  const photoIds = [
    ...new Set(
      ledgers.flatMap((l) =>
        livingEntries(l).flatMap((e) => ((e.kind === "defect" || e.kind === "neighbour") && e.body.photoId ? [e.body.photoId] : [])),
      ),
    ),
  ];
  const photos = (await Promise.all(photoIds.map((id) => getPhoto(db, id)))).filter((p) => p !== null);
  return {
    format: BUNDLE_FORMAT,
    version: 1,
    job: {
      id: job.id,
      vehicle: job.vehicle,
      colourName: job.colourName,
      colourCss: job.colourCss,
      finish: job.finish,
      wayId: job.way.id,
      ...(isOfAll(job.way.id) ? {} : { way: houseWayBody.parse(job.way) }),
      brief: job.brief,
      colours: job.colours,
      createdAt_ms: job.createdAt_ms,
    },
    shop: {
      floor_m: shop.floor_m,
      readingsPerSpot: shop.readingsPerSpot,
      learntFilm: shop.learntFilm,
      learntRuns: shop.learntRuns,
      learntTexture: shop.learntTexture,
      learntRemoval: shop.learntRemoval,
      learntSteps: shop.learntSteps,
      rates: shop.rates,
    },
    products: products.map((p) => ({ productId: p.id, revisionId: p.revisionId, sheet: p.sheet })),
    panels: panels.map((p, i) => panelOf(p, ledgers[i]!, order)),
    photos: photos.map(({ id, mime, width, height, name, bytes, original }) => ({
      id,
      mime,
      width,
      height,
      name,
      base64: base64Of(bytes),
      original: original && { mime: original.mime, base64: base64Of(original.bytes) },
    })),
  };
}

/** A panel of a job file, with its ledger in the order of writing. */
const panelOf = (
  { id, name, shape, tilt_rad, substrate, productRevisionId, coatsPlanned, sides, rows, place, colour }: Panel,
  ledger: readonly LedgerEntry[],
  order: ReadonlyMap<string, number>,
): JobBundle["panels"][number] => ({
  id,
  name,
  shape: {
    ...shape,
    outline: shape.outline.map(([x, y]) => [x, y]),
    bodyLines: shape.bodyLines.map((l) => l.map(([x, y]) => [x, y])),
    sides: [...shape.sides],
  },
  tilt_rad,
  substrate,
  productRevisionId,
  coatsPlanned,
  sides: sides ?? 1,
  ...(rows ? { rows } : {}),
  ...(place ? { place } : {}),
  ...(colour ? { colour } : {}),
  entries: ledger.map((e) => ({
    id: e.id,
    kind: e.kind,
    body: e.body,
    at_ms: e.at_ms,
    recordedAt_ms: e.recordedAt_ms,
    by: e.by,
    simulated: e.simulated,
    supersedes: e.supersedes,
    order: order.get(e.id)!,
    ...(e.who ? { who: e.who } : {}),
  })),
});

const base64Of = (bytes: Uint8Array) => Buffer.from(bytes).toString("base64");
const bytesOf = (base64: string) => new Uint8Array(Buffer.from(base64, "base64"));

/**
 * Takes a bundle in, in one transaction: nothing of it or all of it. An empty shop takes over the settings that the figures depend on; a shop with
 * jobs of its own keeps its settings.
 * @returns the job's id and whether the shop's settings differ from the bundle's @throws Refusal when the job is here already
 */
export async function importJob(ctx: ServerContext, bundle: JobBundle): Promise<{ jobId: string; otherSettings: boolean }> {
  // Pictures are looked at before anything is written: that takes time, and a file must not hold the shop up meanwhile.
  const photos = await photosOf(bundle);
  const otherSettings = await run(ctx, null, async ({ db, now_ms, tell }) => {
    await refuseKnownIds(db, bundle);
    const shop = await getShop(db);
    const empty = (await countJobs(db)) + (await countJobs(db, { archived: true })) === 0;
    const taken = shopSettings.parse({ ...shop, ...bundle.shop });
    if (empty) await saveShop(db, taken, now_ms);
    await forgetRemovedJob(db, bundle.job.id); // it is here again: its ledger is append-only like any other
    const { wayId, way: own, ...job } = bundle.job;
    await insertJob(db, { ...job, way: await wayById(db, wayId, own && ownWay(wayId, own)), archivedAt_ms: null });
    await insertPanels(db, bundle, photos, now_ms);
    tell({ topic: "job", id: bundle.job.id });
    return !empty && JSON.stringify(taken) !== JSON.stringify(shop);
  });
  return { jobId: bundle.job.id, otherSettings };
}

/**
 * Takes the panels of a bundle into its job, which is here: one that was taken off it comes back as it was.
 * @throws Refusal when one of them, or an entry of theirs, is here already
 */
export async function importPanels(ctx: ServerContext, bundle: JobBundle, alongside: (running: Running) => Promise<void>): Promise<void> {
  const photos = await photosOf(bundle);
  await run(ctx, null, async (running) => {
    const { db, now_ms, tell } = running;
    if (!(await getJob(db, bundle.job.id))) throw new Refusal(null, "This job is not in the file.", 404);
    await refuseKnownPanels(db, bundle);
    await insertPanels(db, bundle, photos, now_ms);
    await alongside(running);
    tell({ topic: "job", id: bundle.job.id });
  });
}

const photosOf = async (bundle: JobBundle): Promise<Photo[]> => {
  const photos: Photo[] = [];
  for (const p of bundle.photos) photos.push(await photoOf(p));
  return photos;
};

/** The panels of a bundle with their products, pictures, ledgers and rows in the lists. */
async function insertPanels(db: Tx, bundle: JobBundle, photos: readonly Photo[], now_ms: number): Promise<void> {
  for (const p of bundle.products) {
    if (await getProductRevision(db, p.revisionId)) continue;
    if (!(await hasProduct(db, p.productId))) await insertProduct(db, { id: p.productId, now_ms });
    await insertRevision(db, { id: p.revisionId, productId: p.productId, sheet: p.sheet, now_ms });
  }
  for (const photo of photos) if (!(await hasPhoto(db, photo.id))) await insertPhoto(db, { ...photo, digest: null, now_ms });
  for (const panel of bundle.panels) await insertPanel(db, { ...panel, jobId: bundle.job.id });
  await insertEntries(db, inOrderOfWriting(bundle.panels));
  for (const [i, { id }] of bundle.panels.entries())
    await refreshSummary(db, id).catch((error: unknown) => refuseFigures(error, `panels.${i}`));
}

/** All entries of a job's panels as they were written, one after another; by their times where the file does not say. A panel's own order always holds. */
function inOrderOfWriting(panels: JobBundle["panels"]): NewEntry[] {
  const known = panels.every((p) => p.entries.every((e) => e.order !== undefined));
  const placed = panels.flatMap(({ id: panelId, entries }) => {
    let at = -Infinity;
    return entries.map(({ order, ...e }) => {
      at = Math.max(at, known ? order! : e.recordedAt_ms);
      return { entry: { ...e, panelId } satisfies NewEntry, at };
    });
  });
  return placed.sort((a, b) => a.at - b.at).map((p) => p.entry);
}

async function photoOf({ id, name, base64, original }: JobBundle["photos"][number]): Promise<Photo> {
  const shown = await takenInPicture({ name, bytes: bytesOf(base64) });
  return {
    id,
    name,
    ...shown,
    original: original && (await takenInOriginal({ name: `The original of ${name}`, bytes: bytesOf(original.base64) })),
  };
}

/** Ids are the shop's own: a file whose ids stand here for something else is told so, and nothing of it is taken in. */
async function refuseKnownIds(db: Db, bundle: JobBundle): Promise<void> {
  if (await getJob(db, bundle.job.id)) throw new Refusal(null, `${bundle.job.vehicle} is here already. Nothing was changed.`);
  await refuseKnownPanels(db, bundle);
}

async function refuseKnownPanels(db: Db, bundle: JobBundle): Promise<void> {
  for (const { id, name } of bundle.panels)
    if (await getPanel(db, id)) throw new Refusal(null, `The panel ${name} is here already, in another job. Nothing was changed.`);
  const [known] = await knownEntryIds(
    db,
    bundle.panels.flatMap((p) => p.entries.map((e) => e.id)),
  );
  if (known) throw new Refusal(null, `The entry ${known} is here already, on another panel. Nothing was changed.`);
}

/** Figures that pass the file's bounds one by one and still cannot be worked with. */
function refuseFigures(error: unknown, where: string): never {
  if (!(error instanceof RangeError)) throw error;
  throw new Refusal(where, `These figures cannot be worked with: ${error.message}. Nothing was taken in.`, 422);
}
