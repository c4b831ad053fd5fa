import { type PracticeSession, practiceSession } from "#core/practice/session-body";
import type { Db, Tx } from "../db/open";

export interface KeptSession extends PracticeSession {
  id: string;
  at_ms: number;
}

/** Sessions of a person, or of whoever sprays where nobody signs in; oldest first. What another version kept and this one does not know is left out. */
export async function listSessions(db: Db, personId: string | null): Promise<KeptSession[]> {
  const rows = await db
    .selectFrom("practice_session")
    .selectAll()
    .where("person_id", personId === null ? "is" : "=", personId)
    .orderBy("at_ms")
    .orderBy("id")
    .execute();
  return rows.flatMap(({ id, at_ms, exercise, level, passed, body_json }) => {
    const read = practiceSession.safeParse({ exercise, level, passed: passed === 1, body: JSON.parse(body_json) as unknown });
    return read.success ? [{ ...read.data, id, at_ms }] : [];
  });
}

export async function insertSession(
  db: Tx,
  { id, at_ms, personId, exercise, level, passed, body }: KeptSession & { personId: string | null },
): Promise<void> {
  await db
    .insertInto("practice_session")
    .values({ id, at_ms, person_id: personId, exercise, level, passed: passed ? 1 : 0, body_json: JSON.stringify(body) })
    .execute();
}
