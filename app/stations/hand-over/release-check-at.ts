import { filmOf } from "#core/course/cure-status";
import { type ReleaseCheck, releaseCheck } from "#core/judge/release-check";
import { outQuestion } from "#core/judge/questions";
import type { PanelView } from "#server/views/panel-view";

/** Whether a panel goes out at a moment: by the server with the page, and in the window once that moment is past. @param others_GU gloss of the job's other panels */
export const releaseCheckAt = (view: PanelView, others_GU: readonly number[], now_ms: number): ReleaseCheck =>
  releaseCheck(outQuestion(view, { film: filmOf(view, now_ms), others_GU }));
