import type { BodyInputOf } from "#core/record/bodies";
import type { ServerContext } from "../context";
import { getContainer, updateContainer } from "../repos/container-repo";
import { recordEntries } from "./record-entry";
import { Refusal } from "./refusal";

type Part = NonNullable<BodyInputOf<"mix">["parts"]>[number];
export interface MixToKeep extends Omit<BodyInputOf<"mix">, "parts"> {
  /** What went in, each with the can that it came out of; null: another one. */
  parts: readonly (Part & { canId: string | null })[];
}

const withoutCan = ({ name, volume_m3, mass_kg, poured_kg, batch }: Part): Part => ({ name, volume_m3, mass_kg, poured_kg, batch });

/** Keeps a mix with its panel, starts its pot clock, and takes every part out of the can that was used: all of it or nothing. */
export async function recordMix(
  ctx: ServerContext,
  { panelId, formKey, by, parts, ...rest }: MixToKeep & { panelId: string; formKey: string; by: string },
): Promise<string> {
  const body = { ...rest, parts: parts.map(withoutCan) };
  const [id] = await recordEntries(ctx, panelId, [{ panelId, kind: "mix", body, by, clientKey: formKey }], async ({ db, now_ms, tell }) => {
    for (const { canId, volume_m3 } of parts) {
      if (!canId || !(volume_m3 > 0)) continue;
      const can = await getContainer(db, canId);
      if (!can || can.closedAt_ms !== null) throw new Refusal("canId", "A can is no longer on the shelf; choose another");
      const left_m3 = Math.max(0, can.left_m3 - volume_m3);
      await updateContainer(db, can, { left_m3, opened_ms: can.opened_ms ?? now_ms });
      tell({ topic: "product", id: can.productId });
    }
  });
  return id!;
}
