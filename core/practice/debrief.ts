import { requireNumber } from "../kernel/guard";
import { boundingBox } from "../kernel/geometry/geometry";
import { STEP_S } from "../models/panel-film/constants";
import { lyingOf } from "../models/spray/row-plan";
import { type FilmOnPart, type PlaceOnPanel, cellFor } from "../models/panel-film/over-part";
import { fanBalance } from "../models/spray/fan-pattern";
import { USUAL_STROKES } from "../models/spray/strokes";
import { sprayAgain } from "./bench";
import { type BenchCoat, type BenchSetting, benchCoats } from "./bench-setting";
import { type FilmLoss, filmLoss } from "../models/panel-film/film-loss";
import { coatsInRows } from "./good-rows";
import { type FilmFault, type Otherwise, faultsOn, runsOn } from "./faults";
import { type CoatOfHand, benchGun, requireCoat } from "./hand";
import { SKILLS, type Skill, mended } from "./mended";
import { type RowMade, rowsMade } from "./rows-made";

export type GunPart = "needle" | "air" | "fan" | "pattern";
/** What one thing of the hand cost, and from where to try it again. */
export interface Advice {
  skill: Skill;
  coat: number;
  /** Row of that coat in which it was worst, counted from 1; null where it is no row's. */
  row: number | null;
  /** The moment from which to try it again, in its coat. */
  from_s: number;
  /** What it was and what was wanted, in the skill's own unit: share of the fan, m/s, m, m, m, s. */
  was: number;
  wanted: number;
  /** Which thing of the gun it was, of a gun: then the unit is that thing's own, m³/s, Pa, or a share. */
  part?: GunPart;
  /** What went, had it been as wanted: the part's shares that ran and lay thin, the least film, and how far the loss goes down. */
  loss: FilmLoss;
  cost: number;
}

export interface Debrief {
  /** As it came out, and as good rows would have. */
  loss: FilmLoss;
  good: FilmLoss;
  /** Rows of each coat, as the hand made them. */
  rows: RowMade[][];
  /** Dearest first; what cost nothing worth a word is not in it. */
  advice: Advice[];
  runs: (PlaceOnPanel & { coat: number })[];
  /** Where the film is at fault, and what of the hand it came of. */
  faults: FilmFault[];
  volume_m3: number;
  time_s: number;
}

/** Side of the cells with which what-if is worked out. */
const ROUGH_CELLS = 1100;
const ROUGH_SIDE_M = { min: 0.012, max: 0.03 } as const;
/** A loss that would go down by less than this is not worth a word. Default of ours. */
const WORTH_A_WORD = 0.015;

/** So near to what was wanted a hand does as it was told. Shares, but the overlap's; defaults of ours. */
export const KEPT = { overlap: 0.12, pace: 0.1, distance: 0.1, edge_m: 0.03, trigger_s: 0.2, wait: 0.1, gun: 0.1 } as const;

/**
 * What a session came to, and what to change: each thing is done once more as it was wanted, all else as the hand did it, and what the film loses less is
 * what it cost.
 * @param onProgress share done, 0 to 1 @throws RangeError
 */
export function debrief(setting: BenchSetting, coats: readonly CoatOfHand[], onProgress?: (share: number) => void): Debrief {
  if (coats.length === 0) throw new RangeError("coats must have at least 1 member, got 0");
  coats.forEach(requireCoat);
  const wanted = benchCoats({ ...setting, coats: Math.max(setting.coats, coats.length) });
  const cell_m = cellFor(setting.outline, ROUGH_CELLS, ROUGH_SIDE_M);
  const good = coatsInRows({ ...setting, coats: coats.length });
  const film_m = wanted.slice(0, coats.length).reduce((sum, c) => sum + c.dry_m, 0);
  const of = (sprayed: readonly CoatOfHand[], volume_m3?: number): [FilmLoss, FilmOnPart] => {
    const on = sprayAgain(setting, sprayed, { cell_m, longest_s: STEP_S.max });
    return [filmLoss(on.film, { film_m, volume_m3: volume_m3 ?? on.film.sums.used_m3 }), on];
  };
  const [goodLoss, { film: goodFilm }] = of(good);
  const volume_m3 = requireNumber("volume_m3", goodFilm.sums.used_m3, { above: 0 });
  const [loss, on] = of(coats, volume_m3);
  const rows = coats.map((coat, n) => rowsMade(setting.outline, coat, wanted[n]!.fan_m));
  const slips = SKILLS.flatMap((skill) => {
    const slip = worstOf(skill, setting, coats, rows, wanted);
    return slip ? [slip] : [];
  });
  const otherwise: Otherwise[] = [];
  const advice = slips.map((slip, k): Advice => {
    onProgress?.((k + 2) / (slips.length + 2));
    const [then, film] = of(asWanted(slip.skill, setting, coats, wanted), volume_m3);
    otherwise.push({ skill: slip.skill, on: film });
    return { ...slip, loss: then, cost: loss.total - then.total };
  });
  return {
    loss,
    good: goodLoss,
    faults: faultsOn(on, film_m, otherwise),
    rows,
    advice: advice.filter((a) => a.cost > WORTH_A_WORD).sort((a, b) => b.cost - a.cost),
    runs: runsOn(on),
    volume_m3: on.film.sums.used_m3,
    time_s: coats.reduce((sum, c) => sum + (c.hand.at(-1)?.t_s ?? 0), 0),
  };
}

