import { withFlowCoats } from "#core/models/ways/flow-stage";
import type { PlannedCoat } from "#core/models/ways/way";
import { livingEntries } from "#core/record/timeline";
import { ofKind } from "#core/record/entry";
import type { ServerContext } from "../context";
import { getJob, setJobWay } from "../repos/job-repo";
import { listEntries } from "../repos/ledger-repo";
import { listPanels, setCoatsPlanned } from "../repos/panel-repo";
import { recordEntries } from "./record-entry";
import { Refusal } from "./refusal";
import { refreshSummariesOf } from "../repos/summary-repo";

/**
 * Goes on from what is on a panel with a flow coat: its job's way gets the sanding and the coats, the panel so many coats more, and its ledger says
 * so. The course follows from there. @returns how many coats the panel has then
 */
export async function planFlowCoat(
  ctx: ServerContext,
  input: { jobId: string; panelId: string; coat: PlannedCoat; coats: number; by: string; clientKey: string | null },
): Promise<number> {
  const { jobId, panelId, coat, coats, by, clientKey } = input;
  const panels = await listPanels(ctx.db, jobId);
  if (!panels.some((p) => p.id === panelId)) throw new Refusal(null, "This panel is no longer there", 404);
  const on = ofKind(livingEntries(await listEntries(ctx.db, panelId)), "coat").filter((c) => c.body.side === "front").length;
  if (on === 0) throw new Refusal(null, "No coat is logged here yet: a flow coat goes over one");
  const text = `Flow coat planned: cure, sand flat, then ${coats} more at ${Math.round(100 * coat.speedFactor)} % of the usual hand speed`;
  await recordEntries(ctx, panelId, [{ panelId, kind: "note", body: { text }, by, clientKey }], async ({ db, tell }) => {
    // Upon the way as it stands now: another panel of the job may have been given its flow coat a moment ago.
    const job = await getJob(db, jobId);
    if (!job) throw new Refusal(null, "This job is no longer there", 404);
    await setJobWay(db, jobId, withFlowCoats(job.way, on, { coat, coats }));
    await setCoatsPlanned(db, panelId, on + coats);
    await refreshSummariesOf(db, jobId, panelId);
    tell({ topic: "job", id: jobId });
    tell({ topic: "clock", id: panelId });
  });
  return on + coats;
}
