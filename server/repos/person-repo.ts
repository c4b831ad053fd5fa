import type { Role } from "../access/rights";
import type { Db, Tx } from "../db/open";

export interface Person {
  id: string;
  name: string;
  role: Role;
  secretHash: string;
  version: number;
}

const toPerson = (r: { id: string; name: string; role: string; secret_hash: string; version: number }): Person => ({
  id: r.id,
  name: r.name,
  role: r.role as Role,
  secretHash: r.secret_hash,
  version: r.version,
});

const living = (db: Db) => db.selectFrom("person").selectAll().where("ended_at_ms", "is", null);

/** Those who may come in, the owner first, then as they were added. */
export async function listPeople(db: Db): Promise<Person[]> {
  const people = (await living(db).orderBy("created_at_ms").orderBy("id").execute()).map(toPerson);
  return [...people.filter((p) => p.role === "owner"), ...people.filter((p) => p.role !== "owner")];
}
export async function getPerson(db: Db, id: string): Promise<Person | null> {
  const row = await living(db).where("id", "=", id).executeTakeFirst();
  return row ? toPerson(row) : null;
}
export async function getOwner(db: Db): Promise<Person | null> {
  const row = await living(db).where("role", "=", "owner").executeTakeFirst();
  return row ? toPerson(row) : null;
}

export async function insertPerson(
  db: Tx,
  { id, name, role, secretHash, now_ms }: Omit<Person, "version"> & { now_ms: number },
): Promise<void> {
  await db
    .insertInto("person")
    .values({ id, name, role, secret_hash: secretHash, version: 1, created_at_ms: now_ms, ended_at_ms: null })
    .execute();
}

/** A change upon the version that was read in the same transaction. */
export async function updatePerson(db: Tx, { id, name, role, secretHash, version }: Person): Promise<void> {
  await db
    .updateTable("person")
    .set({ name, role, secret_hash: secretHash, version: version + 1 })
    .where("id", "=", id)
    .execute();
}

export async function endPerson(db: Tx, id: string, now_ms: number): Promise<void> {
  await db.updateTable("person").set({ ended_at_ms: now_ms }).where("id", "=", id).execute();
}
