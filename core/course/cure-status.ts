import type { CurePhase } from "../models/defects/remedies";
import { SCUFF_AFTER_S } from "../models/ways/wait-after";
import type { CourseInput } from "./course";
import { cureOf, readyAt } from "../coat/cure";

const MS = 1000;
type FilmAsked = Pick<CourseInput, "sheet" | "facts" | "way" | "finish">;
/** A steel part is hot from the bake so long after heat off. Common practice. */
const HOT_S = 15 * 60;
/** Where a sheet does not say when it is out of dust: common practice, 15 min at 20 °C. */
const DUST_FREE_S = 15 * 60;

const MINUTE_MS = 60_000;
/** Cure goes by minutes: within one the same is asked, on the server and in the window, and answered once. */
export const minuteOf = (now_ms: number): number => Math.floor(now_ms / MINUTE_MS) * MINUTE_MS;

/** As long as the course waits it is not cured, whatever its age says. */
const ALMOST = 0.999;

/** How far the clear of a panel is: what may be done with it now, and how long until it bears work. */
export interface CureStatus {
  phase: CurePhase;
  /** Its age against the sheet's sanding point; 1 exactly when the course has it bear work. */
  cured: number;
  left_s: number;
}

/** The one answer for options, plans and pages; a bought panel, on which nobody logged a coat, is long cured. @throws RangeError */
export function cureStatus({ sheet, facts, way, finish, now_ms }: FilmAsked & { now_ms: number }): CureStatus {
  const cure = cureOf(sheet, facts, now_ms);
  if (!cure) return { phase: "cured", cured: 1, left_s: 0 };
  const ready_ms = readyAt(cure, { way, finish });
  const left_s = Math.max(0, (ready_ms - now_ms) / MS);
  if (left_s === 0) return { phase: "cured", cured: 1, left_s };
  const cured = Math.min(ALMOST, cure.age_s / sheet.sandAfter_s);
  const heat = facts.bakes.at(-1);
  const hot = heat !== undefined && now_ms - heat.at_ms < HOT_S * MS;
  const phase = hot
    ? "hot"
    : heat || facts.baking
      ? "curing"
      : cure.age_s < (sheet.dustFree_s ?? DUST_FREE_S)
        ? "wet"
        : cure.age_s < SCUFF_AFTER_S
          ? "open"
          : "curing";
  return { phase, cured, left_s };
}

/** The same of a panel as its view holds it. @throws RangeError */
export const filmOf = (
  { state, job, product }: { state: FilmAsked["facts"]; job: Pick<FilmAsked, "way" | "finish">; product: Pick<FilmAsked, "sheet"> },
  now_ms: number,
): CureStatus => cureStatus({ sheet: product.sheet, facts: state, way: job.way, finish: job.finish, now_ms });
