import { requireRight } from "../access/actor";
import { type GunBody, gunBody } from "#core/models/spray/gun";
import { fitGunCurve, gunFlow } from "#core/models/spray/gun-curve";
import type { BodyOf } from "#core/record/bodies";
import type { ServerContext } from "../context";
import { getGun, insertGun, setGunArchived, updateGun } from "../repos/gun-repo";
import { recordEntry } from "./record-entry";
import { Refusal, refuseOther } from "./refusal";
import { run } from "./run";

/** Keeps a gun: a new one, or a change of one that nobody else has changed meanwhile. @throws ChangedMeanwhile */
export async function saveGun(
  ctx: ServerContext,
  { id, version, body, clientKey }: { id: string | null; version: string | null; body: GunBody; clientKey: string | null },
): Promise<string> {
  const checked = gunBody.parse(body);
  const form = id === null ? { key: clientKey, what: "gun", content: checked } : null;
  return run(ctx, form, async ({ db, now_ms, tell }) => {
    tell({ topic: "shop", id: "guns" });
    if (id === null) {
      const made = ctx.newId();
      await insertGun(db, { id: made, body: checked, now_ms });
      return made;
    }
    const there = await getGun(db, id);
    if (!there) throw new Refusal(null, "This gun is no longer there", 404);
    refuseOther(version, there.body, String(there.version));
    await updateGun(db, there, checked);
    return id;
  });
}

export async function archiveGun(ctx: ServerContext, id: string, archived: boolean): Promise<void> {
  requireRight(ctx, "shop");
  await run(ctx, null, async ({ db, now_ms, tell }) => {
    if (!(await setGunArchived(db, id, archived ? now_ms : null))) throw new Refusal(null, "This gun is no longer there", 404);
    tell({ topic: "shop", id: "guns" });
  });
}

/** A gun's settings as a coat takes them: its flow from its own cups, its fan scaled to the distance. */
export function coatSettings(gun: GunBody): BodyOf<"coat">["settings"] {
  const flow = gunFlow(gun.cups.length > 0 ? fitGunCurve(gun.cups) : null, gun.settings.turns, gun.cups);
  return {
    fluidRate_m3_s: flow.fluidRate_m3_s,
    fluidFrom: flow.from,
    turns: gun.settings.turns,
    pressure_Pa: gun.settings.pressure_Pa,
    distance_m: gun.settings.distance_m,
    overlap: gun.settings.overlap,
    handSpeed_m_s: gun.settings.handSpeed_m_s,
    fan_m: gun.fan ? (gun.fan.fan_m * gun.settings.distance_m) / gun.fan.distance_m : null,
  };
}

/** Takes a gun up for the coats to come of a panel. */
export async function takeUpGun(
  ctx: ServerContext,
  input: { panelId: string; gunId: string; by: string; clientKey: string | null },
): Promise<string> {
  const gun = await getGun(ctx.db, input.gunId);
  if (!gun) throw new Refusal(null, "This gun is no longer there", 404);
  return recordEntry(ctx, {
    panelId: input.panelId,
    kind: "gunSet",
    body: { name: gun.body.name, gunId: gun.id, settings: coatSettings(gun.body) },
    by: input.by,
    clientKey: input.clientKey,
  });
}
