import type { PanelView } from "../views/panel-view";
import type { ServerContext } from "../context";
import { recordEntry } from "./record-entry";
import { Refusal } from "./refusal";

/** Most places added to the suggested ones. */
const MOST_ADDED = 24;

/** Reads the panel at so many suggested places from now on; places added stay. */
export function setSpotCount(
  ctx: ServerContext,
  { panel, state }: PanelView,
  { count, by }: { count: number; by: string },
): Promise<string> {
  return recordEntry(ctx, { panelId: panel.id, kind: "spotPlan", by, body: { count, added: state.spotPlan?.body.added ?? [] } });
}

/** Adds a place to read, under the next free name. @returns the name @throws Refusal when there are too many */
export async function addSpot(
  ctx: ServerContext,
  { panel, state, spotPlan, spotCount }: PanelView,
  { x_m, y_m, by }: { x_m: number; y_m: number; by: string },
): Promise<string> {
  const added = state.spotPlan?.body.added ?? [];
  if (added.length >= MOST_ADDED) throw new Refusal(null, `At most ${MOST_ADDED} places can be added`);
  const names = new Set(spotPlan.map((s) => s.name));
  let number = 1;
  while (names.has(`+${number}`)) number++;
  const name = `+${number}`;
  await recordEntry(ctx, {
    panelId: panel.id,
    kind: "spotPlan",
    by,
    body: { count: spotCount, added: [...added, { name, at: { x_m, y_m } }] },
  });
  return name;
}
