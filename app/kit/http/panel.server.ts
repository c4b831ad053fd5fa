import { data } from "react-router";
import type { ServerContext } from "#server/context";
import type { ProductSheet } from "#core/models/product/sheet";
import { getPanel } from "#server/repos/panel-repo";
import { getProductRevision } from "#server/repos/product-repo";
import { type PanelView, loadPanelView } from "#server/views/panel-view";

const gone = () => data("This job or panel is not in the file.", { status: 404 });

/** A panel's view for a page, with a key of the page's own for its forms; thrown as 404 when job or panel is not there. */
export async function panelOr404(ctx: ServerContext, jobId: string, panelId: string): Promise<PanelView> {
  const view = await ctx.reads.read(`panel ${jobId} ${panelId}`, ctx.now_ms(), () => loadPanelView(ctx, jobId, panelId));
  if (!view) throw gone();
  return { ...view, formKey: ctx.newId() };
}

/** The same where only the panel is named. */
export async function panelAloneOr404(ctx: ServerContext, panelId: string): Promise<PanelView> {
  const panel = await getPanel(ctx.db, panelId);
  if (!panel) throw gone();
  return panelOr404(ctx, panel.jobId, panelId);
}

/** The sheet alone that a panel is planned with: for a form that is checked by it, without working out the panel. */
export async function sheetOr404(ctx: ServerContext, panelId: string): Promise<ProductSheet> {
  const panel = await getPanel(ctx.db, panelId);
  const product = panel && (await getProductRevision(ctx.db, panel.productRevisionId));
  if (!product) throw gone();
  return product.sheet;
}
