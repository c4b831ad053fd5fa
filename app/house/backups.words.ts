import type { KeptCopy } from "#server/storage/kept-backups";

/** What a copy is. */
export function copyWords({ place, byPlan, before }: Pick<KeptCopy, "place" | "byPlan" | "before">): string {
  if (place === "aside") return "what was there before a restore";
  if (before !== null) return "before a newer program took it over";
  return `${byPlan ? "made by itself" : "made by hand"}${place === "second" ? "; second place" : ""}`;
}
