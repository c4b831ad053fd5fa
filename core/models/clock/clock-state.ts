import { requireNumber } from "../../kernel/guard";

export const CLOCK_KINDS = {
  flash: "flash",
  pot: "pot",
  stir: "stir",
  purge: "air before heat",
  bake: "bake",
  cool: "cool",
  cure: "cure",
} as const;
export type ClockKind = keyof typeof CLOCK_KINDS;

export interface Clock {
  id: string;
  panelId: string;
  jobId: string;
  jobName: string;
  panelName: string;
  kind: ClockKind;
  /** Of a pot its product, else what follows it: a step's code, with its number where there are several. */
  label: string;
  started_ms: number;
  /** When the waiting is over (flash, bake, cool, cure) or the pot is dead. */
  due_ms: number;
  /** After this it is too late for the next step; null: never. */
  late_ms: number | null;
  stopped_ms: number | null;
}

export type ClockPhase = "waiting" | "due" | "late" | "stopped";

/** Stirring takes about so long; then it settles anew. */
const STIR_MS = 60_000;

/** A pot that settles is stirred again and again while it lives: the clock goes round. */
function stirring({ started_ms, late_ms }: Clock, now_ms: number, span_ms: number): { phase: ClockPhase; left_s: number; share: number } {
  const since_ms = Math.max(0, now_ms - started_ms);
  if (late_ms !== null && now_ms > late_ms) return { phase: "stopped", left_s: 0, share: 1 };
  const round_ms = since_ms % span_ms;
  if (since_ms >= span_ms && round_ms < STIR_MS) return { phase: "due", left_s: 0, share: 1 };
  return { phase: "waiting", left_s: (span_ms - round_ms) / 1000, share: round_ms / span_ms };
}

/**
 * Where a clock stands at a moment. A pot clock is "late" when its life is over; the others are "due" from `due_ms` and "late" after
 * `late_ms`. The caller gives the time: the core knows none.
 */
export function clockState(clock: Clock, now_ms: number): { phase: ClockPhase; left_s: number; share: number } {
  requireNumber("now_ms", now_ms);
  const span = Math.max(1, clock.due_ms - clock.started_ms);
  const left_s = (clock.due_ms - now_ms) / 1000;
  const share = Math.min(1, Math.max(0, (now_ms - clock.started_ms) / span));
  if (clock.stopped_ms !== null) return { phase: "stopped", left_s, share };
  if (clock.kind === "stir") return stirring(clock, now_ms, span);
  if (left_s > 0) return { phase: "waiting", left_s, share };
  if (clock.kind === "pot") return { phase: "late", left_s, share: 1 };
  if (clock.late_ms !== null && now_ms > clock.late_ms) return { phase: "late", left_s: (clock.late_ms - now_ms) / 1000, share: 1 };
  return { phase: "due", left_s, share: 1 };
}
