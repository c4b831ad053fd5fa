import { data } from "react-router";
import { recordMix } from "#server/commands/record-mix";
import { serverContext } from "#server/running";
import { loadMixPage } from "#server/views/mix-page-view";
import type { FormAnswer } from "~/kit/form/answer";
import { keptMix } from "./stand-in-mix.form";
import { guardedAction } from "~/kit/form/guarded-action";
import { readPrefs } from "~/kit/http/prefs.server";
import { jsonBodyOf } from "~/kit/http/body.server";
import { panelOr404 } from "~/kit/http/panel.server";
import { acting, inWords } from "~/kit/form/in-words.server";
import type { Route } from "./+types/mix.route";
import { PanelMixDesk } from "./mix-page.desk";

export async function loader({ params: { jobId, panelId } }: Route.LoaderArgs) {
  const ctx = await serverContext();
  return loadMixPage(ctx, await panelOr404(ctx, jobId, panelId));
}

export const action = acting(async ({ request, params: { panelId } }: Route.ActionArgs) => {
  const parsed = keptMix.safeParse(await jsonBodyOf(request));
  if (!parsed.success) throw data("Not understood", { status: 400 });
  const { by } = await readPrefs(request);
  return inWords(async () => {
    const entryId = await recordMix(await serverContext(), { ...parsed.data, panelId, by });
    return {
      ok: true,
      intent: "mix",
      message: "Mix kept; its pot clock runs",
      errors: {},
      entryId,
      done: parsed.data.formKey,
    } satisfies FormAnswer;
  });
});

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => guardedAction(serverAction);
export default function PanelMix({ loaderData }: Route.ComponentProps) {
  return <PanelMixDesk loaderData={loaderData} />;
}
