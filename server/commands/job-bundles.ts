import { livingEntries } from "#core/ledger/entry";
import type { ServerContext } from "../context";
import { BUNDLE_FORMAT, type JobBundle } from "../interchange/job-bundle";
import { getJob, insertJob, listJobs } from "../repos/job-repo";
import { type NewEntry, insertEntries, listEntries } from "../repos/ledger-repo";
import { insertPanel, listPanels } from "../repos/panel-repo";
import { getPhoto, insertPhoto } from "../repos/photo-repo";
import { getProductRevision, insertProduct, insertRevision, listShelf } from "../repos/product-repo";
import { getShop, saveShop, shopSettings } from "../repos/shop-repo";
import { Refusal } from "./refusal";

/** A job with all that its figures come from; null when it is not there. */
export async function exportJob(ctx: ServerContext, jobId: string): Promise<JobBundle | null> {
  const { db } = ctx;
  const [job, panels, shop] = await Promise.all([getJob(db, jobId), listPanels(db, jobId), getShop(db)]);
  if (!job) return null;
  const ledgers = await Promise.all(panels.map((p) => listEntries(db, p.id)));
  const revisions = [...new Set(panels.map((p) => p.productRevisionId))];
  const products = (await Promise.all(revisions.map((r) => getProductRevision(db, r)))).filter((p) => p !== null);
  const photoIds = [
    ...new Set(ledgers.flatMap((l) => livingEntries(l).flatMap((e) => (e.kind === "defect" && e.body.photoId ? [e.body.photoId] : [])))),
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
      wayId: job.wayId,
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
    panels: panels.map(({ id, name, shape, tilt_rad, substrate, productRevisionId, coatsPlanned }, i) => ({
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
      entries: ledgers[i]!.map((e) => ({
        id: e.id,
        kind: e.kind,
        body: e.body,
        at_ms: e.at_ms,
        recordedAt_ms: e.recordedAt_ms,
        by: e.by,
        simulated: e.simulated,
        supersedes: e.supersedes,
      })),
    })),
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

const base64Of = (bytes: Uint8Array) => Buffer.from(bytes).toString("base64");
const bytesOf = (base64: string) => new Uint8Array(Buffer.from(base64, "base64"));

/**
 * Takes a bundle in, in one transaction: nothing of it or all of it. An empty shop takes over the settings that the figures depend on; a shop with
 * jobs of its own keeps its settings.
 * @returns the job's id and whether the shop's settings differ from the bundle's @throws Refusal when the job is here already
 */
export async function importJob(ctx: ServerContext, bundle: JobBundle): Promise<{ jobId: string; otherSettings: boolean }> {
  const otherSettings = await ctx.db.transaction().execute(async (db) => {
    if (await getJob(db, bundle.job.id)) throw new Refusal(null, `${bundle.job.vehicle} is here already. Nothing was changed.`);
    const shop = await getShop(db);
    const empty = (await listJobs(db, { most: 1 })).length === 0 && (await listJobs(db, { archived: true, most: 1 })).length === 0;
    const taken = shopSettings.parse({ ...shop, ...bundle.shop });
    if (empty) await saveShop(db, taken, ctx.now_ms());
    const shelf = new Set((await listShelf(db)).map((p) => p.id));
    for (const p of bundle.products) {
      if (await getProductRevision(db, p.revisionId)) continue;
      if (!shelf.has(p.productId)) await insertProduct(db, { id: p.productId, now_ms: ctx.now_ms() });
      shelf.add(p.productId);
      await insertRevision(db, { id: p.revisionId, productId: p.productId, sheet: p.sheet, now_ms: ctx.now_ms() });
    }
    for (const { base64, original, ...photo } of bundle.photos)
      if (!(await getPhoto(db, photo.id)))
        await insertPhoto(db, {
          ...photo,
          bytes: bytesOf(base64),
          original: original && { mime: original.mime, bytes: bytesOf(original.base64) },
          now_ms: ctx.now_ms(),
        });
    await insertJob(db, { ...bundle.job, archivedAt_ms: null, clientKey: null });
    for (const { entries, ...panel } of bundle.panels) {
      await insertPanel(db, { ...panel, jobId: bundle.job.id, clientKey: null });
      await insertEntries(
        db,
        entries.map((e): NewEntry => ({ ...e, panelId: panel.id, clientKey: null })),
      );
    }
    return !empty && JSON.stringify(taken) !== JSON.stringify(shop);
  });
  ctx.bus.publish({ topic: "job", id: bundle.job.id });
  return { jobId: bundle.job.id, otherSettings };
}
