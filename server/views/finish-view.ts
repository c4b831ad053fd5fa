import { median } from "#core/kernel/stats/summary";
import { ofKind } from "#core/record/entry";
import { livingEntries } from "#core/record/timeline";
import type { ServerContext } from "../context";
import { listEntries } from "../repos/ledger-repo";
import { listPanels } from "../repos/panel-repo";

/** Gloss at 60° of a job's other panels, the newest of each that was read. */
export async function loadOthersGloss(ctx: ServerContext, jobId: string, panelId: string): Promise<number[]> {
  const others = (await listPanels(ctx.db, jobId)).filter((p) => p.id !== panelId);
  const ledgers = await Promise.all(others.map((p) => listEntries(ctx.db, p.id)));
  return ledgers.flatMap((entries) => {
    const read = ofKind(livingEntries(entries), "gloss").findLast((g) => g.body.role === "part" && g.body.angle === 60);
    return read ? [median(read.body.readings.map((r) => r.gloss_GU))] : [];
  });
}
