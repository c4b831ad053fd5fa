import { median } from "#core/kernel/stats/summary";
import { ofKind } from "#core/record/entry";
import { livingEntries } from "#core/record/timeline";
import type { ServerContext } from "../context";
import { entriesOfKind } from "../repos/ledger-repo";
import { listPanels } from "../repos/panel-repo";

/** Gloss at 60° of a job's other panels, the newest of each that was read. */
export async function loadOthersGloss(ctx: ServerContext, jobId: string, panelId: string): Promise<number[]> {
  const [panels, entries] = await Promise.all([listPanels(ctx.db, jobId), entriesOfKind(ctx.db, jobId, "gloss")]);
  const glosses = ofKind(livingEntries(entries), "gloss").filter((g) => g.body.role === "part" && g.body.angle === 60);
  return panels.flatMap(({ id }) => {
    const read = id === panelId ? undefined : glosses.findLast((g) => g.panelId === id);
    return read ? [median(read.body.readings.map((r) => r.gloss_GU))] : [];
  });
}
