import type { PanelFacts } from "./derive-panel";

/** What tells that somebody looked for faults. */
type Looked = Pick<PanelFacts, "defects" | "outcome" | "lookedOver" | "coats" | "backCoats">;

/**
 * Whether the clear was looked over since its newest coat: a fault was marked, or nothing was found, or it was told how the coats came out. A rating of the
 * texture, a gloss or a film that was read is no look for faults.
 */
export function isLookedOver({ defects, outcome, lookedOver, coats, backCoats }: Looked): boolean {
  const coat = Math.max(-Infinity, ...[...coats, ...backCoats].map((c) => c.entry.seq));
  return [...defects, outcome, lookedOver].some((e) => e !== null && e.seq > coat);
}
