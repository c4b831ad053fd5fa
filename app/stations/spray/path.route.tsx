import { data } from "react-router";
import { coatsAsked } from "#core/coat/asked";
import { type PathSet, pathNow } from "#core/coat/path-ahead";
import { rowsVersion, takePath } from "#server/commands/row-plan";
import { serverContext } from "#server/running";
import type { RowPlan } from "#core/models/spray/row-plan";
import { USUAL_ROWS } from "#core/models/spray/row-plan";
import { answerForm, textOf, versionIn } from "~/kit/form/answer";
import { checkedBy } from "~/kit/form/fields";
import { guardedAction } from "~/kit/form/guarded-action";
import { acting } from "~/kit/form/in-words.server";
import { formOf } from "~/kit/http/body.server";
import { panelOr404 } from "~/kit/http/panel.server";
import { formPrefs } from "~/kit/http/prefs.server";
import type { Route } from "./+types/path.route";
import { PathDesk } from "./path.desk";
import { pathTexts, readPath } from "./path.form";
import { pathSaid } from "./path.words";

export async function loader({ params: { jobId, panelId } }: Route.LoaderArgs) {
  const ctx = await serverContext();
  const view = await panelOr404(ctx, jobId, panelId);
  const asked = coatsAsked(view, ctx.now_ms());
  return { asked, now: pathNow(asked), version: rowsVersion(view.panel), formKey: ctx.newId() };
}

export const action = acting(async ({ request, params: { jobId, panelId } }: Route.ActionArgs) => {
  const ctx = await serverContext();
  const form = await formOf(request);
  const { units, by } = await formPrefs(request, form);
  if (textOf(form, "intent") !== "path") throw data("Not understood", { status: 400 });
  const view = await panelOr404(ctx, jobId, panelId);
  return answerForm(
    form,
    checkedBy((typed) => readPath(typed, units)),
    async (set: PathSet) => {
      await takePath(ctx, view, {
        ...set,
        by,
        clientKey: textOf(form, "formKey") || null,
        expected: versionIn(form),
        said: pathSaid(set, units),
      });
      return { message: "Path taken: course, mix and booth view go by it" };
    },
    (there: RowPlan | null) => {
      const { lie, first, overrun } = pathTexts({ rows: there ?? USUAL_ROWS, overlap: 0, handSpeed_m_s: 0 }, units);
      return { lie, first, overrun };
    },
  );
});

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => guardedAction(serverAction);
export default function PathPage({ loaderData }: Route.ComponentProps) {
  return <PathDesk loaderData={loaderData} />;
}
