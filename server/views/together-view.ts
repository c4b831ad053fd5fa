import type { ServerContext } from "../context";
import { listStandings } from "../repos/summary-repo";
import { type PanelView, loadPanelView } from "./panel-view";

/** Another panel of a job, and the steps that are open there. */
export interface OtherPanel {
  id: string;
  name: string;
  open: readonly string[];
}

/** So many panels are looked at as they stand now; of more, what their rows say, which is as of their newest entry. */
const MOST_LIVE = 8;

/** What may be done at a job's other panels: several that are at one step go together. */
export async function loadOthers(
  ctx: ServerContext,
  jobId: string,
  { panel, panels }: Pick<PanelView, "panel" | "panels">,
): Promise<OtherPanel[]> {
  const others = panels.filter((p) => p.id !== panel.id);
  if (others.length > MOST_LIVE)
    return (await listStandings(ctx.db, [jobId]))
      .filter((s) => s.panelId !== panel.id)
      .map(({ panelId, name, standing }) => ({ id: panelId, name, open: standing.open }));
  const views = await Promise.all(
    others.map(({ id }) => ctx.reads.read(`panel ${jobId} ${id}`, ctx.now_ms(), () => loadPanelView(ctx, jobId, id))),
  );
  return views.flatMap((v) => (v ? [{ id: v.panel.id, name: v.panel.name, open: v.standing.open }] : []));
}
