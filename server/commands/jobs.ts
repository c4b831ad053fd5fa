import { type JobColours, ONE_COLOUR, type PartColour } from "#core/models/colour/job-colours";
import { requireRight } from "../access/actor";
import type { Substrate } from "#core/panel/brief";
import { type JobBrief, NO_BRIEF } from "#core/panel/job-brief";
import type { PanelShape } from "#core/kernel/geometry/shapes";
import { type SheetInput, sheetRefusals } from "#core/models/product/sheet";
import { anySheet } from "#core/models/product/sheet-schema";
import type { HouseWay } from "#core/models/ways/way";
import type { RowPlan } from "#core/models/spray/row-plan";
import type { Finish } from "#core/models/ways/terms";
import { ofKind } from "#core/record/entry";
import { livingEntries } from "#core/record/timeline";
import type { ServerContext } from "../context";
import type { Tx } from "../db/open";
import { setClockStopped } from "../repos/clock-repo";
import { versionOf } from "../repos/digest";
import { type Job, getJob, insertJob, setJobArchived, setJobWay } from "../repos/job-repo";
import { type Panel, insertPanel, listPanels, setCoatsPlanned } from "../repos/panel-repo";
import { listEntries } from "../repos/ledger-repo";
import { getProductRevision, insertProduct, insertRevision, newestRevision, setProductArchived } from "../repos/product-repo";
import { refreshSummariesOf, refreshSummary, setSummariesAway } from "../repos/summary-repo";
import { Refusal, refuseOther } from "./refusal";
import { run } from "./run";
import { wayById } from "./ways";

export interface NewPanel {
  name: string;
  shape: PanelShape;
  tilt_rad: number;
  substrate: Substrate;
  productRevisionId: string;
  coatsPlanned: number;
  sides?: 1 | 2 | undefined;
  rows?: RowPlan | undefined;
  place?: string | undefined;
  colour?: PartColour | undefined;
}
export interface NewJob {
  vehicle: string;
  colourName: string;
  colourCss: string;
  finish: Finish;
  wayId: string;
  /** A way as another job or a job file has it, with that id. */
  way?: HouseWay | undefined;
  brief?: JobBrief | undefined;
  colours?: JobColours | undefined;
  panel: NewPanel;
  morePanels?: readonly NewPanel[];
  clientKey?: string | null;
}

export async function addPanelIn(ctx: ServerContext, db: Tx, jobId: string, panel: NewPanel): Promise<Panel> {
  if (!(await getProductRevision(db, panel.productRevisionId))) throw new Refusal("productRevisionId", "Choose a product from the shelf");
  const made = await insertPanel(db, { ...panel, id: ctx.newId(), jobId });
  await refreshSummary(db, made.id);
  return made;
}

/** A job with its first panel, or all of them. Sending the same form twice makes one job. */
export async function createJob(ctx: ServerContext, input: NewJob): Promise<{ jobId: string; panelId: string }> {
  const { clientKey = null, ...content } = input;
  const { panel, morePanels = [], wayId, way: kept, brief = NO_BRIEF, colours = ONE_COLOUR, ...job } = content;
  return run(ctx, { key: clientKey, what: "job", content }, async ({ db, now_ms, tell }) => {
    const jobId = ctx.newId();
    const way = await wayById(db, wayId, kept);
    await insertJob(db, { ...job, way, brief, colours, id: jobId, createdAt_ms: now_ms, archivedAt_ms: null });
    const { id } = await addPanelIn(ctx, db, jobId, panel);
    for (const more of morePanels) await addPanelIn(ctx, db, jobId, more);
    tell({ topic: "job", id: jobId });
    return { jobId, panelId: id };
  });
}

/** A further panel of a job, or several at once. @returns the first one */
export async function addPanel(
  ctx: ServerContext,
  jobId: string,
  panel: NewPanel,
  clientKey: string | null = null,
  more: readonly NewPanel[] = [],
): Promise<string> {
  const content = more.length === 0 ? panel : [panel, ...more];
  return run(ctx, { key: clientKey, what: `panel of ${jobId}`, content }, async ({ db, tell }) => {
    if (!(await getJob(db, jobId))) throw new Refusal(null, "This job is no longer there", 404);
    tell({ topic: "job", id: jobId });
    const { id } = await addPanelIn(ctx, db, jobId, panel);
    for (const other of more) await addPanelIn(ctx, db, jobId, other);
    return id;
  });
}

