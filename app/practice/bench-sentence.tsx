import { showSpan } from "#core/kernel/units/format";
import type { Exercise, Level } from "#core/practice/exercises";
import type { BenchClient, BenchState } from "./bench-client";
import { rowWords } from "./practice.words";

/** So far nothing has begun to move that an eye would see. */
const MOVES_M = 0.006;

/** What the bench says now: what comes, how it goes, what went wrong just now. */
export function Sentence({
  state,
  exercise,
  level,
  rowsWanted,
  done,
  told,
  wanted,
}: {
  state: BenchState;
  exercise: Exercise;
  level: Level;
  rowsWanted: number;
  done: boolean;
  told: string | null;
  wanted: BenchClient["wanted"][number];
}) {
  const { phase, coat, rows, seen, waited_s, share, fault } = state;
  if (fault) return <span className="text-stop-ink">This device could not work it out ({fault}).</span>;
  if (told !== null) return told;
  const moving = level !== "booth" && seen.slid_m > MOVES_M ? " Film has begun to move." : "";
  const fallen = state.lies ? " A fibre has fallen in: out, or left?" : "";
  switch (phase) {
    case "hardening":
      return exercise.hidden ? "Somebody sprays it, and it goes hard." : "It goes hard.";
    case "judging":
      return exercise.hidden ? `${exercise.aim}.` : "It is hard. Read it, mark what is wrong, take down what stands out.";
    case "taking":
      return exercise.laid > 0 ? "The first coat is laid and flashes." : "The panel is hung.";
    case "working":
      return `Working out what each thing cost: ${Math.round(100 * share)} %.`;
    case "waiting":
      return (
        <>
          {showSpan(waited_s)} flashed, time goes sixty times.
          <span className="text-amber-ink">
            {moving}
            {fallen}
          </span>
        </>
      );
    case "ready":
      return (
        <>
          {done
            ? "All coats are on. Look it over."
            : coat === exercise.laid + 1 && state.waited_s === 0
              ? `${exercise.aim}.`
              : `Coat ${coat} comes next.`}
          <span className="text-amber-ink">
            {moving}
            {fallen}
          </span>
        </>
      );
    default: {
      const said = level === "booth" ? null : rowWords(rows, { speed_m_s: wanted.gun.handSpeed_m_s, distance_m: wanted.gun.distance_m });
      return (
        <>
          {rows.length > 0 ? `Row ${rows.length} of ${rowsWanted}.` : `Coat ${coat}: begin before the upper edge.`}{" "}
          <span className="text-amber-ink">
            {said}
            {moving}
          </span>
        </>
      );
    }
  }
}
