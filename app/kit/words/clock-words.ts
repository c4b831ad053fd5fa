import type { Clock, ClockPhase } from "#core/models/clock/clock-state";

/** What a clock counts down to while it waits, and when it has. */
const THEN: Record<string, { waits: string; due: string; late: string }> = {
  coat: { waits: "until next coat", due: "ready: touch test, then spray", late: "past the window: see its course" },
  colour: { waits: "until the next coat below", due: "flashed: next coat, or see its course for clear", late: "" },
  flatten: { waits: "until sanding flat", due: "ready to sand flat", late: "" },
  turn: { waits: "until it may be turned over", due: "may be turned over", late: "" },
  heat: { waits: "until heat", due: "heat may go on", late: "" },
  cool: { waits: "to bake", due: "baked: heat off", late: "" },
  read: { waits: "to cool", due: "cool", late: "" },
  touch: { waits: "until it may be touched", due: "may be touched", late: "" },
  work: { waits: "until it bears work", due: "hard enough to read and sand", late: "" },
};
const STIR = { waits: "until it is stirred again", due: "stir it now", late: "" };
const POT = { waits: "left to spray", due: "over: mix again", late: "over: mix again" };

/** Name and state of a clock: "after coat 1: until next coat"; what says no to the step it leads to goes before that it is ready. */
export function clockWords({ kind, label }: Pick<Clock, "kind" | "label">, phase: ClockPhase, held: string | null = null): string {
  const [then = "", number] = label.split(" ");
  const { waits, due, late } = kind === "pot" ? POT : kind === "stir" ? STIR : (THEN[then] ?? THEN.work!);
  const below = then === "colour" ? " below the clear" : "";
  const what = kind === "pot" || kind === "stir" ? `${label}: ` : number ? `after coat ${number}${below}: ` : "";
  if (phase === "stopped") return `${what}stopped`;
  if (held !== null && phase !== "waiting") return what + held;
  return what + (phase === "waiting" ? waits : phase === "due" ? due : late || due);
}
