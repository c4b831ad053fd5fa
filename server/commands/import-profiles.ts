import type { ServerContext } from "../context";
import { type ImportProfile, MOST_PROFILES, getShop } from "../repos/shop-repo";
import { changeShop } from "./house";

const sameHeading = (a: readonly string[], b: readonly string[]) => a.length === b.length && a.every((c, i) => c === b[i]);
/** A file without a heading tells nothing of its columns. */
const hasHeading = (columns: readonly string[]) => !columns.every((c, i) => c === `column ${i + 1}`);

/** How this shop matched the last file with the same heading; null when it has had none. */
export async function profileFor(ctx: ServerContext, columns: readonly string[]): Promise<ImportProfile | null> {
  const { importProfiles } = await getShop(ctx.db);
  return importProfiles.find((p) => sameHeading(p.columns, columns)) ?? null;
}

/** Keeps a matching for the next file with the same heading; the oldest gives way. */
export async function keepProfile(ctx: ServerContext, profile: ImportProfile): Promise<void> {
  if (!hasHeading(profile.columns)) return;
  await changeShop(ctx, (shop) => {
    const others = shop.importProfiles.filter((p) => !sameHeading(p.columns, profile.columns));
    return { ...shop, importProfiles: [profile, ...others].slice(0, MOST_PROFILES) };
  });
}
