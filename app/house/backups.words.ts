import type { KeptCopy } from "#server/storage/kept-backups";

const MINUTE_MS = 60_000;

/** How long ago. */
export function agoWords(at_ms: number, now_ms: number): string {
  const minutes = Math.max(0, Math.floor((now_ms - at_ms) / MINUTE_MS));
  if (minutes < 1) return "just now";
  if (minutes < 60) return `${minutes} min ago`;
  const hours = Math.floor(minutes / 60);
  if (hours < 48) return `${hours} h ago`;
  return `${Math.floor(hours / 24)} days ago`;
}

/** What a copy is. */
export function copyWords({ place, byPlan, before }: Pick<KeptCopy, "place" | "byPlan" | "before">): string {
  if (place === "aside") return "what was there before a restore";
  if (before !== null) return "before a newer program took it over";
  return `${byPlan ? "made by itself" : "made by hand"}${place === "second" ? "; second place" : ""}`;
}
