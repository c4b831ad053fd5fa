import { asLayer, nextLayer } from "#core/coat/as-layer";
import { coatsAsked } from "#core/coat/asked";
import { nextCoat } from "#core/coat/next-coat";
import { courseOf } from "#core/course/course";
import type { CourseStep } from "#core/course/steps";
import type { BodyOf } from "#core/record/bodies";
import type { PanelView } from "#server/views/panel-view";

/** A panel's course as it is forecast at a moment: by the server with the page, and in the window once that moment is past. */
export const courseAt = (view: PanelView, now_ms: number): CourseStep[] =>
  courseOf({ ...coatsAsked(view, now_ms), finish: view.job.finish });

/** What of the gun mostly differs from coat to coat, as its owner has it for the next one. */
export type HandAt = Pick<BodyOf<"coat">["settings"], "fluidFrom" | "turns" | "fluidRate_m3_s" | "handSpeed_m_s">;

/** The gun of the next coat, of a layer below the clear while one is to come. */
export function handAt(view: PanelView, now_ms: number): HandAt {
  const clear = coatsAsked(view, now_ms);
  const layer = nextLayer(view.state, view.panel);
  const { fluidFrom, turns, fluidRate_m3_s, handSpeed_m_s } = nextCoat(layer ? asLayer(clear, layer) : clear).settings;
  return { fluidFrom, turns, fluidRate_m3_s, handSpeed_m_s };
}
