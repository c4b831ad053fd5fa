import { requireRight } from "../access/actor";
import { ofKind } from "#core/record/entry";
import { livingEntries } from "#core/record/timeline";
import type { ServerContext } from "../context";
import { listEntries, readLedger } from "../repos/ledger-repo";
import { listPanels } from "../repos/panel-repo";
import { removePanelRows } from "../repos/removed-job-repo";
import { forgetRemovedPanel, keepRemovedPanel, removedPanelFile } from "../repos/removed-panel-repo";
import { exportJob, importPanels } from "./job-bundles";
import { Refusal } from "./refusal";
import { keptBundle } from "./remove-job";
import { run } from "./run";

interface PanelAt {
  jobId: string;
  panelId: string;
}
const NOT_HERE = "No file is kept of this panel.";

/**
 * Takes a panel that was added by mistake off its job: a file of it is kept and can be taken back in; all its rows go, in one transaction.
 * @returns its name
 * @throws Refusal for a job's only panel, one whose pot serves others, one that changed meanwhile, and one with entries that this version cannot read
 */
export async function removePanel(ctx: ServerContext, { jobId, panelId, by }: PanelAt & { by: string }): Promise<string> {
  requireRight(ctx, "delete");
  const bundle = await exportJob(ctx, jobId, panelId);
  return run(ctx, null, async ({ db, now_ms, tell }) => {
    const panels = await listPanels(db, jobId);
    const panel = panels.find((p) => p.id === panelId);
    if (!bundle || !panel) throw new Refusal(null, "This panel is no longer there", 404);
    if (panels.length === 1) throw new Refusal(null, "It is the only panel of this job: archive and delete the job instead.", 409);
    const { entries, unread } = await readLedger(db, panelId);
    if (unread.length > 0)
      throw new Refusal(null, "This panel holds entries of another version, which its file would lose. It was not removed.", 409);
    if (entries.length !== bundle.panels[0]?.entries.length)
      throw new Refusal(null, "Something was logged on this panel just now. It was not removed; look again.", 409);
    const pots = ofKind(livingEntries(entries), "mix");
    const others = await Promise.all(panels.filter((p) => p.id !== panelId).map((p) => listEntries(db, p.id)));
    const drawn = new Set(
      others.flatMap((l) => livingEntries(l).flatMap((e) => (e.kind === "coat" || e.kind === "colourCoat" ? [e.body.potId] : []))),
    );
    if (pots.some((m) => drawn.has(m.id) || m.body.panels.some((id) => id !== panelId)))
      throw new Refusal(null, "A pot that was mixed on it is for other panels too: move that mix to one of them first.", 409);
    await keepRemovedPanel(db, { panelId, jobId, name: panel.name, removedAt_ms: now_ms, by, file: JSON.stringify(bundle) });
    await removePanelRows(db, [panelId]);
    tell({ topic: "job", id: jobId });
    return panel.name;
  });
}

/** Takes a removed panel back onto its job, as it was. @throws Refusal when no file of it is kept */
export async function takeBackPanel(ctx: ServerContext, { jobId, panelId }: PanelAt): Promise<void> {
  requireRight(ctx, "delete");
  const file = await removedPanelFile(ctx.db, jobId, panelId);
  if (file === null) throw new Refusal(null, NOT_HERE, 404);
  await importPanels(ctx, keptBundle(file), async ({ db }) => {
    if (!(await forgetRemovedPanel(db, panelId))) throw new Refusal(null, NOT_HERE, 404);
  });
}

/** Lets the file of a removed panel go: after that nothing of it is left here. @throws Refusal when there is none */
export async function forgetPanel(ctx: ServerContext, { jobId, panelId }: PanelAt): Promise<void> {
  requireRight(ctx, "delete");
  await run(ctx, null, async ({ db, tell }) => {
    if (!(await forgetRemovedPanel(db, panelId))) throw new Refusal(null, NOT_HERE, 404);
    tell({ topic: "job", id: jobId });
  });
}
