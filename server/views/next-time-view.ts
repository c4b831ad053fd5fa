import { clearSummary } from "#core/ledger/clear-summary";
import { derivePanel } from "#core/ledger/derive-panel";
import type { SprayedPanel } from "#core/ledger/next-time";
import type { ServerContext } from "../context";
import { getJob } from "../repos/job-repo";
import { countByPanel, listEntries } from "../repos/ledger-repo";
import { getPanel } from "../repos/panel-repo";
import { getProductRevision } from "../repos/product-repo";

/** So many of the newest panels are looked at. */
const PANELS_MOST = 80;

/** The shop's sprayed panels with their settings and results, oldest first. */
export async function loadSprayed(ctx: ServerContext): Promise<SprayedPanel[]> {
  const counted = (await countByPanel(ctx.db)).filter((p) => p.coats > 0).slice(-PANELS_MOST);
  const rows = await Promise.all(
    counted.map(async ({ panelId, jobId }): Promise<SprayedPanel | null> => {
      const [panel, job] = await Promise.all([getPanel(ctx.db, panelId), getJob(ctx.db, jobId)]);
      const product = panel && (await getProductRevision(ctx.db, panel.productRevisionId));
      if (!panel || !job || !product) return null;
      const state = derivePanel(panel, product.sheet, await listEntries(ctx.db, panelId));
      const last = state.coats.at(-1);
      // What came of it shows when all coats are on and somebody has looked: a panel between its coats says nothing yet.
      const looked = state.spots.some((s) => s.films.after ?? s.films.recheck) || state.texture.some((t) => t.body.role === "part");
      if (!last || state.coats.length < panel.coatsPlanned || !(looked || state.handedOver || state.defects.length > 0)) return null;
      return {
        panelId,
        what: `${job.vehicle}, ${panel.name.toLowerCase()}`,
        at_ms: last.entry.at_ms,
        productId: product.id,
        air_K: state.climate?.body.air_K ?? null,
        settings: last.entry.body.settings,
        reducer: last.entry.body.reducer,
        wet_m: last.predicted.wet_m,
        clear_m: clearSummary(state)?.mean_m ?? null,
        rating: state.texture.findLast((t) => t.body.role === "part")?.body.rating ?? null,
        defects: state.defects.map((d) => d.body.kind),
        causes: state.causes.flatMap((c) => (c.body.causeId ? [c.body.causeId] : [])),
        simulated: state.simulated,
      };
    }),
  );
  return rows.filter((r) => r !== null).sort((a, b) => a.at_ms - b.at_ms);
}
