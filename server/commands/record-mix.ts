import type { BodyInputOf } from "#core/record/bodies";
import type { ServerContext } from "../context";
import { getContainer, updateContainer } from "../repos/container-repo";
import { recordEntries } from "./record-entry";
import { Refusal } from "./refusal";

/** Keeps a mix with its panel, starts its pot clock, and takes the hardener out of the can that was used: all of it or nothing. */
export async function recordMix(
  ctx: ServerContext,
  input: BodyInputOf<"mix"> & { panelId: string; canId: string | null; formKey: string; by: string },
): Promise<string> {
  const { panelId, canId, formKey, by, ...body } = input;
  let productId: string | null = null;
  const [id] = await recordEntries(ctx, panelId, [{ panelId, kind: "mix", body, by, clientKey: formKey }], async (db) => {
    const used_m3 = body.parts?.[1]?.volume_m3 ?? 0;
    if (!canId || !(used_m3 > 0)) return;
    const can = await getContainer(db, canId);
    if (!can || can.closedAt_ms !== null) throw new Refusal("canId", "This can is no longer on the shelf; choose another");
    await updateContainer(db, can.id, can.version, {
      left_m3: Math.max(0, can.left_m3 - used_m3),
      opened_ms: can.opened_ms ?? ctx.now_ms(),
    });
    productId = can.productId;
  });
  if (productId) ctx.bus.publish({ topic: "product", id: productId });
  return id!;
}
