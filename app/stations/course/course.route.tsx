import { acting } from "~/kit/form/in-words.server";
import { data } from "react-router";
import { flatRemoval } from "#core/judge/flow-question";
import { recordEntry } from "#server/commands/record-entry";
import { tiltHeld } from "#core/panel/wet-build";
import { againstNow } from "#server/views/against-view";
import { doneAgainst } from "~/kit/words/hold-name";
import { serverContext } from "#server/running";
import { panelOr404, sheetOr404 } from "~/kit/http/panel.server";
import { answerForm, textOf } from "~/kit/form/answer";
import { guardedAction } from "~/kit/form/guarded-action";
import { formOf } from "~/kit/http/body.server";
import { formPrefs } from "~/kit/http/prefs.server";
import { loadRunCalibration } from "#server/views/calibration-view";
import { mendingOf } from "#core/panel/mending";
import { courseAt } from "./course-at";
import { CourseDesk } from "./course.desk";
import { bakedForm, flattenForm, turnForm } from "~/kit/form/spray-entries";
import type { Route } from "./+types/course.route";

export const action = acting(async ({ request, params: { jobId, panelId } }: Route.ActionArgs) => {
  const ctx = await serverContext();
  const form = await formOf(request);
  const { units, by } = await formPrefs(request, form);
  const clientKey = textOf(form, "formKey") || null;
  switch (textOf(form, "intent")) {
    case "flatten":
      return answerForm(form, flattenForm(units), async ({ grit, by: how, removal }) => {
        const { job, state, shopRemoval } = await panelOr404(ctx, jobId, panelId);
        const usual = flatRemoval(job.way.flatten, state, shopRemoval);
        const from = removal === null ? "forecast" : "told";
        const body = { grit, by: how, removal_m: removal ?? usual.removal_m, u_m: usual.u_m, from } as const;
        return {
          entryId: await recordEntry(ctx, { panelId, kind: "flatten", body, by, clientKey }),
          message: "Sanded flat; the next coat begins a new build",
        };
      });
    case "turn":
      return answerForm(form, turnForm, async ({ how, side }) => {
        const { panel } = await panelOr404(ctx, jobId, panelId);
        const body = { how, side, tilt_rad: tiltHeld(how, panel) };
        return { entryId: await recordEntry(ctx, { panelId, kind: "turn", body, by, clientKey }), message: "Turned" };
      });
    case "heatOn":
      return {
        ok: true,
        intent: "heatOn",
        message: doneAgainst(
          "Heat is on; its clock runs",
          againstNow(await panelOr404(ctx, jobId, panelId), "heat", ctx.now_ms()),
          ctx.now_ms(),
        ),
        errors: {},
        entryId: await recordEntry(ctx, { panelId, kind: "bakeStart", body: { air_K: null }, by, clientKey }),
      };
    case "baked":
      return answerForm(form, bakedForm(units, await sheetOr404(ctx, panelId)), async ({ part, time }) => ({
        entryId: await recordEntry(ctx, { panelId, kind: "bake", body: { part_K: part, time_s: time }, by, clientKey }),
        message: "Baked; it cools now",
      }));
    default:
      throw data("Not understood", { status: 400 });
  }
});

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => guardedAction(serverAction);

/** A panel's first page: what now, what next, when and why. */
export async function loader({ params: { jobId, panelId } }: Route.LoaderArgs) {
  const ctx = await serverContext();
  const [view, calibration] = await Promise.all([panelOr404(ctx, jobId, panelId), loadRunCalibration(ctx)]);
  const at_ms = ctx.now_ms();
  return { calibration, reckoned: { at_ms, steps: courseAt(view, at_ms), mending: mendingOf(view.state) } };
}

export default function Course({ loaderData }: Route.ComponentProps) {
  return <CourseDesk {...loaderData} />;
}
