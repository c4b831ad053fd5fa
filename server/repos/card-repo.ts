import type { CardBody } from "#core/models/cards/card";
import { cardBody } from "#core/models/cards/card-schema";
import type { Db, Tx } from "../db/open";

export interface Card {
  id: string;
  number: number;
  at_ms: number;
  by: string;
  simulated: boolean;
  body: CardBody;
}

const toCard = (r: { id: string; number: number; at_ms: number; by_role: string; simulated: number; body_json: string }): Card => ({
  id: r.id,
  number: r.number,
  at_ms: r.at_ms,
  by: r.by_role,
  simulated: r.simulated === 1,
  body: cardBody.parse(JSON.parse(r.body_json)),
});

/** Cards that count: not struck, not superseded; newest first. */
export async function listCards(db: Db): Promise<Card[]> {
  const rows = await db
    .selectFrom("card as c")
    .selectAll()
    .where("c.struck_at_ms", "is", null)
    .where((eb) =>
      eb.not(
        eb.exists(eb.selectFrom("card as n").select("n.id").whereRef("n.supersedes_id", "=", "c.id").where("n.struck_at_ms", "is", null)),
      ),
    )
    .orderBy("c.number", "desc")
    .execute();
  return rows.map(toCard);
}

export async function getCard(db: Db, id: string): Promise<(Card & { struck: boolean; supersededBy: string | null }) | null> {
  const row = await db.selectFrom("card").selectAll().where("id", "=", id).executeTakeFirst();
  if (!row) return null;
  const next = await db
    .selectFrom("card")
    .select("id")
    .where("supersedes_id", "=", id)
    .where("struck_at_ms", "is", null)
    .executeTakeFirst();
  return { ...toCard(row), struck: row.struck_at_ms !== null, supersededBy: next?.id ?? null };
}

/** A corrected card keeps the number of the one it replaces. */
export async function insertCard(
  db: Tx,
  c: { id: string; body: CardBody; at_ms: number; by: string; simulated: boolean; supersedes: string | null },
): Promise<void> {
  const last = await db
    .selectFrom("card")
    .select((e) => e.fn.max("number").as("last"))
    .executeTakeFirst();
  const old = c.supersedes ? await db.selectFrom("card").select("number").where("id", "=", c.supersedes).executeTakeFirst() : undefined;
  await db
    .insertInto("card")
    .values({
      id: c.id,
      number: old?.number ?? Number(last?.last ?? 0) + 1,
      body_json: JSON.stringify(c.body),
      at_ms: Math.round(c.at_ms),
      by_role: c.by,
      simulated: c.simulated ? 1 : 0,
      supersedes_id: c.supersedes,
      struck_at_ms: null,
      client_key: null,
    })
    .execute();
}

export async function setCardStruck(db: Tx, id: string, struckAt_ms: number | null): Promise<boolean> {
  const { numUpdatedRows } = await db.updateTable("card").set({ struck_at_ms: struckAt_ms }).where("id", "=", id).executeTakeFirst();
  return numUpdatedRows > 0n;
}
