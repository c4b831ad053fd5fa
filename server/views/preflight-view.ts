import { format } from "date-fns";
import { PREFLIGHT, type PreflightId, stillCounts } from "#core/models/prep/preflight";
import type { ServerContext } from "../context";
import { loadJobViews } from "./panel-view";

/** Ticks that the job's other panels carry over, and the panel's climate log, newest first. */
export async function loadPreflight(ctx: ServerContext, jobId: string, panelId: string) {
  const views = await loadJobViews(ctx, jobId);
  const own = views.find((v) => v.panel.id === panelId);
  const now_ms = ctx.now_ms();
  const others = views
    .filter((v) => v.panel.id !== panelId)
    .flatMap(({ state: { preflight } }) => (preflight && stillCounts(preflight.at_ms, now_ms) ? preflight.body.ticks : []));
  const forJob = new Set<PreflightId>(PREFLIGHT.filter((p) => p.scope === "job").map((p) => p.id));
  return {
    fromJob: [...new Set(others)].filter((t) => forJob.has(t)),
    log: (own?.state.climates ?? [])
      .map((c) => ({ id: c.id, at: format(c.at_ms, "d MMM HH:mm"), simulated: c.simulated, ...c.body }))
      .reverse(),
  };
}
