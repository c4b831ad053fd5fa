import type { Db, Tx } from "../db/open";
import { digestOf } from "./digest";
import { Refusal } from "../commands/refusal";

const MOST_KEY = 200;

export interface SentForm {
  key: string | null;
  /** Which command. */
  what: string;
  /** All that it was asked: a key that comes with anything else is refused. */
  content: unknown;
  /** In which words it is answered; sent again, in the same. */
  said?: string | null;
}

/**
 * What a form was answered when it was carried out before.
 * @returns null when it is new @throws Refusal in words for a key that was used for something else
 */
export async function answeredBefore<R>(db: Db, { key, what, content }: SentForm): Promise<{ result: R } | null> {
  if (key === null) return null;
  if (key.length > MOST_KEY) throw new Refusal(null, `A form's key has at most ${MOST_KEY} characters`, 400);
  const known = await db.selectFrom("sent_form").selectAll().where("key", "=", key).executeTakeFirst();
  if (!known) return null;
  if (known.digest !== null && known.digest !== digestOf(what, content))
    throw new Refusal(null, "This form was sent before with other content. Nothing was stored now; open the page anew and send it again.");
  return { result: JSON.parse(known.result_json) as R };
}

/**
 * Carries a form out once: sent again with the same key and content it answers what it answered the first time and stores nothing more. Within the
 * transaction that does the work, so that key and work stand or fall together. The result must survive JSON.
 */
export async function once<R>(db: Tx, form: SentForm & { now_ms: number }, carryOut: () => Promise<R>): Promise<R> {
  const before = await answeredBefore<R>(db, form);
  if (before) return before.result;
  const result = await carryOut();
  if (form.key !== null)
    await db
      .insertInto("sent_form")
      .values({
        key: form.key,
        digest: digestOf(form.what, form.content),
        result_json: JSON.stringify(result ?? null),
        at_ms: form.now_ms,
        said: form.said ?? null,
      })
      .execute();
  return result;
}

/** In which words a form with this key was answered when it was carried out; null: in none, or it was not. */
export async function saidOf(db: Db, key: string | null): Promise<string | null> {
  if (key === null) return null;
  return (await db.selectFrom("sent_form").select("said").where("key", "=", key).executeTakeFirst())?.said ?? null;
}

/** Whether a form with this key was carried out before: sent again, it is answered as it was then. */
export async function wasSent(db: Db, key: string | null): Promise<boolean> {
  return key !== null && (await db.selectFrom("sent_form").select("key").where("key", "=", key).executeTakeFirst()) !== undefined;
}
