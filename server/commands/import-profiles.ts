import type { ServerContext } from "../context";
import { type ImportProfile, MOST_PROFILES, getShop } from "../repos/shop-repo";
import { changeShop } from "./house";

/** Each column by its name, and by which of that name it is: the same whatever the order of the columns. */
function named(columns: readonly string[]): string[] {
  const seen = new Map<string, number>();
  return columns.map((c) => {
    const nth = (seen.get(c) ?? 0) + 1;
    seen.set(c, nth);
    return `${nth} ${c}`;
  });
}
function sameHeading(a: readonly string[], b: readonly string[]): boolean {
  const there = new Set(named(b));
  return a.length === b.length && named(a).every((c) => there.has(c));
}
/** A file without a heading tells nothing of its columns. */
const hasHeading = (columns: readonly string[]) => !columns.every((c, i) => c === `column ${i + 1}`);

/** How this shop matched the last file with the same columns, in whatever order they stand now; null when it has had none. */
export async function profileFor(ctx: ServerContext, columns: readonly string[]): Promise<ImportProfile | null> {
  const { importProfiles } = await getShop(ctx.db);
  const known = importProfiles.find((p) => sameHeading(p.columns, columns));
  if (!known) return null;
  const roleOf = new Map(named(known.columns).map((c, i) => [c, known.roles[i]!]));
  return { ...known, columns: [...columns], roles: named(columns).map((c) => roleOf.get(c)!) };
}

/** Keeps a matching for the next file with the same columns; the oldest gives way. */
export async function keepProfile(ctx: ServerContext, profile: ImportProfile): Promise<void> {
  if (!hasHeading(profile.columns)) return;
  await changeShop(ctx, (shop) => {
    const others = shop.importProfiles.filter((p) => !sameHeading(p.columns, profile.columns));
    return { ...shop, importProfiles: [profile, ...others].slice(0, MOST_PROFILES) };
  });
}
