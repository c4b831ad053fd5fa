import { handGun } from "#core/coat/next-coat";
import { nextAsked } from "#core/coat/asked";
import type { PathSet } from "#core/coat/path-ahead";
import type { ServerContext } from "../context";
import { versionOf } from "../repos/digest";
import { type Panel, getPanel, setRowPlan } from "../repos/panel-repo";
import type { PanelView } from "../views/panel-view";
import { appendEntries } from "./record-entry";
import { Refusal, refuseOther } from "./refusal";
import { run } from "./run";

/** The version of where a panel's rows lie. */
export const rowsVersion = ({ rows }: Pick<Panel, "rows">): string => versionOf(rows ?? null);

interface PathTaken extends PathSet {
  by: string;
  clientKey: string | null;
  /** The version that it was planned on; null for whoever has not looked. */
  expected?: string | null;
  /** In words, for the ledger. */
  said: string;
}

/** Takes a path for the coats to come of a panel: its rows, and the hand's overlap and pace where they are others than the gun in the hand has. @throws ChangedMeanwhile */
export async function takePath(
  ctx: ServerContext,
  view: PanelView,
  { rows, overlap, handSpeed_m_s, by, clientKey, expected = null, said }: PathTaken,
): Promise<void> {
  const panelId = view.panel.id;
  const { settings, gunName } = handGun(nextAsked(view));
  const otherHand = settings.overlap !== overlap || settings.handSpeed_m_s !== handSpeed_m_s;
  const content = { rows, overlap, handSpeed_m_s };
  await run(ctx, { key: clientKey, what: `path of ${panelId}`, content }, async (running) => {
    const before = await getPanel(running.db, panelId);
    if (!before) throw new Refusal(null, "This panel is no longer there", 404);
    refuseOther(expected, before.rows ?? null, rowsVersion(before));
    await setRowPlan(running.db, panelId, rows);
    await appendEntries(ctx, running, panelId, [
      { panelId, kind: "note", body: { text: said }, by },
      ...(otherHand
        ? [
            {
              panelId,
              kind: "gunSet" as const,
              body: { name: gunName ?? "as planned with the path", gunId: null, settings: { ...settings, overlap, handSpeed_m_s } },
              by,
            },
          ]
        : []),
    ]);
    running.tell({ topic: "job", id: view.job.id });
  });
}