/** The version of how a job is sprayed. */
export const wayVersion = ({ way }: Pick<Job, "way">): string => versionOf(way);

/**
 * Sprays a job another house way; the panel it was chosen on takes the way's number of coats, unless more are on already.
 * @param input.expected the version that it was chosen on; null for whoever has not looked
 * @throws ChangedMeanwhile where another window has chosen another way since
 */
export async function setHouseWay(
  ctx: ServerContext,
  input: { jobId: string; panelId: string; wayId: string; expected?: string | null },
): Promise<HouseWay> {
  return run(ctx, null, async ({ db, tell }) => {
    const job = await getJob(db, input.jobId);
    if (!job) throw new Refusal(null, "This job is no longer there", 404);
    refuseOther(input.expected ?? null, job.way, wayVersion(job));
    const chosen = await wayById(db, input.wayId, job.way);
    const panels = await listPanels(db, input.jobId);
    const panel = panels.find((p) => p.id === input.panelId);
    if (!panel) throw new Refusal(null, "This panel is no longer there", 404);
    const on = ofKind(livingEntries(await listEntries(db, panel.id)), "coat").length;
    await setJobWay(db, input.jobId, chosen);
    await setCoatsPlanned(db, panel.id, Math.max(on, chosen.coats.length));
    await refreshSummariesOf(db, input.jobId); // the course of each panel goes by the job's way
    tell({ topic: "job", id: input.jobId });
    tell({ topic: "clock", id: input.panelId });
    return chosen;
  });
}

/** Takes a job off the Floor, or brings it back. */
export async function archiveJob(ctx: ServerContext, jobId: string, archived: boolean): Promise<void> {
  requireRight(ctx, "delete");
  await run(ctx, null, async ({ db, now_ms, tell }) => {
    if (!(await setJobArchived(db, jobId, archived ? now_ms : null))) throw new Refusal(null, "This job is no longer there", 404);
    await setSummariesAway(db, jobId, archived);
    tell({ topic: "job", id: jobId });
  });
}

/**
 * Saves a sheet: a new product, or a new revision of one. Panels keep the revision they were planned with. Sent twice, it is saved once.
 * @param expected the revision that the form was filled in on; null for a new product, or for whoever has not looked
 * @throws ChangedMeanwhile where the shelf holds another revision by now
 */
export async function saveProduct(
  ctx: ServerContext,
  sheet: SheetInput,
  productId: string | null = null,
  clientKey: string | null = null,
  expected: string | null = null,
): Promise<{ productId: string; revisionId: string }> {
  requireRight(ctx, "shop");
  const checked = anySheet.parse(sheet);
  const [wrong] = sheetRefusals(checked);
  if (wrong) throw new Refusal(wrong.field, wrong.message);
  return run(ctx, { key: clientKey, what: `product ${productId ?? "new"}`, content: checked }, async ({ db, now_ms, tell }) => {
    const id = productId ?? ctx.newId();
    if (!productId) await insertProduct(db, { id, now_ms });
    else {
      const newest = await newestRevision(db, id);
      if (!newest) throw new Refusal(null, "This product is not on the shelf", 404);
      refuseOther(expected, newest.sheet, newest.revisionId);
    }
    const revisionId = ctx.newId();
    await insertRevision(db, { id: revisionId, productId: id, sheet: checked, now_ms });
    tell({ topic: "product", id });
    return { productId: id, revisionId };
  });
}

export async function archiveProduct(ctx: ServerContext, productId: string, archived: boolean): Promise<void> {
  requireRight(ctx, "shop");
  await run(ctx, null, async ({ db, now_ms, tell }) => {
    if (!(await setProductArchived(db, productId, archived ? now_ms : null)))
      throw new Refusal(null, "This product is not on the shelf", 404);
    tell({ topic: "product", id: productId });
  });
}

/** Stops a clock, or sets it going again with its own times. */
export async function stopClock(ctx: ServerContext, clockId: string, stopped: boolean): Promise<void> {
  await run(ctx, null, async ({ db, now_ms, tell }) => {
    if (!(await setClockStopped(db, clockId, stopped ? now_ms : null))) throw new Refusal(null, "This clock is no longer there", 404);
    tell({ topic: "clock", id: clockId });
  });
}
