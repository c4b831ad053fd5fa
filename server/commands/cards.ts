import { type CardBody, cardBody } from "#core/cards/card";
import type { ServerContext } from "../context";
import { findCardByKey, getCard, insertCard, setCardStruck } from "../repos/card-repo";
import { getPhoto } from "../repos/photo-repo";
import { Refusal } from "./refusal";

/** Keeps a card, or a corrected version of one; the earlier version stays. @returns its id */
export async function saveCard(
  ctx: ServerContext,
  input: { body: CardBody; by: string; at_ms?: number; simulated?: boolean; supersedes?: string | null; clientKey?: string | null },
): Promise<string> {
  const parsed = cardBody.safeParse(input.body);
  if (!parsed.success) {
    const [issue] = parsed.error.issues;
    throw new Refusal(issue?.path.join(".") ?? null, issue?.message ?? "Not understood");
  }
  const id = await ctx.db.transaction().execute(async (db) => {
    const known = input.clientKey ? await findCardByKey(db, input.clientKey) : null;
    if (known) return known;
    if (input.supersedes) {
      const old = await getCard(db, input.supersedes);
      if (!old || old.struck || old.supersededBy)
        throw new Refusal(null, "This card was changed in another window. Nothing was overwritten; look again.");
    }
    for (const photo of parsed.data.photoIds)
      if (!(await getPhoto(db, photo))) throw new Refusal("photos", "A photograph is no longer there");
    const made = ctx.newId();
    await insertCard(db, {
      id: made,
      body: parsed.data,
      at_ms: input.at_ms ?? ctx.now_ms(),
      by: input.by,
      simulated: input.simulated ?? false,
      supersedes: input.supersedes ?? null,
      clientKey: input.clientKey ?? null,
    });
    return made;
  });
  ctx.bus.publish({ topic: "product", id: "cards" });
  return id;
}

/** Takes a card out of the library, or brings it back. It is never deleted. */
export async function strikeCard(ctx: ServerContext, id: string, struck: boolean): Promise<void> {
  if (!(await setCardStruck(ctx.db, id, struck ? ctx.now_ms() : null))) throw new Refusal(null, "This card is no longer there");
  ctx.bus.publish({ topic: "product", id: "cards" });
}
