import type { Clock, ClockPhase } from "#core/models/clock/clock-state";

/** What a clock says while it waits, once that is over, and once what follows it is late; `of` is what it follows: " after coat 1". */
const SAID: Record<string, { waits: string; due: string; late?: string }> = {
  coat: { waits: "Flash", due: "Flash over: touch test, next coat", late: "Past its window: see the course" },
  colour: { waits: "Flash below", due: "Flashed: next coat below" },
  flatten: { waits: "Cure before sanding flat", due: "Ready to sand flat" },
  turn: { waits: "Not to be turned yet", due: "May be turned over" },
  heat: { waits: "Air before heat", due: "Heat may go on" },
  cool: { waits: "Baking", due: "Baked: heat off" },
  read: { waits: "Cooling", due: "Cool: read it" },
  touch: { waits: "Not to be touched yet", due: "May be touched" },
  work: { waits: "Cure", due: "Cure: ready" },
};

/** State of a clock in a few words: "Flash after coat 1"; what says no to the step it leads to goes before that it is ready. */
export function clockWords({ kind, label }: Pick<Clock, "kind" | "label">, phase: ClockPhase, held: string | null = null): string {
  const [then = "", number] = label.split(" ");
  const of = kind === "pot" || kind === "stir" ? "" : number ? ` after coat ${number}` : "";
  const said =
    kind === "pot"
      ? { waits: `Pot of ${label}`, due: `Pot of ${label} over: mix again` }
      : kind === "stir"
        ? { waits: `Until ${label} is stirred`, due: `Stir ${label} now` }
        : (SAID[then] ?? SAID.work!);
  if (phase === "waiting") return said.waits + of;
  if (phase === "stopped") return `${said.waits}${of}, stopped`;
  if (held !== null) return `${said.waits}${of}: ${held}`;
  return phase === "due" ? said.due : ("late" in said && said.late) || said.due;
}
