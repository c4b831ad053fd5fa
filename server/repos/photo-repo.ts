import type { Db } from "../db/open";

export interface Photo {
  id: string;
  mime: string;
  bytes: Uint8Array;
  width: number;
  height: number;
  name: string;
}

export async function insertPhoto(db: Db, p: Photo & { now_ms: number }): Promise<void> {
  const { now_ms, ...photo } = p;
  await db
    .insertInto("photo")
    .values({ ...photo, created_at_ms: now_ms })
    .execute();
}

export async function getPhoto(db: Db, id: string): Promise<Photo | null> {
  const row = await db.selectFrom("photo").selectAll().where("id", "=", id).executeTakeFirst();
  return row
    ? { id: row.id, mime: row.mime, bytes: new Uint8Array(row.bytes), width: row.width, height: row.height, name: row.name }
    : null;
}
