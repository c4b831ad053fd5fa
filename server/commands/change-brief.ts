import { FINISHES, type Finish } from "#core/models/ways/terms";
import { format } from "date-fns";
import { SUBSTRATES } from "#core/panel/brief";
import type { JobBrief } from "#core/panel/job-brief";
import type { ServerContext } from "../context";
import type { Db } from "../db/open";
import { versionOf } from "../repos/digest";
import { type Job, getJob, setJobBrief } from "../repos/job-repo";
import { listEntries } from "../repos/ledger-repo";
import { type Panel, getPanel, listPanels, setPanelBrief } from "../repos/panel-repo";
import { getProductRevision } from "../repos/product-repo";
import { type NewPanel, createJob } from "./jobs";
import { appendEntries } from "./record-entry";
import { Refusal, refuseOther } from "./refusal";
import { type Running, run } from "./run";
import { wayById } from "./ways";

export interface JobChange {
  vehicle: string;
  colourName: string;
  colourCss: string;
  finish: Finish;
  wayId: string;
  brief?: JobBrief | undefined;
}
type Change = [what: string, from: string, to: string];
const inWords = (changes: readonly Change[]) =>
  changes.flatMap(([what, from, to]) => (from === to ? [] : [`${what}: ${from || "none"} → ${to || "none"}`])).join("; ");

/** What was changed stands in the ledger, with who did it, in the very transaction that changes it; figures follow from the new brief. */
const noteOf = (ctx: ServerContext, running: Running, panelId: string, text: string, by: string) =>
  appendEntries(ctx, running, panelId, [{ panelId, kind: "note", body: { text: text.slice(0, 1000) }, by }]);

const gloss = ({ targetGloss_GU }: JobBrief) => (targetGloss_GU === null ? "" : `${targetGloss_GU} GU`);
const day = ({ promised_ms }: JobBrief) => (promised_ms === null ? "" : format(promised_ms, "d MMM yyyy"));

/** The version of what a job is about, as its form changes it. */
export const jobVersion = ({ vehicle, colourName, colourCss, finish, way, brief }: Job): string =>
  versionOf([vehicle, colourName, colourCss, finish, way, brief]);

/**
 * Changes what a job is about, and each of its panels keeps word of it: all in one. @returns whether anything was different
 * @param expected the version that the form was filled in on; null for whoever has not looked
 * @throws ChangedMeanwhile where another window has changed it since
 */
export async function changeJob(
  ctx: ServerContext,
  jobId: string,
  change: JobChange,
  { by, expected = null }: { by: string; expected?: string | null },
): Promise<boolean> {
  return run(ctx, null, async (running) => {
    const { db, tell } = running;
    const before = await getJob(db, jobId);
    if (!before) throw new Refusal(null, "This job is no longer there", 404);
    refuseOther(expected, before, jobVersion(before));
    const { wayId, brief = before.brief, ...rest } = change;
    const way = await wayById(db, wayId, before.way);
    const said = inWords([
      ["vehicle", before.vehicle, rest.vehicle],
      ["colour", before.colourName, rest.colourName],
      ["shown as", before.colourCss, rest.colourCss],
      ["finish", FINISHES[before.finish], FINISHES[rest.finish]],
      ["house way", before.way.name, way.name],
      ["gloss wanted", gloss(before.brief), gloss(brief)],
      ["colour code", before.brief.colourCode, brief.colourCode],
      ["customer", before.brief.customer, brief.customer],
      ["plate", before.brief.plate, brief.plate],
      ["promised", day(before.brief), day(brief)],
    ]);
    if (said === "") return false;
    await setJobBrief(db, jobId, { ...rest, way, brief });
    for (const panel of await listPanels(db, jobId)) await noteOf(ctx, running, panel.id, `Job changed. ${said}`, by);
    tell({ topic: "job", id: jobId });
    return true;
  });
}

/** What is placed on a panel has its place by the outline that it had. */
export async function isPlacedOn(db: Db, panelId: string): Promise<boolean> {
  return (await listEntries(db, panelId)).some((e) => e.kind === "reading" || e.kind === "defect");
}

