import type { BodyOf } from "#core/ledger/bodies";
import { derivePanel } from "#core/ledger/derive-panel";
import type { ServerContext } from "../context";
import { type Gun, listGuns } from "../repos/gun-repo";
import { getJob } from "../repos/job-repo";
import { countByPanel, listEntries } from "../repos/ledger-repo";
import { getPanel } from "../repos/panel-repo";
import { getProductRevision } from "../repos/product-repo";

const MOST = 6;

/** Settings of a last coat on a panel that came out without a run or peel. */
export interface WorkedSettings {
  entryId: string;
  where: string;
  product: string;
  air_K: number | null;
  settings: BodyOf<"coat">["settings"];
}

/** The shop's guns, and settings that worked on the newest panels read after clear. */
export async function loadGuns(ctx: ServerContext): Promise<{ guns: Gun[]; worked: WorkedSettings[] }> {
  const [guns, counted] = await Promise.all([listGuns(ctx.db), countByPanel(ctx.db)]);
  const good = counted.filter((p) => p.coats > 0 && p.readings.after > 0).slice(-4 * MOST);
  const worked: WorkedSettings[] = [];
  for (const p of good.reverse()) {
    if (worked.length >= MOST) break;
    const [panel, job] = await Promise.all([getPanel(ctx.db, p.panelId), getJob(ctx.db, p.jobId)]);
    const product = panel && (await getProductRevision(ctx.db, panel.productRevisionId));
    if (!panel || !job || !product) continue;
    const state = derivePanel(panel, product.sheet, await listEntries(ctx.db, p.panelId));
    const last = state.coats.at(-1);
    if (!last || state.defects.some((d) => d.body.kind !== "nib")) continue;
    worked.push({
      entryId: last.entry.id,
      where: `${job.vehicle}, ${panel.name}`,
      product: product.sheet.name,
      air_K: state.climate?.body.air_K ?? null,
      settings: last.entry.body.settings,
    });
  }
  return { guns, worked };
}
