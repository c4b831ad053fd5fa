import { acting } from "~/kit/form/in-words.server";
import { z } from "zod";
import { recordEntry } from "#server/commands/record-entry";
import { serverContext } from "#server/running";
import { checkStandInTile, takeStandInGloss } from "#server/devices/take-gloss";
import { getJob } from "#server/repos/job-repo";
import { listPanels } from "#server/repos/panel-repo";
import { loadMatteShelf } from "#server/views/matte-view";
import { answerForm, textOf } from "~/kit/form/answer";
import { glossAngle, glossMeterForm, matteCheckForm, matteMixForm } from "~/kit/form/gloss-readings";
import { guardedAction } from "~/kit/form/guarded-action";
import type { Act } from "~/kit/form/act";
import { panelActs } from "~/kit/form/panel-acts.server";
import { glossAct } from "~/kit/readings/gloss-act.server";
import type { Route } from "./+types/gloss.route";
import { loadPlanAhead } from "#server/views/plan-ahead-view";
import { panelOr404 } from "~/kit/http/panel.server";
import { PanelGlossDesk } from "./gloss.desk";

export async function loader({ params: { jobId, panelId } }: Route.LoaderArgs) {
  const ctx = await serverContext();
  const [view, shelf, panels] = await Promise.all([panelOr404(ctx, jobId, panelId), loadMatteShelf(ctx), listPanels(ctx.db, jobId)]);
  const faces = panels.map((p) => ({ name: p.name, tilt_rad: p.tilt_rad, sides: p.sides ?? 1, revisionId: p.productRevisionId }));
  const { clear, bySheet_m, again } = loadPlanAhead(view, ctx.now_ms());
  return { ...shelf, faces, film_m: clear?.clear_m ?? bySheet_m, again_m3: again.toMix_m3 };
}

const matteAct: Act = async (ctx, { jobId, panelId }, form, { by }) => {
  const clientKey = textOf(form, "formKey") || null;
  switch (textOf(form, "intent")) {
    case "meter":
      return answerForm(form, glossMeterForm, async (v) => ({
        entryId: await takeStandInGloss(ctx, { ...v, panelId, matte: (await getJob(ctx.db, jobId))?.finish === "matte", by }),
        message: "Read with the stand-in meter: simulated",
      }));
    case "tile":
      return answerForm(form, z.object({ angle: glossAngle }), async ({ angle }) => ({ message: await checkStandInTile(ctx, angle) }));
    case "take":
      return answerForm(form, matteMixForm, async (body) => ({
        entryId: await recordEntry(ctx, { panelId, kind: "matteMix", body, by, clientKey }),
        message: "Taken: it stands in the mix",
      }));
    case "check":
      return answerForm(form, matteCheckForm, async (body) => ({
        entryId: await recordEntry(ctx, { panelId, kind: "matteCheck", body, by }),
        message: "Check list stored",
      }));
    default:
      return null;
  }
};

export const action = acting(panelActs(glossAct, matteAct));

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => guardedAction(serverAction);
export default function PanelGloss({ loaderData }: Route.ComponentProps) {
  return <PanelGlossDesk loaderData={loaderData} />;
}
