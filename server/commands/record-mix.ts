import type { BodyInputOf } from "#core/ledger/bodies";
import type { ServerContext } from "../context";
import { getContainer, updateContainer } from "../repos/container-repo";
import { findEntryByKey } from "../repos/ledger-repo";
import { recordEntry } from "./record-entry";

/** Keeps a mix with its panel, starts its pot clock, and takes the hardener out of the can that was used. */
export async function recordMix(
  ctx: ServerContext,
  input: BodyInputOf<"mix"> & { panelId: string; canId: string | null; formKey: string; by: string },
): Promise<string> {
  const { panelId, canId, formKey, by, ...body } = input;
  const known = await findEntryByKey(ctx.db, formKey);
  if (known) return known.id;
  const id = await recordEntry(ctx, { panelId, kind: "mix", body, by, clientKey: formKey });
  const used_m3 = body.parts?.[1]?.volume_m3 ?? 0;
  const can = canId && used_m3 > 0 ? await getContainer(ctx.db, canId) : null;
  if (can) {
    await updateContainer(ctx.db, can.id, can.version, {
      left_m3: Math.max(0, can.left_m3 - used_m3),
      opened_ms: can.opened_ms ?? ctx.now_ms(),
    });
    ctx.bus.publish({ topic: "product", id: can.productId });
  }
  return id;
}
