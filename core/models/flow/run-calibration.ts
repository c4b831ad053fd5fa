import { requireNumber } from "../../kernel/guard";
import { normalCdf } from "../../kernel/stats/normal";
import { FLOW } from "./constants";
import { sagAtEdge, sagLogSd } from "./run-chance";

/** One panel whose coats are known and whose result was told: what the model said of its sag, and whether it ran. */
export interface RunLog {
  sagLocal_m: number;
  ran: boolean;
}

/** So many results, with so many runs and so many without among them, before a percentage is told. A default of ours. */
export const CALIBRATED_FROM = { logs: 20, ofEach: 3 } as const;

/** Where a shop's border lies against the model's, and how wide it is: doubt before anything is known, in logarithms. Defaults of ours. */
const PRIOR = { shift: 0.6, widthLog: 0.5 } as const;
const SHIFTS = Array.from({ length: 41 }, (_, i) => -2 + 0.1 * i);
const WIDTHS = Array.from({ length: 16 }, (_, i) => 0.15 * 1.18 ** i);
/** Chances are kept at these log ratios of sag to the border, and read between them. */
const LEAST = -5;
const MOST = 3;
const STEP = 0.1;
const PLACES = Math.round((MOST - LEAST) / STEP) + 1;

/** Whether so many results, with runs and without among them, are enough for a percentage. */
export function enoughResults(logs: readonly Pick<RunLog, "ran">[]): boolean {
  const ran = logs.filter((l) => l.ran).length;
  return logs.length >= CALIBRATED_FROM.logs && Math.min(ran, logs.length - ran) >= CALIBRATED_FROM.ofEach;
}

export interface RunCalibration {
  n: number;
  ran: number;
  enough: boolean;
  /** Chance of a run at each log ratio from LEAST on, every STEP: averaged over what the logs leave possible. */
  chances: number[];
}

const ratioOf = (sagLocal_m: number) =>
  Math.log(Math.max(sagAtEdge(requireNumber("sagLocal_m", sagLocal_m, { min: 0 })), 1e-9) / FLOW.sagRun_m);

/**
 * A shop's own chance of a run against the model's sag, from which of its panels ran: P = Φ((ln(sag/22 mm) + shift)/width), shift and width learnt
 * together on a grid (prior 0 ± 0.6; the model's own width × e^±0.5), the chance averaged over their posterior. @throws RangeError
 */
export function calibrateRuns(logs: readonly RunLog[]): RunCalibration {
  const usual = Math.log(sagLogSd());
  const z = logs.map((l) => ({ ratio: ratioOf(l.sagLocal_m), ran: l.ran }));
  const grid = SHIFTS.flatMap((shift) =>
    WIDTHS.map((width) => {
      const prior = -0.5 * (shift / PRIOR.shift) ** 2 - 0.5 * ((Math.log(width) - usual) / PRIOR.widthLog) ** 2;
      const fit = z.reduce((a, { ratio, ran }) => {
        const p = Math.min(1 - 1e-6, Math.max(1e-6, normalCdf((ratio + shift) / width)));
        return a + Math.log(ran ? p : 1 - p);
      }, prior);
      return { shift, width, fit };
    }),
  );
  const best = Math.max(...grid.map((g) => g.fit));
  const weights = grid.map((g) => Math.exp(g.fit - best));
  const sum = weights.reduce((a, w) => a + w, 0);
  return {
    n: logs.length,
    ran: logs.filter((l) => l.ran).length,
    enough: enoughResults(logs),
    chances: Array.from({ length: PLACES }, (_, i) => {
      const ratio = LEAST + i * STEP;
      return grid.reduce((a, g, k) => a + (weights[k]! / sum) * normalCdf((ratio + g.shift) / g.width), 0);
    }),
  };
}

/** The shop's own chance of a run for a foretold sag. @throws RangeError */
export function calibratedChance({ chances }: Pick<RunCalibration, "chances">, sagLocal_m: number): number {
  const at = Math.min(PLACES - 1, Math.max(0, (ratioOf(sagLocal_m) - LEAST) / STEP));
  const low = Math.min(PLACES - 2, Math.floor(at));
  return chances[low]! + (at - low) * (chances[low + 1]! - chances[low]!);
}
