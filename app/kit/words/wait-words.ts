import { showWait } from "#core/kernel/units/format";
import type { CoatWait } from "#core/models/ways/wait-after";

/** A wait between two coats: the window, and why it opens and closes when it does. */
export function waitWords(w: CoatWait): { main: string; note: string } {
  if (w.sand) return { main: showWait(w.least_s), note: "cure, sand flat, clean, then go on" };
  const main = w.best_s > w.least_s + 1 ? `${showWait(w.least_s)} to ${showWait(w.best_s)}` : `from ${showWait(w.least_s)}`;
  return { main, note: [opens(w), closes(w)].filter((n) => n !== "").join("; ") };
}

function opens({ by, runsBefore_s: runs_s, sheet, least_s }: CoatWait): string {
  if (runs_s === null) return "the next coat is likely to run however long it waits: spray it thinner";
  if (by === "run") return `sooner it may run, though the sheet allows ${showWait(sheet.least_s)}`;
  if (by === "grip") return "until then the grip coat pulls strings";
  if (by === "way") return `longer than the sheet's ${showWait(sheet.least_s)}, by this way`;
  if (runs_s === undefined || runs_s === 0) return "sooner traps solvent";
  return runs_s < least_s ? `sooner than ${showWait(runs_s)} it may run` : `sooner traps solvent; until ${showWait(runs_s)} it may run`;
}

function closes({ late, locks_s, setsFirst }: CoatWait): string {
  if (setsFirst)
    return `the grip coat has set after ${showWait(locks_s!)}, before the sheet lets the next one on: lay it wetter, or expect peel`;
  return late === "grip" ? "then the grip coat has set: heavy peel" : "";
}
