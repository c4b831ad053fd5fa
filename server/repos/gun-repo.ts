import { type GunBody, gunBody } from "#core/models/spray/gun";
import type { Db, Tx } from "../db/open";

export interface Gun {
  id: string;
  body: GunBody;
  version: number;
}

/** The shop's guns, newest first. */
export async function listGuns(db: Db): Promise<Gun[]> {
  const rows = await db.selectFrom("gun").selectAll().where("archived_at_ms", "is", null).orderBy("created_at_ms", "desc").execute();
  return rows.map((r) => ({ id: r.id, body: gunBody.parse(JSON.parse(r.body_json)), version: r.version }));
}

export async function getGun(db: Db, id: string): Promise<Gun | null> {
  const row = await db.selectFrom("gun").selectAll().where("id", "=", id).executeTakeFirst();
  return row ? { id: row.id, body: gunBody.parse(JSON.parse(row.body_json)), version: row.version } : null;
}

export async function insertGun(db: Tx, gun: { id: string; body: GunBody; now_ms: number }): Promise<void> {
  await db
    .insertInto("gun")
    .values({
      id: gun.id,
      body_json: JSON.stringify(gun.body),
      version: 1,
      created_at_ms: gun.now_ms,
      archived_at_ms: null,
      client_key: null,
    })
    .execute();
}

/** A change upon the version that was read in the same transaction. */
export async function updateGun(db: Tx, { id, version }: Gun, body: GunBody): Promise<void> {
  await db
    .updateTable("gun")
    .set({ body_json: JSON.stringify(body), version: version + 1 })
    .where("id", "=", id)
    .execute();
}

export async function setGunArchived(db: Tx, id: string, archivedAt_ms: number | null): Promise<boolean> {
  const { numUpdatedRows } = await db.updateTable("gun").set({ archived_at_ms: archivedAt_ms }).where("id", "=", id).executeTakeFirst();
  return numUpdatedRows > 0n;
}
