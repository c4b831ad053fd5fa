import { data } from "react-router";
import { z } from "zod";
import { orderPanels } from "#server/commands/vehicle";
import { serverContext } from "#server/running";
import { loadRound } from "#server/views/vehicle-view";
import { answerForm, textOf, versionIn } from "~/kit/form/answer";
import { guardedAction } from "~/kit/form/guarded-action";
import { acting } from "~/kit/form/in-words.server";
import { formOf } from "~/kit/http/body.server";
import type { Route } from "./+types/wet-edge.route";
import { WetEdgeDesk } from "./wet-edge.desk";

export const meta: Route.MetaFunction = () => [{ title: "Wet edge · Yakamoz" }];

export async function loader({ params: { jobId } }: Route.LoaderArgs) {
  const view = await loadRound(await serverContext(), jobId);
  if (!view) throw data("This job is not in the file.", { status: 404 });
  return view;
}

const id = z.string().max(80);
const orderForm = z.object({ panel: z.union([id.transform((one) => [one]), z.array(id).max(60)]) });

export const action = acting(async ({ request, params: { jobId } }: Route.ActionArgs) => {
  const ctx = await serverContext();
  const form = await formOf(request);
  if (textOf(form, "intent") !== "order") throw data("Not understood", { status: 400 });
  return answerForm(form, orderForm, async ({ panel }) => {
    await orderPanels(ctx, { jobId, order: panel, expected: versionIn(form) });
    return { message: "Order taken: booth view and lists go by it" };
  });
});

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => guardedAction(serverAction);
export default function WetEdge({ loaderData }: Route.ComponentProps) {
  return <WetEdgeDesk loaderData={loaderData} />;
}
