import { type Bench, WATCHED_CELLS, benchCell, takeBench } from "#core/practice/bench";
import { type BenchSetting, benchConditions } from "#core/practice/bench-setting";
import { SETTLES_S } from "#core/models/panel-film/constants";
import { coatsInRows } from "#core/practice/good-rows";
import type { CoatOfHand, HandMoment } from "#core/practice/hand";
import { flowStep } from "#core/models/panel-film/flow-step";
import { farthestSlide, panelFilm } from "#core/models/panel-film/panel-film";
import { type Touch, touchOf } from "#core/practice/touch";
import { cellAt } from "#core/models/panel-film/over-part";
import { type Fibre, fibreOn, pitWhereLifted } from "#core/practice/fibre";
import type { Nib } from "#core/practice/job/cured";
import { type FibreTold, type FilmHere, MOMENT } from "./bench-talk";

/** A step of the flow may take so long: four a second, beside what lands and what is drawn. */
const STEP_MS = 8;

/** So many cells this device keeps up with: told by a few steps of a small wet panel. */
function cellsHere(setting: BenchSetting): number {
  const film = panelFilm({ width_m: 0.6, height_m: 0.6, cell_m: 0.005 }, benchConditions(setting));
  film.solids_m.fill(25e-6);
  film.solvent_m.fill(25e-6);
  let best_ms = Infinity;
  for (let n = 0; n < 12; n++) {
    const began = performance.now();
    flowStep(film, 0.25);
    best_ms = Math.min(best_ms, performance.now() - began);
  }
  const cells = (STEP_MS / Math.max(0.05, best_ms)) * film.inside.length;
  return Math.min(WATCHED_CELLS.most, Math.max(WATCHED_CELLS.least, cells));
}

interface Sprayed {
  gun: CoatOfHand["gun"];
  reducer: number;
  turned: boolean;
  hand: HandMoment[];
  flash_s: number;
}

interface FibreOfCoat {
  coat: number;
  fibre: Fibre;
  /** The pit that it would have left as soon as it fell; null: it has not fallen yet. */
  best_m: number | null;
  lifted: { after_s: number; pit_m: number } | null;
}
const toldOf = ({ coat, fibre: { falls_s, height_m }, best_m, lifted }: FibreOfCoat): FibreTold => ({
  coat,
  falls_s,
  height_m,
  best_m: best_m!,
  lifted,
});

/** A bench with its log: what the hand did is kept, so that it can be done once more. */
export class BenchTable {
  readonly bench: Bench;
  readonly coats: Sprayed[] = [];
  private readonly fibres: FibreOfCoat[] = [];
  private rolled = 0;
  private spraying = false;
  private at: HandMoment | null = null;

  /**
   * @param laid coats that lie there as the way wants them @param sprayed coats that were sprayed already, up to where it is tried again
   * @param goesOn the last of them is still being sprayed @param unseen nobody watches it being sprayed: no more cells than it takes
   */
  constructor(
    readonly setting: BenchSetting,
    { laid, sprayed, goesOn, unseen }: { laid: number; sprayed: readonly CoatOfHand[]; goesOn: boolean; unseen: boolean },
  ) {
    this.bench = takeBench(setting, benchCell(setting.outline, unseen ? WATCHED_CELLS.least : cellsHere(setting)));
    const before = sprayed.length > 0 ? sprayed : laid > 0 ? coatsInRows(setting).slice(0, laid) : [];
    before.forEach((coat, n) => {
      this.coat(coat);
      for (const moment of coat.hand) this.hand(moment);
      if (goesOn && n + 1 === before.length) return;
      this.on();
      this.waits(coat.flash_s);
    });
  }
  coat({ gun, reducer, turned }: Pick<CoatOfHand, "gun" | "reducer" | "turned">): void {
    this.coats.push({ gun, reducer, turned, hand: [], flash_s: 0 });
    this.bench.begins({ gun, reducer, turned });
    this.spraying = true;
  }
  hand(moment: HandMoment): void {
    if (!this.spraying) return;
    this.coats.at(-1)!.hand.push(moment);
    this.bench.hand(moment);
    this.at = moment;
  }
  moments(packed: Float64Array): void {
    for (let k = 0; k + MOMENT <= packed.length; k += MOMENT)
      this.hand({ t_s: packed[k]!, x_m: packed[k + 1]!, y_m: packed[k + 2]!, distance_m: packed[k + 3]!, pulled: packed[k + 4]! > 0 });
  }
  on(): void {
    this.bench.ends();
    this.spraying = false;
  }
  waits(seconds: number): void {
    this.bench.waits(seconds);
    const last = this.coats.at(-1);
    if (!last) return;
    last.flash_s += seconds;
    const newest = this.newest;
    if (newest && newest.best_m === null && last.flash_s >= newest.fibre.falls_s) newest.best_m = pitWhereLifted(this.bench, newest.fibre);
  }
  private get newest(): FibreOfCoat | undefined {
    return this.fibres.find((f) => f.coat === this.coats.length);
  }
  /** Whatever falls on the newest coat is told by a seed, once. */
  mayFall(seed: number): void {
    if (this.rolled === this.coats.length || this.coats.length === 0) return;
    this.rolled = this.coats.length;
    const fibre = fibreOn(this.setting.outline, seed);
    if (fibre) this.fibres.push({ coat: this.coats.length, fibre, best_m: null, lifted: null });
  }
  /** What lies on the newest coat. */
  get lies(): Fibre | null {
    const { newest } = this;
    return newest && newest.best_m !== null && !newest.lifted ? newest.fibre : null;
  }
  /** It is lifted out; null where nothing lies. */
  lifts(): FibreTold | null {
    const { newest } = this;
    if (!newest || !this.lies) return null;
    newest.lifted = { after_s: this.coats.at(-1)!.flash_s, pit_m: pitWhereLifted(this.bench, newest.fibre) };
    return toldOf(newest);
  }
  /** What fell on the coats, and what became of it. */
  get fell(): FibreTold[] {
    return this.fibres.filter((f) => f.best_m !== null).map(toldOf);
  }
  /** What stands out of the film in the end. */
  get left(): Nib[] {
    return this.fibres.flatMap(({ fibre: { x_m, y_m, height_m }, best_m, lifted }) =>
      best_m === null || lifted ? [] : [{ x_m, y_m, height_m }],
    );
  }
  /** The coats as they are judged: the last lies until nothing moves. */
  asSprayed(): CoatOfHand[] {
    return this.coats
      .filter((c) => c.hand.length > 1)
      .map((c, n, all) => ({ ...c, flash_s: n + 1 === all.length ? Math.max(c.flash_s, SETTLES_S) : c.flash_s }));
  }
  /** Until nothing moves. */
  settles(): void {
    this.on();
    this.bench.waits(SETTLES_S);
  }
  get here(): FilmHere {
    const { film } = this.bench;
    if (!this.at) return { fixed_m: 0, mobile_m: 0 };
    const c = cellAt(this.bench, this.at);
    return { fixed_m: film.fixed_m[c]!, mobile_m: film.solids_m[c]! + film.solvent_m[c]! };
  }
  get touch(): Touch | null {
    return touchOf(this.bench.film, this.coats.length);
  }
  get slid_m(): number {
    const { film } = this.bench;
    let most = 0;
    for (let c = 0; c < film.slide_m.length; c++) if (film.inside[c] === 1) most = Math.max(most, farthestSlide(film, c));
    return most;
  }
}
