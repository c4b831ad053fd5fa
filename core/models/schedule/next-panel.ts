import { requireNumber } from "../../kernel/guard";

/** A panel in flight, as the booth sees it. */
export interface PanelInFlight {
  id: string;
  coatsPlanned: number;
  coats: number;
  /** A coat that has been started and not stopped. */
  spraying: { number: number; since_ms: number } | null;
  /** Wait after the last coat: earliest next coat, and when it is too late. */
  flash: { due_ms: number; late_ms: number | null } | null;
  /** What the hand has to do before its next coat, or the wait is for. */
  before?: BeforeCoat | null;
}
/** What comes before a coat: a coat below the clear, sanding flat, turning, a reading that cannot be made good later, or something that says no. */
export type BeforeCoat = "below" | "flatten" | "turn" | "read" | "held";

export type NextAction =
  | { what: "stop"; id: string; number: number }
  | { what: "spray"; id: string; number: number; why: "late" | "ready" | "first" }
  | { what: "wait"; id: string; number: number; left_s: number }
  /** No coat may go on before this one is coated below, sanded flat, turned over, read below, or seen to. */
  | { what: BeforeCoat; id: string; number: number }
  | { what: "done" };

/**
 * What the painter does next: stop the coat that is running; else the panel whose flash window closes first; else a panel whose flash is
 * over, longest first; else a panel with no coat yet (while the others flash); else wait for the soonest.
 * @throws RangeError
 */
export function nextAction(panels: readonly PanelInFlight[], now_ms: number): NextAction {
  requireNumber("now_ms", now_ms);
  const running = panels.find((p) => p.spraying);
  if (running?.spraying) return { what: "stop", id: running.id, number: running.spraying.number };
  const unfinished = panels.filter((p) => p.coats < p.coatsPlanned);
  const open = unfinished.filter((p) => !p.before);
  const held = unfinished.find((p) => p.before);
  if (open.length === 0) return held ? { what: held.before!, id: held.id, number: held.coats + 1 } : { what: "done" };
  const soonest = (list: readonly PanelInFlight[], of: (p: PanelInFlight) => number) => list.reduce((a, b) => (of(b) < of(a) ? b : a));
  const due = open.filter((p) => p.coats > 0 && p.flash && p.flash.due_ms <= now_ms);
  const late = due.filter((p) => p.flash!.late_ms !== null && p.flash!.late_ms <= now_ms);
  if (late.length) {
    const p = soonest(late, (x) => x.flash!.late_ms!);
    return { what: "spray", id: p.id, number: p.coats + 1, why: "late" };
  }
  if (due.length) {
    const p = soonest(due, (x) => x.flash!.late_ms ?? x.flash!.due_ms);
    return { what: "spray", id: p.id, number: p.coats + 1, why: "ready" };
  }
  const waits = (p: PanelInFlight) => p.flash !== null && p.flash.due_ms > now_ms;
  const fresh = open.find((p) => p.coats === 0 && !waits(p)) ?? open.find((p) => !p.flash);
  if (fresh) return { what: "spray", id: fresh.id, number: fresh.coats + 1, why: "first" };
  // While the others flash there is time for what cannot be made good later.
  const unread = unfinished.find((p) => p.before === "read");
  if (unread) return { what: "read", id: unread.id, number: unread.coats + 1 };
  const next = soonest(open, (x) => x.flash!.due_ms);
  return { what: "wait", id: next.id, number: next.coats + 1, left_s: (next.flash!.due_ms - now_ms) / 1000 };
}
