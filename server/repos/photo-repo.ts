import type { Db, Tx } from "../db/open";

export interface Photo {
  id: string;
  mime: string;
  bytes: Uint8Array;
  width: number;
  height: number;
  name: string;
  /** The picture as it came, without the camera's notes; null for those kept before originals were. */
  original: { bytes: Uint8Array; mime: string } | null;
}

export async function insertPhoto(db: Tx, p: Photo & { digest: string | null; now_ms: number }): Promise<void> {
  const { now_ms, original, ...photo } = p;
  await db
    .insertInto("photo")
    .values({ ...photo, original: original?.bytes ?? null, original_mime: original?.mime ?? null, created_at_ms: now_ms })
    .execute();
}

export async function hasPhoto(db: Db, id: string): Promise<boolean> {
  return (await db.selectFrom("photo").select("id").where("id", "=", id).executeTakeFirst()) !== undefined;
}

/** The photograph that a file with this digest was kept as. */
export async function findPhotoByDigest(db: Db, digest: string): Promise<string | null> {
  return (await db.selectFrom("photo").select("id").where("digest", "=", digest).executeTakeFirst())?.id ?? null;
}

export async function getPhoto(db: Db, id: string): Promise<Photo | null> {
  const row = await db.selectFrom("photo").selectAll().where("id", "=", id).executeTakeFirst();
  return row
    ? {
        id: row.id,
        mime: row.mime,
        bytes: new Uint8Array(row.bytes),
        width: row.width,
        height: row.height,
        name: row.name,
        original: row.original && row.original_mime ? { bytes: new Uint8Array(row.original), mime: row.original_mime } : null,
      }
    : null;
}
