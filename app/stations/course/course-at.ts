import { coatsAsked } from "#core/coat/asked";
import { courseOf } from "#core/course/course";
import type { CourseStep } from "#core/course/steps";
import type { PanelView } from "#server/views/panel-view";

/** A panel's course as it is forecast at a moment: by the server with the page, and in the window once that moment is past. */
export const courseAt = (view: PanelView, now_ms: number): CourseStep[] =>
  courseOf({ ...coatsAsked(view, now_ms), finish: view.job.finish });
