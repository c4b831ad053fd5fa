import { acting } from "~/kit/form/in-words.server";
import { serverContext } from "#server/running";
import { panelOr404 } from "~/kit/http/panel.server";
import { panelActs } from "~/kit/form/panel-acts.server";
import { guardedAction } from "~/kit/form/guarded-action";
import { glossAct } from "~/kit/readings/gloss-act.server";
import { readingAction } from "~/kit/readings/reading-action.server";
import { sprayAct } from "~/stations/spray/spray.act.server";
import { marksAct } from "~/stations/inspect/marks.act.server";
import { workAct } from "~/stations/correct/work.act.server";
import { loadRelease } from "~/stations/hand-over/release.server";
import { releaseAct } from "~/stations/hand-over/release.act.server";
import { loadRunCalibration } from "#server/views/calibration-view";
import { loadOthers } from "#server/views/together-view";
import { mendingOf } from "#core/panel/mending";
import { courseAct } from "./course.act.server";
import { courseAt, handAt } from "./course-at";
import { CourseDesk } from "./course.desk";
import type { Route } from "./+types/course.route";

/** The whole job without leaving it: what each station does at its step, done here by the station's own act. */
export const action = acting(panelActs(courseAct, readingAction, sprayAct, marksAct, workAct, releaseAct, glossAct));

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => guardedAction(serverAction);

/** A panel's first page: what now, what next, when and why; and what of the job's other panels may be done with it. */
export async function loader({ params: { jobId, panelId } }: Route.LoaderArgs) {
  const ctx = await serverContext();
  const [view, calibration] = await Promise.all([panelOr404(ctx, jobId, panelId), loadRunCalibration(ctx)]);
  const at_ms = ctx.now_ms();
  const release = view.standing.action?.kind === "handOver" ? await loadRelease(ctx, { jobId, panelId, view }) : null;
  return {
    calibration,
    others: await loadOthers(ctx, jobId, view),
    reckoned: { at_ms, steps: courseAt(view, at_ms), hand: handAt(view, at_ms), release, mending: mendingOf(view.state) },
  };
}

export default function Course({ loaderData, params }: Route.ComponentProps) {
  return <CourseDesk key={params.panelId} {...loaderData} />;
}
