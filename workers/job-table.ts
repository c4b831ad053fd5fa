import { copyFilm } from "#core/models/panel-film/panel-film";
import type { FilmOnPart, PlaceOnPanel } from "#core/models/panel-film/over-part";
import type { Look } from "#core/models/panel-film/seen";
import type { Debrief } from "#core/practice/debrief";
import { type CuredPanel, type Nib, WORKED, curedPanel } from "#core/practice/job/cured";
import { dustOn } from "#core/practice/job/dust";
import { gaugeStandIn } from "#core/practice/job/gauge-stand-in";
import { type JobJudged, type JobSaid, judgedJob } from "#core/practice/job/judged";
import { type JobTool, polish, sand } from "#core/practice/job/sanding";
import type { BenchTable } from "./bench-table";

/** What was sanded looks like the bare base by so much: dull. */
const DULL = 0.45;

/** A bench whose panel has gone hard: it is read, sanded and handed over. */
export class JobTable {
  private readonly panel: CuredPanel;
  private readonly fell: readonly Nib[];
  private readonly gauge: ReturnType<typeof gaugeStandIn>;

  constructor(
    private readonly table: BenchTable,
    seed: number,
  ) {
    table.settles();
    this.fell = [...table.left, ...dustOn(table.setting.outline, table.asSprayed(), seed)];
    this.panel = curedPanel(table.bench, this.fell);
    this.gauge = gaugeStandIn(seed);
  }
  get nibs(): readonly Nib[] {
    return this.panel.nibs.filter((nib) => nib.height_m > 0);
  }
  reads(at: PlaceOnPanel): number | null {
    return this.gauge(this.panel.on, at);
  }
  sands(tool: JobTool, at: PlaceOnPanel, seconds: number): void {
    sand(this.panel, tool, at, seconds);
  }
  /** Where it was sanded it is dull, where it is through the base shows. */
  marksWork(rgba: Uint8ClampedArray, { bare }: Look, scale: number): void {
    const { columns, rows } = this.panel.on.film;
    const width = columns * scale;
    for (let py = 0; py < rows * scale; py++)
      for (let px = 0; px < width; px++) {
        const done = this.panel.worked[Math.floor(py / scale) * columns + Math.floor(px / scale)];
        if (done === WORKED.not) continue;
        const share = done === WORKED.through ? 1 : DULL;
        for (let k = 0, at = (py * width + px) * 4; k < 3; k++, at++) rgba[at] = rgba[at]! + share * (bare[k]! - rgba[at]!);
      }
  }
  /** What was sanded is polished, and what was said is held against what is true. @returns also the film before the work, and as the readings say it */
  handsOver(said: JobSaid, { told, floor_m }: { told: Debrief; floor_m: number }): { judged: JobJudged; films: FilmOnPart[] } {
    polish(this.panel);
    const { on, was_m } = this.panel;
    const judged = judgedJob(this.panel, said, {
      outline: this.table.setting.outline,
      faults: told.faults,
      nibs: this.fell,
      planned_m: told.good.mean_m,
      floor_m,
    });
    const drawn = (film_m: Float64Array): FilmOnPart => {
      const film = copyFilm(on.film);
      film.fixed_m.set(film_m);
      return { film, origin: on.origin };
    };
    return { judged, films: judged.belief_m ? [drawn(was_m), drawn(judged.belief_m)] : [drawn(was_m)] };
  }
}
