import { requireNumber } from "../../kernel/guard";

/** How an opened can is kept. Days are common practice for hardeners; the sheet's own figure goes first. */
export const KEEPING = {
  shelf: { name: "lid on, on the shelf", days: 14 },
  cold: { name: "sealed and refrigerated, never frozen", days: 60 },
} as const;
export type Keeping = keyof typeof KEEPING;

const DAY_MS = 86_400_000;

export interface ContainerAge {
  keepsUntil_ms: number;
  daysLeft: number;
  state: "good" | "soon" | "today" | "over" | "empty";
  words: string;
}

/**
 * How an opened can stands at a moment. On its last day it is "use today"; within a quarter of its time it is "use soon".
 * @param keepsDays the product's own figure; null: the usual for how it is kept; an unopened can keeps until its own date
 * @throws RangeError
 */
export function containerAge(
  can: { opened_ms: number | null; keeping: Keeping; keepsDays: number | null; left_m3: number },
  now_ms: number,
): ContainerAge {
  requireNumber("now_ms", now_ms);
  requireNumber("left_m3", can.left_m3, { min: 0 });
  if (can.left_m3 === 0) return { keepsUntil_ms: now_ms, daysLeft: 0, state: "empty", words: "empty" };
  if (can.opened_ms === null) return { keepsUntil_ms: Infinity, daysLeft: Infinity, state: "good", words: "not opened" };
  const days = requireNumber("keepsDays", can.keepsDays ?? KEEPING[can.keeping].days, { above: 0, max: 3650 });
  const keepsUntil_ms = can.opened_ms + days * DAY_MS;
  const daysLeft = (keepsUntil_ms - now_ms) / DAY_MS;
  if (daysLeft < 0) return { keepsUntil_ms, daysLeft, state: "over", words: `over by ${Math.ceil(-daysLeft)} d: do not trust it` };
  if (daysLeft <= 1) return { keepsUntil_ms, daysLeft, state: "today", words: "use today" };
  if (daysLeft <= days / 4) return { keepsUntil_ms, daysLeft, state: "soon", words: `use within ${Math.floor(daysLeft)} d` };
  return { keepsUntil_ms, daysLeft, state: "good", words: `${Math.floor(daysLeft)} d left` };
}

/** Which can to take first: the one that dies soonest but is still good, then the unopened; what is over or empty comes last. */
export function usedFirst<T extends { age: ContainerAge }>(cans: readonly T[]): T[] {
  const rank = (c: T) => (c.age.state === "empty" ? 3 : c.age.state === "over" ? 2 : 0);
  return [...cans].sort((a, b) => rank(a) - rank(b) || a.age.keepsUntil_ms - b.age.keepsUntil_ms);
}
