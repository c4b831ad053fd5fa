import { type Polygon, boundingBox } from "../kernel/geometry/geometry";
import { requireNumber } from "../kernel/guard";
import { SETTLES_S } from "../models/panel-film/constants";
import { reachAt } from "../models/spray/reach-at";
import { USUAL_STROKES, type Pass } from "../models/spray/strokes";
import { type BenchCoat, type BenchSetting, benchCoats } from "./bench-setting";
import { type CoatOfHand, type HandMoment, benchGun, setOtherwise } from "./hand";

/** What of a hand is otherwise than the way wants it; what is not said is as it wants it. */
export interface HandSlip {
  /** Speed over the one wanted, of all rows. */
  pace?: number;
  /** The gun stands still so long in the middle of a row, or at another share of it. */
  dwell?: { row: number; seconds: number; at?: number };
  /** One row goes so many times as fast, and the one after it. */
  rush?: { row: number; times: number };
  /** Distance over the one wanted: in the middle of a row, and at its ends (a hand that swings in an arc). */
  distance?: number;
  distanceAtEnds?: number;
  overlap?: number;
  /** The trigger is pulled so far before the part and let go so far behind it; less than zero: on it. */
  overrun_m?: number;
  /** It stays pulled in the turns. */
  held?: boolean;
  /** The first row lies so far below the upper edge, the last so far above the lower. */
  inset_m?: number;
  /** Needle, air and fan over what the way wants. */
  gun?: { fluid?: number; air?: number; fan?: number };
  /** The next coat goes on after so much of the wait. */
  wait?: number;
}

/** Below so many gaps a part has the rows that come nearest to the overlap. Default of ours. */
const FEW_GAPS = 2;
/** So often a hand is looked at. */
const EVERY_S = 1 / 30;

/**
 * Rows over a part as they are practised: one along the upper edge, one along the lower, the others evenly between, none farther apart than the overlap
 * wants; a part lower than two gaps has two rows or three, whichever lies nearer. @throws RangeError
 */
export function evenRows(outline: Polygon, { fan_m, overlap, inset_m = 0, overrun_m = USUAL_STROKES.overrun_m }: RowsAsked): Pass[] {
  const { y0, y1 } = boundingBox(outline);
  const pitch_m = requireNumber("fan_m", fan_m, { min: 0.01, max: 1 }) * (1 - requireNumber("overlap", overlap, { min: 0, max: 0.9 }));
  const height_m = Math.max(0, y1 - y0 - 2 * inset_m);
  const apart = height_m / pitch_m;
  // On a part of hardly more than one gap a third row would lay half as much again.
  const gaps = Math.max(1, apart < FEW_GAPS ? Math.round(apart) : Math.ceil(apart - 1e-6));
  return Array.from({ length: gaps + 1 }, (_, k) => {
    const y_m = y0 + inset_m + (height_m * k) / gaps;
    const [from_m, to_m] = reachAt(outline, Math.min(y1, Math.max(y0, y_m)), fan_m);
    const row = { x0_m: from_m - overrun_m, x1_m: to_m + overrun_m, y_m };
    return k % 2 === 0 ? row : { ...row, x0_m: row.x1_m, x1_m: row.x0_m };
  });
}

/** Rows of a coat as the way wants them; of every other staggered coat they lie between those of the coat before, half a gap past both edges. @throws RangeError */
export function rowsWanted(outline: Polygon, asked: Omit<RowsAsked, "inset_m">, between = false): Pass[] {
  const rows = evenRows(outline, asked);
  return between ? evenRows(outline, { ...asked, inset_m: betweenInset(rows) }) : rows;
}
const betweenInset = (rows: readonly Pass[]): number => -Math.abs(rows[1]!.y_m - rows[0]!.y_m) / 2;
/** Whether the rows of a coat lie between those of the one before it. @param coat from 1 */
export const liesBetween = ({ staggered = false }: Pick<BenchSetting, "staggered">, coat: number): boolean => staggered && coat % 2 === 0;

interface RowsAsked {
  fan_m: number;
  overlap: number;
  inset_m?: number | undefined;
  overrun_m?: number | undefined;
}

/** One coat in rows as a hand goes that does all as the way wants it but for its slip. @throws RangeError */
export function coatInRows(outline: Polygon, coat: BenchCoat, slip: HandSlip = {}): Omit<CoatOfHand, "flash_s"> {
  const { gun, fan_m, reducer } = coat;
  const overrun_m = slip.overrun_m ?? USUAL_STROKES.overrun_m;
  // The hand itself always runs past the part: a trigger let go on it leaves the gun moving.
  const runs_m = Math.max(overrun_m, 0.02);
  const rows = evenRows(outline, { fan_m, overlap: slip.overlap ?? gun.overlap, inset_m: slip.inset_m, overrun_m: runs_m });
  const speed = gun.handSpeed_m_s * (slip.pace ?? 1);
  const middle = gun.distance_m * (slip.distance ?? 1);
  const ends = middle * (slip.distanceAtEnds ?? 1);
  const hand: HandMoment[] = [];
  let t_s = 0;
  rows.forEach(({ x0_m, x1_m, y_m }, r) => {
    const length_m = Math.abs(x1_m - x0_m);
    const rushes = slip.rush && (r === slip.rush.row || r === slip.rush.row + 1) ? slip.rush.times : 1;
    const takes_s = length_m / speed / rushes;
    const steps = Math.max(2, Math.round(takes_s / EVERY_S));
    for (let k = 0; k <= steps; k++) {
      const share = k / steps;
      const far = Math.min(share, 1 - share) * length_m;
      const distance_m = middle + (ends - middle) * Math.max(0, Math.abs(2 * share - 1)) ** 2;
      const pulled = far >= runs_m - overrun_m - 1e-9 && k < steps;
      hand.push({ t_s, x_m: x0_m + (x1_m - x0_m) * share, y_m, distance_m, pulled: pulled || (slip.held === true && r + 1 < rows.length) });
      t_s += takes_s / steps;
      if (slip.dwell?.row === r && k === Math.round(steps * (slip.dwell.at ?? 0.5))) t_s += slip.dwell.seconds;
    }
    t_s += USUAL_STROKES.turn_s;
  });
  return { gun: slip.gun ? setOtherwise(benchGun(gun), slip.gun) : benchGun(gun), reducer, turned: false, hand };
}

/** All coats of a setting in such rows, with the waits that the way wants. @param slips by coat, or one for all @throws RangeError */
export function coatsInRows(setting: BenchSetting, slips: HandSlip | readonly HandSlip[] = {}): CoatOfHand[] {
  return benchCoats(setting).map((coat, n) => {
    const told = Array.isArray(slips) ? ((slips as readonly HandSlip[])[n] ?? {}) : (slips as HandSlip);
    const asked = { fan_m: coat.fan_m, overlap: coat.gun.overlap };
    const slip = liesBetween(setting, n + 1) ? { inset_m: betweenInset(evenRows(setting.outline, asked)), ...told } : told;
    return { ...coatInRows(setting.outline, coat, slip), flash_s: coat.wait_s === null ? SETTLES_S : coat.wait_s * (slip.wait ?? 1) };
  });
}
