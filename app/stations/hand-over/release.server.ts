import type { ServerContext } from "#server/context";
import { loadOthersGloss } from "#server/views/finish-view";
import type { PanelView } from "#server/views/panel-view";
import { releaseCheckAt } from "./release-check-at";
import type { OutReckoned } from "./release-check.desk";

/** Whether a panel goes out, as it stands now. */
export async function loadRelease(
  ctx: ServerContext,
  { jobId, panelId, view }: { jobId: string; panelId: string; view: PanelView },
): Promise<OutReckoned> {
  const others_GU = await loadOthersGloss(ctx, jobId, panelId);
  const at_ms = ctx.now_ms();
  return { at_ms, out: releaseCheckAt(view, others_GU, at_ms), others_GU };
}
