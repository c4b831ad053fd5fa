import { KEEPING, type Keeping } from "#core/models/product/container";
import type { ServerContext } from "../context";
import { getContainer, insertContainer, updateContainer } from "../repos/container-repo";
import { listShelf } from "../repos/product-repo";
import { Refusal, refuseOther } from "./refusal";
import { run } from "./run";

const DAY_MS = 86_400_000;

export interface NewContainer {
  productId: string;
  batch: string;
  size_m3: number;
  left_m3: number;
  opened_ms: number | null;
  keeping: Keeping;
  clientKey?: string | null;
}

/** Puts a can on the shelf. @throws Refusal at the field. */
export async function addContainer(ctx: ServerContext, input: NewContainer): Promise<string> {
  if (!(await listShelf(ctx.db)).some((p) => p.id === input.productId)) throw new Refusal("productId", "Choose a product from the shelf");
  if (input.left_m3 > input.size_m3) throw new Refusal("left", "More is left than the can holds");
  refuseFuture(ctx, input.opened_ms);
  const { clientKey = null, ...rest } = input;
  return run(ctx, { key: clientKey, what: "can", content: rest }, async ({ db, now_ms, tell }) => {
    const id = ctx.newId();
    await insertContainer(db, { ...rest, id, now_ms });
    tell({ topic: "product", id: input.productId });
    return id;
  });
}

/** Changes what is left, how it is kept, when it was opened, or takes the can off the shelf. @throws ChangedMeanwhile */
export async function changeContainer(
  ctx: ServerContext,
  input: { id: string; version: string | null; batch: string; left_m3: number; opened_ms: number | null; keeping: Keeping; gone: boolean },
): Promise<void> {
  if (!Object.hasOwn(KEEPING, input.keeping)) throw new Refusal("keeping", "Choose how it is kept");
  refuseFuture(ctx, input.opened_ms);
  await run(ctx, null, async ({ db, now_ms, tell }) => {
    const can = await getContainer(db, input.id);
    if (!can) throw new Refusal(null, "This can is no longer on the shelf", 404);
    refuseOther(input.version, can, String(can.version));
    if (input.left_m3 > can.size_m3) throw new Refusal("left", "More is left than the can holds");
    await updateContainer(db, can, {
      batch: input.batch,
      left_m3: input.left_m3,
      opened_ms: input.opened_ms,
      keeping: input.keeping,
      closed_at_ms: input.gone ? now_ms : null,
    });
    tell({ topic: "product", id: can.productId });
  });
}

function refuseFuture(ctx: ServerContext, opened_ms: number | null): void {
  if (opened_ms !== null && opened_ms > ctx.now_ms() + DAY_MS) throw new Refusal("opened", "This day has not come yet");
}
