import { partGloss60 } from "#core/panel/gloss-read";
import { ofKind } from "#core/record/entry";
import { livingEntries } from "#core/record/timeline";
import type { ServerContext } from "../context";
import { entriesOfKind } from "../repos/ledger-repo";
import { listPanels } from "../repos/panel-repo";

/** Gloss at 60° of a job's other panels, the newest of each that was read. */
export async function loadOthersGloss(ctx: ServerContext, jobId: string, panelId: string): Promise<number[]> {
  const [panels, entries] = await Promise.all([listPanels(ctx.db, jobId), entriesOfKind(ctx.db, jobId, "gloss")]);
  const glosses = ofKind(livingEntries(entries), "gloss");
  return panels.flatMap(({ id }) => (id === panelId ? [] : (partGloss60(glosses.filter((g) => g.panelId === id)) ?? [])));
}
