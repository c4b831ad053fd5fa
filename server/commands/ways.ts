import { requireRight } from "../access/actor";
import { HOUSE_WAYS } from "#core/models/ways/house-ways";
import type { HouseWay, HouseWayBody } from "#core/models/ways/way";
import { houseWayBody } from "#core/models/ways/way-body";
import type { ServerContext } from "../context";
import type { Db } from "../db/open";
import { getOwnWay, insertWay, listOwnWays, setWayArchived, updateWay } from "../repos/way-repo";
import { Refusal, refuseOther } from "./refusal";
import { run } from "./run";

/** A way by its id: one that every shop has, or one of its own. @param kept the way that a job has already, whatever House says of it now */
export async function wayById(db: Db, id: string, kept?: HouseWay): Promise<HouseWay> {
  if (kept?.id === id) return kept;
  const found = HOUSE_WAYS.find((w) => w.id === id) ?? (await getOwnWay(db, id));
  if (!found) throw new Refusal("wayId", "This house way is not in House any more");
  return found;
}

/** Keeps a way: a new one, or a change of one that nobody else has changed meanwhile. Jobs that were started keep theirs. @throws ChangedMeanwhile */
export async function saveWay(
  ctx: ServerContext,
  { id, version, body, clientKey }: { id: string | null; version: string | null; body: HouseWayBody; clientKey: string | null },
): Promise<string> {
  requireRight(ctx, "shop");
  const checked = houseWayBody.parse(body);
  const form = id === null ? { key: clientKey, what: "way", content: checked } : null;
  return run(ctx, form, async ({ db, now_ms, tell }) => {
    await refuseName(db, checked.name, id);
    tell({ topic: "shop", id: "ways" });
    if (id === null) {
      const made = ctx.newId();
      await insertWay(db, { id: made, body: checked, now_ms });
      return made;
    }
    const there = await getOwnWay(db, id);
    if (!there) throw new Refusal(null, "This way is no longer there", 404);
    refuseOther(version, there, String(there.version));
    await updateWay(db, there, checked);
    return id;
  });
}

/** A list must tell ways apart. */
async function refuseName(db: Db, name: string, but: string | null): Promise<void> {
  const others = [...(await listOwnWays(db)).filter((w) => w.id !== but), ...HOUSE_WAYS];
  if (others.some((w) => w.name.toLowerCase() === name.toLowerCase()))
    throw new Refusal("name", "Another way has this name; a list must tell them apart");
}

/** Takes a way off the lists, or puts it back; jobs that have it keep it. */
export async function archiveWay(ctx: ServerContext, id: string, archived: boolean): Promise<void> {
  requireRight(ctx, "shop");
  if (HOUSE_WAYS.some((w) => w.id === id)) throw new Refusal(null, "A way of the trade stays; only a way of this shop is put away");
  await run(ctx, null, async ({ db, now_ms, tell }) => {
    if (!(await setWayArchived(db, id, archived ? now_ms : null))) throw new Refusal(null, "This way is no longer there", 404);
    tell({ topic: "shop", id: "ways" });
  });
}
