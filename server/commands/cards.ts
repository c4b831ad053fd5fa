import type { CardBody } from "#core/models/cards/card";
import { cardBody } from "#core/models/cards/card-schema";
import type { ServerContext } from "../context";
import { type Card, getCard, insertCard, setCardStruck } from "../repos/card-repo";
import type { Db } from "../db/open";
import { hasPhoto } from "../repos/photo-repo";
import { Refusal, refuseOther } from "./refusal";
import { run } from "./run";

/** Keeps a card, or a corrected version of one; the earlier version stays. @returns its id @throws ChangedMeanwhile */
export async function saveCard(
  ctx: ServerContext,
  input: { body: CardBody; by: string; at_ms?: number; simulated?: boolean; supersedes?: string | null; clientKey?: string | null },
): Promise<string> {
  const parsed = cardBody.safeParse(input.body);
  if (!parsed.success) {
    const [issue] = parsed.error.issues;
    throw new Refusal(issue?.path.join(".") ?? null, issue?.message ?? "Not understood");
  }
  const form = {
    key: input.clientKey ?? null,
    what: "card",
    content: { body: parsed.data, supersedes: input.supersedes ?? null, simulated: input.simulated ?? false },
  };
  return run(ctx, form, async ({ db, now_ms, tell }) => {
    if (input.supersedes) {
      const now = await cardNow(db, input.supersedes);
      if (!now) throw new Refusal(null, "This card was taken out of the library in another window. Nothing was stored.");
      refuseOther(input.supersedes, now.body, now.id);
    }
    for (const photo of parsed.data.photoIds)
      if (!(await hasPhoto(db, photo))) throw new Refusal("photos", "A photograph is no longer there");
    const id = ctx.newId();
    await insertCard(db, {
      id,
      body: parsed.data,
      at_ms: input.at_ms ?? now_ms,
      by: input.by,
      simulated: input.simulated ?? false,
      supersedes: input.supersedes ?? null,
    });
    tell({ topic: "product", id: "cards" });
    return id;
  });
}

/** What stands of a card by now: itself, or what it was corrected to; null where that was taken out. */
async function cardNow(db: Db, id: string): Promise<Card | null> {
  for (let at = await getCard(db, id); at && !at.struck; at = await getCard(db, at.supersededBy)) if (!at.supersededBy) return at;
  return null;
}

/** Takes a card out of the library, or brings it back. It is never deleted. */
export async function strikeCard(ctx: ServerContext, id: string, struck: boolean): Promise<void> {
  await run(ctx, null, async ({ db, now_ms, tell }) => {
    if (!(await setCardStruck(db, id, struck ? now_ms : null))) throw new Refusal(null, "This card is no longer there", 404);
    tell({ topic: "product", id: "cards" });
  });
}
