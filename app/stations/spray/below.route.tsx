import { acting } from "~/kit/form/in-words.server";
import { data } from "react-router";
import { LAYER_NAMES } from "#core/models/prep/layer-names";
import { UNDER_STEPS } from "#core/models/prep/under-clear";
import { logLayerCoat, planLayers } from "#server/commands/layers";
import { recordEntry } from "#server/commands/record-entry";
import { listShelf } from "#server/repos/product-repo";
import { serverContext } from "#server/running";
import { answerForm, textOf } from "~/kit/form/answer";
import { guardedAction } from "~/kit/form/guarded-action";
import { coatForm } from "~/kit/form/spray-entries";
import { formOf } from "~/kit/http/body.server";
import { panelOr404 } from "~/kit/http/panel.server";
import { formPrefs } from "~/kit/http/prefs.server";
import type { Route } from "./+types/below.route";
import { belowAt } from "./layers-at";
import { layerForm, layersForm } from "./layers.form";
import { underForm } from "./prep.form";
import { BelowDesk } from "./below.desk";

export const action = acting(async ({ request, params: { jobId, panelId } }: Route.ActionArgs) => {
  const ctx = await serverContext();
  const look = () => panelOr404(ctx, jobId, panelId);
  const form = await formOf(request);
  const { units, by } = await formPrefs(request, form);
  const clientKey = textOf(form, "formKey") || null;
  const logged = (layer: keyof typeof LAYER_NAMES) => `${LAYER_NAMES[layer]}: logged, its flash runs`;
  switch (textOf(form, "intent")) {
    case "layers":
      return answerForm(form, layersForm, async (plan) => ({
        entryId: await planLayers(ctx, await look(), { ...plan, by, clientKey }),
        message: "What goes below the clear is kept",
      }));
    case "colour":
      return answerForm(form, layerForm, async ({ layer }) => ({
        entryId: await logLayerCoat(ctx, await look(), { layer, settings: null, reducer: null, by, clientKey }),
        message: logged(layer),
      }));
    case "layerCoat":
      return answerForm(form, layerForm.and(coatForm(units)), async ({ layer, settings, reducer, zone, number }) => ({
        entryId: await logLayerCoat(ctx, await look(), { layer, settings, reducer, zone, by, clientKey, shown: number }),
        message: logged(layer),
      }));
    case "under":
      return answerForm(form, underForm(units), async (body) => ({
        entryId: await recordEntry(ctx, { panelId, kind: "under", body, by }),
        message: `${UNDER_STEPS.find((s) => s.id === body.step)!.name}: logged`,
      }));
    default:
      throw data("Not understood", { status: 400 });
  }
});

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => guardedAction(serverAction);

export async function loader({ params: { jobId, panelId } }: Route.LoaderArgs) {
  const ctx = await serverContext();
  const [view, shelf] = await Promise.all([panelOr404(ctx, jobId, panelId), listShelf(ctx.db)]);
  return belowAt(view, shelf, ctx.now_ms());
}

export default function Below({ loaderData }: Route.ComponentProps) {
  return <BelowDesk loaderData={loaderData} />;
}
