import { coatsAsked } from "#core/coat/asked";
import type { Standing } from "#core/course/standing";
import { bearsTape } from "#core/coat/bears-tape";
import { type Joint, type JointPart, jointsOf } from "#core/vehicle/joints";
import { roundOf } from "#core/vehicle/round";
import { type ColourOrder, colourOrder } from "#core/vehicle/two-colours";
import type { Round } from "#core/vehicle/round-walk";
import type { ServerContext } from "../context";
import type { Job } from "../repos/job-repo";
import { getJob } from "../repos/job-repo";
import { type Panel, listPanels } from "../repos/panel-repo";
import { listStandings } from "../repos/summary-repo";
import { versionOf } from "../repos/digest";
import { loadJobViews } from "./panel-view";

export interface VehicleView {
  job: Pick<Job, "id" | "vehicle" | "colourName" | "colourCss" | "colours">;
  panels: (Pick<Panel, "id" | "name" | "place" | "colour" | "shape"> & { standing: Standing | null })[];
  /** Of where its panels lie and in which order they are sprayed. */
  version: string;
}

/** The version of a job's panels as its vehicle shows them: places and order. */
export const placesVersion = (panels: readonly Pick<Panel, "id" | "place">[]): string =>
  versionOf(panels.map((p) => [p.id, p.place ?? null]));

/** A job's panels where they lie on their vehicle, each with its standing; null when the job is not there. */
export async function loadVehicle(ctx: ServerContext, jobId: string): Promise<VehicleView | null> {
  const [job, panels, standings] = await Promise.all([getJob(ctx.db, jobId), listPanels(ctx.db, jobId), listStandings(ctx.db, [jobId])]);
  if (!job) return null;
  const standing = new Map(standings.map((s) => [s.panelId, s.standing]));
  return {
    job: { id: job.id, vehicle: job.vehicle, colourName: job.colourName, colourCss: job.colourCss, colours: job.colours },
    panels: panels.map(({ id, name, place, colour, shape }) => ({ id, name, place, colour, shape, standing: standing.get(id) ?? null })),
    version: placesVersion(panels),
  };
}

const jointPart = ({ id, name, place, colour = "first" }: Panel): JointPart => ({ id, name, place, colour });

export interface ColoursView {
  job: Pick<Job, "id" | "vehicle" | "colourName" | "colourCss" | "colours" | "finish">;
  panels: (JointPart & Pick<Panel, "shape">)[];
  joints: Joint[];
  /** Null: all of it has one colour. */
  order: ColourOrder | null;
  version: string;
}

/** The version of a job's colours and of which part has which. */
export const coloursVersion = ({ colours }: Pick<Job, "colours">, panels: readonly Pick<Panel, "id" | "colour">[]): string =>
  versionOf([colours, panels.map((p) => [p.id, p.colour ?? "first"])]);

/** A job's colours, where they end and in which order they go on; null when the job is not there. */
export async function loadColours(ctx: ServerContext, jobId: string): Promise<ColoursView | null> {
  const views = await loadJobViews(ctx, jobId);
  const job = views[0]?.job;
  if (!job) return null;
  const now_ms = ctx.now_ms();
  const panels = views.map(({ panel }) => panel);
  const parts = panels.map(jointPart);
  const { id, vehicle, colourName, colourCss, colours, finish } = job;
  return {
    job: { id, vehicle, colourName, colourCss, colours, finish },
    panels: panels.map((panel, i) => ({ ...parts[i]!, shape: panel.shape })),
    joints: jointsOf(parts, job),
    order: job.colours.second && colourOrder(parts.map((part, i) => ({ ...part, tape: bearsTape(coatsAsked(views[i]!, now_ms)) }))),
    version: coloursVersion(job, panels),
  };
}

export interface RoundView {
  job: Pick<Job, "id" | "vehicle" | "colourName" | "colourCss" | "colours">;
  round: Round;
  /** Where each part of it lies, by its key. */
  places: (string | undefined)[];
  /** How many of its panels lie nowhere on a vehicle yet. */
  unplaced: number;
  version: string;
}

/** The next coats of a job's panels as one walk round its vehicle; null when the job is not there. */
export async function loadRound(ctx: ServerContext, jobId: string): Promise<RoundView | null> {
  const views = await loadJobViews(ctx, jobId);
  const job = views[0]?.job;
  if (!job) return null;
  const now_ms = ctx.now_ms();
  const panels = views.map((v) => ({ ...jointPart(v.panel), asked: coatsAsked(v, now_ms) }));
  const round = roundOf(panels);
  const places = round.parts.map((part) => panels.find((p) => p.id === part.id)!.place);
  return {
    job: { id: job.id, vehicle: job.vehicle, colourName: job.colourName, colourCss: job.colourCss, colours: job.colours },
    round,
    places,
    unplaced: places.filter((p) => !p).length,
    version: placesVersion(panels),
  };
}
