import { requireRight } from "../access/actor";
import { type CardBody, cardName } from "#core/models/cards/card";
import { cardBody } from "#core/models/cards/card-schema";
import type { ServerContext } from "../context";
import { type Card, getCard, insertCard, listCards, setCardStruck } from "../repos/card-repo";
import type { Db } from "../db/open";
import { listProducts } from "../repos/product-repo";
import { hasPhoto } from "../repos/photo-repo";
import { keepPhoto } from "./photos";
import { Refusal, refuseOther } from "./refusal";
import { run } from "./run";

/** A card that may be kept. @throws Refusal */
function checked(body: CardBody): CardBody {
  const parsed = cardBody.safeParse(body);
  if (parsed.success) return parsed.data;
  const [issue] = parsed.error.issues;
  throw new Refusal(issue?.path.join(".") ?? null, issue?.message ?? "Not understood");
}

/** Keeps a card, or a corrected version of one; the earlier version stays. @returns its id @throws ChangedMeanwhile */
export async function saveCard(
  ctx: ServerContext,
  input: { body: CardBody; by: string; at_ms?: number; simulated?: boolean; supersedes?: string | null; clientKey?: string | null },
): Promise<string> {
  const body = checked(input.body);
  const form = {
    key: input.clientKey ?? null,
    what: "card",
    content: { body, supersedes: input.supersedes ?? null, simulated: input.simulated ?? false },
  };
  if (input.supersedes) requireRight(ctx, "putRight");
  return run(ctx, form, async ({ db, now_ms, tell }) => {
    if (input.supersedes) {
      const now = await cardNow(db, input.supersedes);
      if (!now) throw new Refusal(null, "This card was taken out of the library in another window. Nothing was stored.");
      refuseOther(input.supersedes, now.body, now.id);
    }
    for (const photo of body.photoIds) if (!(await hasPhoto(db, photo))) throw new Refusal("photos", "A photograph is no longer there");
    const id = ctx.newId();
    await insertCard(db, {
      id,
      body,
      at_ms: input.at_ms ?? now_ms,
      by: input.by,
      simulated: input.simulated ?? false,
      supersedes: input.supersedes ?? null,
    });
    tell({ topic: "product", id: "cards" });
    return id;
  });
}

/** What a row of cards has in common, and the mix and readings of each. */
export interface CardRow extends Pick<CardBody, "productName" | "base" | "colourCode" | "orientation" | "cure"> {
  cards: readonly { share: number; gloss_GU: readonly number[] }[];
}

/** A row of cards that were sprayed and read together: all of them are kept, or none. @returns their ids @throws Refusal */
export async function keepCardRow(ctx: ServerContext, row: CardRow, by: string, clientKey: string | null): Promise<string[]> {
  const form = { key: clientKey, what: "row of cards", content: row };
  return run(ctx, form, async ({ db, now_ms, tell }) => {
    const product = (await listProducts(db)).find((p) => p.sheet.name === row.productName);
    const last = (await listCards(db)).find((c) => c.body.productName === row.productName)?.body;
    const ids: string[] = [];
    for (const { share, gloss_GU } of row.cards) {
      const body = checked({
        ...FRESH,
        reducer: last?.reducer ?? 0,
        coats: last?.coats ?? FRESH.coats,
        place: last?.place ?? "",
        name: cardName(row.productName, share),
        productName: row.productName,
        productRevisionId: product?.revisionId ?? null,
        mattingShare: share,
        base: row.base,
        colourCode: row.colourCode,
        orientation: row.orientation,
        cure: row.cure,
        gloss: gloss_GU.map((GU) => ({ angle: 60, gloss_GU: GU })),
      });
      const id = ctx.newId();
      await insertCard(db, { id, body, at_ms: now_ms, by, simulated: false, supersedes: null });
      ids.push(id);
    }
    tell({ topic: "product", id: "cards" });
    return ids;
  });
}

/** A card of which only its mix and its gloss are told; two coats are the rule for a matte. */
const FRESH = {
  mix: "",
  coats: 2,
  dryFilm_m: null,
  colour: "open",
  glossVerdict: "open",
  texture: "open",
  note: "",
  photoIds: [],
} satisfies Partial<CardBody>;

const MOST_PHOTOS = 8;

/**
 * Keeps a card as it was typed: with the product's name as the shelf has it, and its new photographs beside those that it had.
 * @param upon the version that was corrected; null: a new card @returns its id @throws ChangedMeanwhile
 */
export async function keepCard(
  ctx: ServerContext,
  {
    body,
    productRevisionId,
    photos,
    upon,
    by,
    clientKey,
  }: {
    body: Omit<CardBody, "productRevisionId" | "photoIds">;
    productRevisionId: string;
    photos: readonly { name: string; arrayBuffer: () => Promise<ArrayBuffer> }[];
    upon: string | null;
    by: string;
    clientKey: string | null;
  },
): Promise<string> {
  const product = (await listProducts(ctx.db)).find((p) => p.revisionId === productRevisionId);
  const old = upon === null ? null : await getCard(ctx.db, upon);
  const photoIds = [...(old?.body.photoIds ?? [])];
  for (const file of photos.slice(0, Math.max(0, MOST_PHOTOS - photoIds.length)))
    photoIds.push(await keepPhoto(ctx, { name: file.name, bytes: new Uint8Array(await file.arrayBuffer()) }));
  return saveCard(ctx, {
    body: {
      ...body,
      productName: product?.sheet.name ?? (body.productName || (old?.body.productName ?? "")),
      productRevisionId: product?.revisionId ?? old?.body.productRevisionId ?? null,
      photoIds,
    },
    by,
    supersedes: old?.id ?? null,
    clientKey,
    ...(old ? { simulated: old.simulated, at_ms: old.at_ms } : {}),
  });
}

/** What stands of a card by now: itself, or what it was corrected to; null where that was taken out. */
async function cardNow(db: Db, id: string): Promise<Card | null> {
  for (let at = await getCard(db, id); at && !at.struck; at = await getCard(db, at.supersededBy)) if (!at.supersededBy) return at;
  return null;
}

/** Takes a card out of the library, or brings it back. It is never deleted. */
export async function strikeCard(ctx: ServerContext, id: string, struck: boolean): Promise<void> {
  requireRight(ctx, "putRight");
  await run(ctx, null, async ({ db, now_ms, tell }) => {
    if (!(await setCardStruck(db, id, struck ? now_ms : null))) throw new Refusal(null, "This card is no longer there", 404);
    tell({ topic: "product", id: "cards" });
  });
}
