import { type LineProfile, lineProfileBody } from "#core/models/devices/line-profile";
import { requireRight } from "../access/actor";
import type { ServerContext } from "../context";
import { MOST_PROFILES } from "../repos/shop-repo";
import { changeShop } from "./house";
import { Refusal } from "./refusal";

/** Keeps how an instrument's lines are read; one of the same name gives way to it. @throws Refusal, ZodError */
export async function keepLineProfile(ctx: ServerContext, given: LineProfile): Promise<void> {
  requireRight(ctx, "shop");
  const profile = lineProfileBody.parse(given);
  await changeShop(ctx, (shop) => {
    const others = shop.lineProfiles.filter((p) => p.name !== profile.name);
    if (others.length >= MOST_PROFILES) throw new Refusal("name", `At most ${MOST_PROFILES} devices; forget one first`);
    return { ...shop, lineProfiles: [...others, profile] };
  });
}

export async function forgetLineProfile(ctx: ServerContext, name: string): Promise<void> {
  requireRight(ctx, "shop");
  await changeShop(ctx, (shop) => ({ ...shop, lineProfiles: shop.lineProfiles.filter((p) => p.name !== name) }));
}
