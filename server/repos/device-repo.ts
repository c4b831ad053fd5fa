import type { Insertable, Selectable, Updateable } from "kysely";
import type { Db, Tx } from "../db/open";
import type { DeviceTable } from "../db/schema";

/** A screen, or a bridge: a program beside a gauge or a scale that sends what it reads. */
export type DeviceKind = "screen" | "bridge";
export type DeviceRow = Selectable<DeviceTable>;

const living = (db: Db) => db.selectFrom("device").selectAll().where("ended_at_ms", "is", null);

/** Devices that may come in, as they were paired. */
export const listDevices = (db: Db): Promise<DeviceRow[]> => living(db).orderBy("paired_at_ms").orderBy("id").execute();
export const getDevice = async (db: Db, id: string): Promise<DeviceRow | null> =>
  (await living(db).where("id", "=", id).executeTakeFirst()) ?? null;
export const deviceOfToken = async (db: Db, tokenHash: string): Promise<DeviceRow | null> =>
  (await living(db).where("token_hash", "=", tokenHash).executeTakeFirst()) ?? null;

export async function insertDevice(db: Tx, device: Insertable<DeviceTable>): Promise<void> {
  await db.insertInto("device").values(device).execute();
}

/** Of a device where no PIN was wrong since the last that was right. */
export const NO_WRONG = { wrong: 0, wait_until_ms: 0, locked_at_ms: null } as const;

export async function updateDevice(db: Tx, id: string, change: Updateable<DeviceTable>): Promise<void> {
  await db.updateTable("device").set(change).where("id", "=", id).execute();
}

/** When a person's PIN was given last on a device; null: never, or it has been forgotten. */
export async function pinGivenAt(db: Db, deviceId: string, personId: string): Promise<number | null> {
  const row = await db
    .selectFrom("device_person")
    .select("pin_at_ms")
    .where("device_id", "=", deviceId)
    .where("person_id", "=", personId)
    .executeTakeFirst();
  return row?.pin_at_ms ?? null;
}
export async function keepPinGiven(db: Tx, deviceId: string, personId: string, pin_at_ms: number): Promise<void> {
  await db
    .insertInto("device_person")
    .values({ device_id: deviceId, person_id: personId, pin_at_ms })
    .onConflict((c) => c.columns(["device_id", "person_id"]).doUpdateSet({ pin_at_ms }))
    .execute();
}
/** Whoever was signed in on a device, or as a person anywhere, gives the PIN again. */
export async function forgetPins(db: Tx, of: { deviceId: string } | { personId: string }): Promise<void> {
  const all = db.deleteFrom("device_person");
  await ("deviceId" in of ? all.where("device_id", "=", of.deviceId) : all.where("person_id", "=", of.personId)).execute();
}

/** The tables that say who may come in: they stay what they are when a backup is brought back. */
export const ACCESS_TABLES = ["person", "device", "device_person"] as const;
export type AccessRows = Record<(typeof ACCESS_TABLES)[number], Record<string, unknown>[]>;
export async function replaceAccess(db: Tx, rows: AccessRows): Promise<void> {
  for (const table of [...ACCESS_TABLES].reverse()) await db.deleteFrom(table).execute();
  for (const table of ACCESS_TABLES) for (const row of rows[table]) await db.insertInto(table).values(row).execute();
}
export const unlockAll = async (db: Tx): Promise<void> => void (await db.updateTable("device").set(NO_WRONG).execute());
