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