const asWanted = (skill: Skill, { outline }: BenchSetting, coats: readonly CoatOfHand[], wanted: readonly BenchCoat[]): CoatOfHand[] =>
  coats.map((coat, n) => {
    if (skill === "wait") return { ...coat, flash_s: n + 1 < coats.length ? Math.max(coat.flash_s, wanted[n]!.wait_s ?? 0) : coat.flash_s };
    if (skill === "gun") return { ...coat, gun: benchGun(wanted[n]!.gun) };
    return mended(skill, outline, coat, wanted[n]!);
  });

/** Each thing of a gun: what it was, and what the way wants. */
function gunsOwn({ gun }: CoatOfHand, { gun: wanted }: BenchCoat): { part: GunPart; was: number; wanted: number; far: number }[] {
  const want = benchGun(wanted);
  const ratio = (part: GunPart, was: number, is: number) => ({ part, was, wanted: is, far: Math.abs(Math.log(was / is)) });
  const { balance, end } = gun.pattern ?? { balance: 0, end: 0 };
  const set = [
    ratio("needle", gun.fluidRate_m3_s, want.fluidRate_m3_s),
    ratio("air", gun.pressure_Pa, want.pressure_Pa),
    ratio("fan", gun.fanShare, want.fanShare),
  ];
  // What is out of balance by its settings is told by them; what then remains is the gun's own fault.
  const own = balance - fanBalance(gun.pressure_Pa / want.pressure_Pa, gun.fluidRate_m3_s / want.fluidRate_m3_s);
  return [...set, { part: "pattern", was: Math.abs(own) + Math.abs(end), wanted: 0, far: Math.abs(own) + Math.abs(end) }];
}

type Slip = Omit<Advice, "loss" | "cost">;

/** Where a skill was farthest from what was wanted; null where it was kept. */
function worstOf(
  skill: Skill,
  { outline }: BenchSetting,
  coats: readonly CoatOfHand[],
  rows: readonly (readonly RowMade[])[],
  wanted: readonly BenchCoat[],
): Slip | null {
  let worst: Slip | null = null;
  let far = 1;
  /** @param by how far it was from what was wanted, over what is let pass */
  const say = (by: number, slip: Omit<Slip, "skill">) => {
    if (by <= far) return;
    far = by;
    worst = { skill, ...slip };
  };
  coats.forEach((coat, n) => {
    const want = wanted[n]!;
    const at = (r: number) => ({ coat: n + 1, row: r + 1, from_s: coat.hand[rows[n]![r]!.first]!.t_s });
    if (skill === "wait") {
      if (n + 1 < coats.length && want.wait_s !== null)
        say((1 - coat.flash_s / want.wait_s) / KEPT.wait, {
          coat: n + 1,
          row: null,
          from_s: coat.hand.at(-1)?.t_s ?? 0,
          was: coat.flash_s,
          wanted: want.wait_s,
        });
      return;
    }
    if (skill === "gun") {
      for (const { part, was, wanted: is, far: by } of gunsOwn(coat, want))
        say(by / KEPT.gun, { coat: n + 1, row: null, from_s: 0, was, wanted: is, part });
      return;
    }
    if (skill === "edges") {
      const { y0: low, y1: high } = boundingBox(lyingOf(outline, coat.turned));
      const places = rows[n]!.map((r) => r.across_m);
      if (places.length === 0) return;
      const missing = [Math.min(...places) - low, high - Math.max(...places)];
      const upper = missing[0]! >= missing[1]!;
      say(Math.max(...missing) / KEPT.edge_m, { ...at(upper ? 0 : places.length - 1), was: Math.max(...missing), wanted: 0 });
      return;
    }
    rows[n]!.forEach((row, r) => {
      const share = (was: number, is: number) => Math.abs(was / is - 1);
      if (skill === "pace") {
        const { handSpeed_m_s } = want.gun;
        const [mean, slow] = [share(row.speed_m_s, handSpeed_m_s), 1 - row.slowest.speed_m_s / handSpeed_m_s];
        // A hand that stands for a moment is told by that moment; one that is slow or fast all along, by its mean.
        const stands = slow > 2 * mean && slow > 0.3;
        say(Math.max(mean, stands ? slow : 0) / KEPT.pace, {
          ...at(r),
          ...(stands ? { from_s: Math.min(row.slowest.t_s, coat.hand[row.first]!.t_s) } : {}),
          was: stands ? row.slowest.speed_m_s : row.speed_m_s,
          wanted: handSpeed_m_s,
        });
      } else if (skill === "distance") {
        const { distance_m } = want.gun;
        const was = row.distances_m.reduce((a, d) => (share(d, distance_m) > share(a, distance_m) ? d : a), row.distance_m);
        say(share(was, distance_m) / KEPT.distance, { ...at(r), was, wanted: distance_m });
      } else if (skill === "overlap") {
        if (row.overlap !== null && rows[n]!.length > 1)
          say(Math.abs(row.overlap - want.gun.overlap) / KEPT.overlap, { ...at(r), was: row.overlap, wanted: want.gun.overlap });
      } else {
        const short = Math.max(-row.pulledBefore_m, -row.letGoAfter_m);
        const by = Math.max(short / KEPT.edge_m + (short > 0 ? 1 : 0), row.stoodOutside_s / KEPT.trigger_s);
        say(by, { ...at(r), was: -short, wanted: USUAL_STROKES.overrun_m });
      }
    });
  });
  return worst;
}