const degrees = (rad: number) => `${Math.round((rad * 180) / Math.PI)}°`;
/** Outlines nearer to each other than the unit of a form can tell are one. */
const SAME_OUTLINE_M = 2e-3;
const isSame = (a: Panel["shape"], b: Panel["shape"]) =>
  a.outline.length === b.outline.length &&
  a.outline.every(([x, y], i) => Math.hypot(x - b.outline[i]![0], y - b.outline[i]![1]) < SAME_OUTLINE_M);

/** The version of a panel as its form changes it. */
export const panelVersion = ({ name, shape, tilt_rad, substrate, productRevisionId, coatsPlanned, sides }: Panel): string =>
  versionOf([name, shape, tilt_rad, substrate, productRevisionId, coatsPlanned, sides ?? 1]);

/**
 * Changes a panel's name, shape, tilt, product and coats. Its outline stays once something is placed on it. @returns whether anything was different
 * @param expected the version that the form was filled in on; null for whoever has not looked
 * @throws ChangedMeanwhile where another window has changed it since
 */
export async function changePanel(
  ctx: ServerContext,
  panelId: string,
  brief: NewPanel,
  { by, expected = null }: { by: string; expected?: string | null },
): Promise<boolean> {
  return run(ctx, null, async (running) => {
    const { db, tell } = running;
    const before = await getPanel(db, panelId);
    if (!before) throw new Refusal(null, "This panel is no longer there", 404);
    refuseOther(expected, before, panelVersion(before));
    const was = await getProductRevision(db, before.productRevisionId);
    const will = await getProductRevision(db, brief.productRevisionId);
    if (!will) throw new Refusal("productRevisionId", "Choose a product from the shelf");
    const reshaped = !isSame(before.shape, brief.shape);
    if (reshaped && (await isPlacedOn(db, panelId)))
      throw new Refusal("shape", "Readings or faults are placed on this outline: add a panel of the other shape instead");
    const said = [
      inWords([
        ["name", before.name, brief.name],
        ["hangs", degrees(before.tilt_rad), degrees(brief.tilt_rad)],
        ["below", SUBSTRATES[before.substrate].name, SUBSTRATES[brief.substrate].name],
        ["product", was ? `${was.sheet.name}, revision ${was.revision}` : "", `${will.sheet.name}, revision ${will.revision}`],
        ["coats", String(before.coatsPlanned), String(brief.coatsPlanned)],
        ["faces", String(before.sides ?? 1), String(brief.sides ?? 1)],
      ]),
      reshaped ? "outline drawn anew" : "",
    ]
      .filter(Boolean)
      .join("; ");
    if (said === "") return false;
    await setPanelBrief(db, panelId, reshaped ? brief : { ...brief, shape: before.shape });
    await noteOf(ctx, running, panelId, `Panel changed. ${said}`, by);
    tell({ topic: "job", id: before.jobId });
    return true;
  });
}

/** A job once more: its brief and its panels, nothing that was logged on them. Pressed twice, it is copied once. */
export async function copyJob(
  ctx: ServerContext,
  jobId: string,
  clientKey: string | null = null,
): Promise<{ jobId: string; panelId: string }> {
  const job = await getJob(ctx.db, jobId);
  const panels = await listPanels(ctx.db, jobId);
  const [panel, ...morePanels] = panels.map(
    ({ name, shape, tilt_rad, substrate, productRevisionId, coatsPlanned, sides, rows, place, colour }): NewPanel => ({
      name,
      shape,
      tilt_rad,
      substrate,
      productRevisionId,
      coatsPlanned,
      sides,
      rows,
      place,
      colour,
    }),
  );
  if (!job || !panel) throw new Refusal(null, "This job is no longer there", 404);
  const { colourName, colourCss, finish, way, brief, colours } = job;
  const vehicle = `${job.vehicle}, again`;
  return createJob(ctx, { vehicle, colourName, colourCss, finish, wayId: way.id, way, brief, colours, panel, morePanels, clientKey });
}
