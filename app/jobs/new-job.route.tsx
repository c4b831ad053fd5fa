import { acting } from "~/kit/form/in-words.server";
import { redirect } from "react-router";
import { createJob } from "#server/commands/jobs";
import { serverContext } from "#server/running";
import { listClears } from "#server/repos/product-repo";
import { getShop } from "#server/repos/shop-repo";
import { listWays } from "#server/repos/way-repo";
import { answerForm } from "~/kit/form/answer";
import { jobForm } from "./job.form";
import { guardedAction } from "~/kit/form/guarded-action";
import { formPrefs } from "~/kit/http/prefs.server";
import { productChoice } from "./panel-fields";
import { formOf } from "~/kit/http/body.server";
import type { Route } from "./+types/new-job.route";
import { NewJobDesk } from "./new-job.desk";

export const meta: Route.MetaFunction = () => [{ title: "New job · Yakamoz" }];

export async function loader() {
  const ctx = await serverContext();
  const [shop, products, ways] = await Promise.all([getShop(ctx.db), listClears(ctx.db), listWays(ctx.db)]);
  return {
    ways,
    usual: ways.find((w) => w.id === shop.wayId) ?? ways[0]!,
    formKey: ctx.newId(),
    products: products.map(productChoice),
  };
}

export const action = acting(async ({ request }: Route.ActionArgs) => {
  const ctx = await serverContext();
  const form = await formOf(request);
  const { units } = await formPrefs(request, form);
  const made = { jobId: "", panelId: "" };
  const answer = await answerForm(form, jobForm(units), async (job) => {
    Object.assign(made, await createJob(ctx, job));
  });
  return made.jobId ? redirect(`/jobs/${made.jobId}/panels/${made.panelId}/course`) : answer;
});

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => guardedAction(serverAction);
export default function NewJob({ loaderData, actionData }: Route.ComponentProps) {
  return <NewJobDesk loaderData={loaderData} actionData={actionData} />;
}
