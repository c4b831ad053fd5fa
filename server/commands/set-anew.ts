import { coatsAsked } from "#core/coat/asked";
import { type EqualFinish, type FoundOtherwise, equalFinish, equalFrom } from "#core/coat/equal-finish";
import { handFor } from "#core/coat/next-coat";
import { inRange } from "#core/kernel/guard";
import type { ServerContext } from "../context";
import { dialVersion } from "../views/dial-view";
import type { PanelView } from "../views/panel-view";
import { entryBefore, recordEntries } from "./record-entry";
import { Refusal, refuseOther } from "./refusal";

interface SetAnew {
  found: FoundOtherwise;
  by: EqualFinish["ways"][number]["by"];
  /** Who enters it. */
  who: string;
  clientKey: string | null;
  /** The version of the ledger that it was worked out on, as the form says. */
  expected: string | null;
}

/**
 * The gun set anew for an equal finish, worked out here again from what was found: the job's gun from now on, and the air where it was found to be
 * another. @returns the gun's entry @throws ChangedMeanwhile @throws Refusal where there is no such coat, or the air was never logged
 */
export async function setAnew(ctx: ServerContext, view: PanelView, { found, by, who, clientKey, expected }: SetAnew): Promise<string> {
  const panelId = view.panel.id;
  const content = { found, by };
  const again = await entryBefore(ctx, panelId, clientKey, content);
  if (again) return again;
  refuseOther(expected, null, dialVersion(view));
  const asked = coatsAsked(view, ctx.now_ms());
  const from = equalFrom(asked);
  const way = from && inRange(() => equalFinish(from, found))?.ways.find((w) => w.by === by);
  if (!from || !way) throw new Refusal(null, "There is no coat to set the gun for any more; look again");
  const climate = view.state.climate?.body;
  const otherAir = found.air_K !== from.conditions.air_K;
  if (otherAir && !climate) throw new Refusal("air", "Log the climate first: its humidity is not known");
  const entry = { panelId, by: who, clientKey, asked: content, expectedVersion: view.expectedVersion };
  const [id] = await recordEntries(ctx, panelId, [
    { ...entry, kind: "gunSet", body: { name: "set anew", gunId: null, settings: handFor(asked, way.settings) } },
    ...(otherAir && climate ? [{ ...entry, kind: "climate" as const, body: { ...climate, air_K: found.air_K } }] : []),
  ]);
  return id!;
}
