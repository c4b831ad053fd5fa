import { acting } from "~/kit/form/in-words.server";
import { takeSettingsForm } from "~/stations/hand-over/next-time.form";
import { recordEntry } from "#server/commands/record-entry";
import { serverContext } from "#server/running";
import { loadSprayed } from "#server/views/next-time-view";
import { NextTimeDesk } from "./next-time.desk";
import { answerForm } from "~/kit/form/answer";
import { guardedAction } from "~/kit/form/guarded-action";
import { readPrefs } from "~/kit/http/prefs.server";
import { panelOr404 } from "~/kit/http/panel.server";
import { formOf } from "~/kit/http/body.server";
import type { Route } from "./+types/next-time.route";

export async function loader() {
  return { panels: await loadSprayed(await serverContext()) };
}

export const action = acting(async ({ request, params: { jobId, panelId } }: Route.ActionArgs) => {
  const ctx = await serverContext();
  await panelOr404(ctx, jobId, panelId);
  const { by } = await readPrefs(request);
  const sprayed = await loadSprayed(ctx);
  return answerForm(await formOf(request), takeSettingsForm(sprayed), async (good) => {
    const body = { name: `as on ${good.what}`.slice(0, 60), gunId: null, settings: good.settings };
    return { entryId: await recordEntry(ctx, { panelId, kind: "gunSet", body, by }), message: "Those settings stand for the next coat" };
  });
});

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => guardedAction(serverAction);

export default function NextTimePage({ loaderData: { panels } }: Route.ComponentProps) {
  return <NextTimeDesk panels={panels} />;
}
