import type { Substrate } from "#core/ledger/derive-panel";
import type { PanelShape } from "#core/panel/shapes";
import { type SheetInput, anySheet, sheetContradictions } from "#core/product/sheet";
import { type Finish, type HouseWayId, houseWay } from "#core/ways/house-ways";
import { livingEntries, ofKind } from "#core/ledger/entry";
import type { ServerContext } from "../context";
import type { Db } from "../db/open";
import { setClockStopped } from "../repos/clock-repo";
import { findJobByKey, getJob, insertJob, setJobArchived, setJobWay } from "../repos/job-repo";
import { type Panel, findPanelByKey, insertPanel, listPanels, setCoatsPlanned } from "../repos/panel-repo";
import { listEntries } from "../repos/ledger-repo";
import { getProductRevision, insertProduct, insertRevision, setProductArchived } from "../repos/product-repo";
import { type ShopSettings, saveShop, shopSettings } from "../repos/shop-repo";
import { Refusal } from "./refusal";

export interface NewPanel {
  name: string;
  shape: PanelShape;
  tilt_rad: number;
  substrate: Substrate;
  productRevisionId: string;
  coatsPlanned: number;
}
export interface NewJob {
  vehicle: string;
  colourName: string;
  colourCss: string;
  finish: Finish;
  wayId: string;
  panel: NewPanel;
  clientKey?: string | null;
}

async function addPanelIn(ctx: ServerContext, db: Db, jobId: string, panel: NewPanel, clientKey: string | null): Promise<Panel> {
  if (!(await getProductRevision(db, panel.productRevisionId))) throw new Refusal("productRevisionId", "Choose a product from the shelf");
  return insertPanel(db, { ...panel, id: ctx.newId(), jobId, clientKey });
}

/** A job with its first panel. Sending the same form twice makes one job. */
export async function createJob(ctx: ServerContext, input: NewJob): Promise<{ jobId: string; panelId: string }> {
  const made = await ctx.db.transaction().execute(async (db) => {
    const known = input.clientKey ? await findJobByKey(db, input.clientKey) : null;
    if (known) return { jobId: known.id, panelId: (await listPanels(db, known.id))[0]!.id };
    const jobId = ctx.newId();
    const { panel, clientKey = null, ...job } = input;
    await insertJob(db, { ...job, id: jobId, createdAt_ms: ctx.now_ms(), archivedAt_ms: null, clientKey });
    const { id } = await addPanelIn(ctx, db, jobId, panel, null);
    return { jobId, panelId: id };
  });
  ctx.bus.publish({ topic: "job", id: made.jobId });
  return made;
}

/** A further panel of a job. */
export async function addPanel(ctx: ServerContext, jobId: string, panel: NewPanel, clientKey: string | null = null): Promise<string> {
  const id = await ctx.db.transaction().execute(async (db) => {
    if (!(await getJob(db, jobId))) throw new Refusal(null, "This job is no longer there");
    const known = clientKey ? await findPanelByKey(db, clientKey) : null;
    return (known ?? (await addPanelIn(ctx, db, jobId, panel, clientKey))).id;
  });
  ctx.bus.publish({ topic: "job", id: jobId });
  return id;
}

/** Sprays a job another house way; the panel it was chosen on takes the way's number of coats, unless more are on already. */
export async function setHouseWay(ctx: ServerContext, input: { jobId: string; panelId: string; wayId: HouseWayId }): Promise<void> {
  await ctx.db.transaction().execute(async (db) => {
    if (!(await getJob(db, input.jobId))) throw new Refusal(null, "This job is no longer there");
    const panel = (await listPanels(db, input.jobId)).find((p) => p.id === input.panelId);
    if (!panel) throw new Refusal(null, "This panel is no longer there");
    const on = ofKind(livingEntries(await listEntries(db, panel.id)), "coat").length;
    await setJobWay(db, input.jobId, input.wayId);
    await setCoatsPlanned(db, panel.id, Math.max(on, houseWay(input.wayId).coats.length));
  });
  ctx.bus.publish({ topic: "job", id: input.jobId });
}

/** Takes a job off the Floor, or brings it back. */
export async function archiveJob(ctx: ServerContext, jobId: string, archived: boolean): Promise<void> {
  await setJobArchived(ctx.db, jobId, archived ? ctx.now_ms() : null);
  ctx.bus.publish({ topic: "job", id: jobId });
}

/** Saves a sheet: a new product, or a new revision of one. Panels keep the revision they were planned with. */
export async function saveProduct(
  ctx: ServerContext,
  sheet: SheetInput,
  productId: string | null = null,
): Promise<{ productId: string; revisionId: string }> {
  const checked = anySheet.parse(sheet);
  const [wrong] = sheetContradictions(checked);
  if (wrong) throw new Refusal(wrong.field, wrong.message);
  const saved = await ctx.db.transaction().execute(async (db) => {
    const id = productId ?? ctx.newId();
    if (!productId) await insertProduct(db, { id, now_ms: ctx.now_ms() });
    const revisionId = ctx.newId();
    await insertRevision(db, { id: revisionId, productId: id, sheet: checked, now_ms: ctx.now_ms() });
    return { productId: id, revisionId };
  });
  ctx.bus.publish({ topic: "product", id: saved.productId });
  return saved;
}

export async function archiveProduct(ctx: ServerContext, productId: string, archived: boolean): Promise<void> {
  await setProductArchived(ctx.db, productId, archived ? ctx.now_ms() : null);
  ctx.bus.publish({ topic: "product", id: productId });
}

/** Stops a clock, or sets it going again with its own times. */
export async function stopClock(ctx: ServerContext, clockId: string, stopped: boolean): Promise<void> {
  if (!(await setClockStopped(ctx.db, clockId, stopped ? ctx.now_ms() : null))) throw new Refusal(null, "This clock is no longer there");
  ctx.bus.publish({ topic: "clock", id: clockId });
}

export async function saveShopSettings(ctx: ServerContext, settings: ShopSettings): Promise<void> {
  await saveShop(ctx.db, shopSettings.parse(settings), ctx.now_ms());
  ctx.bus.publish({ topic: "shop", id: "shop" });
}
