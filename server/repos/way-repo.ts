import { HOUSE_WAYS } from "#core/models/ways/house-ways";
import { type HouseWay, type HouseWayBody, ownWay } from "#core/models/ways/way";
import { houseWayBody } from "#core/models/ways/way-body";
import type { Db, Tx } from "../db/open";

/** A way of the shop's own, with the version that a change is made upon. */
export interface OwnWay extends HouseWay {
  version: number;
}
const toWay = (r: { id: string; body_json: string; version: number }): OwnWay => ({
  ...ownWay(r.id, houseWayBody.parse(JSON.parse(r.body_json))),
  version: r.version,
});

/** The shop's own ways that are in use, by name. */
export async function listOwnWays(db: Db): Promise<OwnWay[]> {
  const rows = await db.selectFrom("house_way").selectAll().where("archived_at_ms", "is", null).orderBy("created_at_ms").execute();
  return rows.map(toWay).sort((a, b) => a.name.localeCompare(b.name));
}

/** Every way that a job may be sprayed: the shop's own first, then those that every shop has. */
export const listWays = async (db: Db): Promise<HouseWay[]> => [...(await listOwnWays(db)), ...HOUSE_WAYS];

export async function getOwnWay(db: Db, id: string): Promise<OwnWay | null> {
  const row = await db.selectFrom("house_way").selectAll().where("id", "=", id).executeTakeFirst();
  return row ? toWay(row) : null;
}

export async function insertWay(db: Tx, way: { id: string; body: HouseWayBody; now_ms: number }): Promise<void> {
  await db
    .insertInto("house_way")
    .values({ id: way.id, body_json: JSON.stringify(way.body), version: 1, created_at_ms: way.now_ms, archived_at_ms: null })
    .execute();
}

/** A change upon the version that was read in the same transaction. */
export async function updateWay(db: Tx, { id, version }: OwnWay, body: HouseWayBody): Promise<void> {
  await db
    .updateTable("house_way")
    .set({ body_json: JSON.stringify(body), version: version + 1 })
    .where("id", "=", id)
    .execute();
}

export async function setWayArchived(db: Tx, id: string, archivedAt_ms: number | null): Promise<boolean> {
  const { numUpdatedRows } = await db
    .updateTable("house_way")
    .set({ archived_at_ms: archivedAt_ms })
    .where("id", "=", id)
    .executeTakeFirst();
  return numUpdatedRows > 0n;
}
