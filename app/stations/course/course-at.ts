import { courseOf } from "#core/course/course";
import type { CourseStep } from "#core/course/steps";
import type { PanelView } from "#server/views/panel-view";

/** A panel's course as it is forecast at a moment: by the server with the page, and in the window once that moment is past. */
export const courseAt = ({ job, panel, product, state, shopFactors, shopFilm }: PanelView, now_ms: number): CourseStep[] =>
  courseOf({
    brief: panel,
    sheet: product.sheet,
    way: job.way,
    finish: job.finish,
    facts: state,
    shop: shopFactors,
    u_filmLog: shopFilm.u_log,
    now_ms,
  });
