import type { Change } from "#server/events/bus";

/** Pages of one panel: they show it, its job, the shop and the shelf; what is done on other panels is not theirs. */
const PANEL_PAGE = /^\/jobs\/([^/]+)\/panels\/([^/]+)\//;
/** Pages of a job's panels together. */
const JOB_PAGE = /^\/jobs\/([^/]+)\/(booth|add-panel)/;

/** Whether a change concerns what a window shows at a path. The clocks stand on every page. */
export function concerns(change: Change, path: string): boolean {
  if (change.topic !== "panel" && change.topic !== "job") return true;
  const job = change.topic === "job" ? change.id : change.jobId;
  const [, jobId, panelId] = PANEL_PAGE.exec(path) ?? [];
  if (jobId) return change.topic === "job" ? job === jobId : change.id === panelId;
  const [, boothJob] = JOB_PAGE.exec(path) ?? [];
  return boothJob === undefined || job === boothJob || job == null;
}
