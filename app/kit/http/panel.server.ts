import { data } from "react-router";
import type { ServerContext } from "#server/context";
import { getPanel } from "#server/repos/panel-repo";
import { type PanelView, loadPanelView } from "#server/views/panel-view";

const gone = () => data("This panel is not in the file.", { status: 404 });

/** A panel's view for a page; thrown as 404 when job or panel is not there. */
export async function panelOr404(ctx: ServerContext, jobId: string, panelId: string): Promise<PanelView> {
  const view = await loadPanelView(ctx, jobId, panelId);
  if (!view) throw gone();
  return view;
}

/** The same where only the panel is named. */
export async function panelAloneOr404(ctx: ServerContext, panelId: string): Promise<PanelView> {
  const panel = await getPanel(ctx.db, panelId);
  if (!panel) throw gone();
  return panelOr404(ctx, panel.jobId, panelId);
}
