import { acting } from "~/kit/form/in-words.server";
import { data } from "react-router";
import { fixCoat, replanFromNow, saveBoothPlan } from "#server/commands/booth-plan";
import { serverContext } from "#server/running";
import type { BoothRules } from "#server/repos/booth-plan-repo";
import { loadBoothPlan } from "#server/views/booth-plan-view";
import { answerForm, textOf, versionIn } from "~/kit/form/answer";
import { boothPlanForm, fixCoatForm } from "./booth-plan.form";
import { rulesShown } from "./booth-plan.texts";
import { guardedAction } from "~/kit/form/guarded-action";
import { formPrefs } from "~/kit/http/prefs.server";
import { formOf } from "~/kit/http/body.server";
import type { Route } from "./+types/booth-plan.route";
import { BoothPlanPageDesk } from "./booth-plan.desk";

export const meta: Route.MetaFunction = () => [{ title: "Booth plan · Yakamoz" }];

export async function loader({ request }: Route.LoaderArgs) {
  return loadBoothPlan(await serverContext(), new URL(request.url).searchParams.get("job"));
}

export const action = acting(async ({ request }: Route.ActionArgs) => {
  const ctx = await serverContext();
  const form = await formOf(request);
  const { units } = await formPrefs(request, form);
  switch (textOf(form, "intent")) {
    case "plan":
      return answerForm(
        form,
        boothPlanForm(units),
        async (plan) => {
          await saveBoothPlan(ctx, plan, versionIn(form));
          return { message: "Plan set" };
        },
        (there: BoothRules) => rulesShown(there, Number(textOf(form, "midnight")), units),
      );
    case "fix":
      return answerForm(form, fixCoatForm, async (v) => {
        await fixCoat(ctx, v);
        return { message: v.start_ms === null ? "Let go; the plan finds its time" : "Fixed; the rest is planned around it" };
      });
    case "now":
      return answerForm(form, fixCoatForm.pick({ version: true }), async ({ version }) => {
        await replanFromNow(ctx, version);
        return { message: "Planned again from now" };
      });
    default:
      throw data("Not understood", { status: 400 });
  }
});

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => guardedAction(serverAction);
export default function BoothPlanPage({ loaderData }: Route.ComponentProps) {
  return <BoothPlanPageDesk loaderData={loaderData} />;
}
