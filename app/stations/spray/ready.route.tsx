import { acting } from "~/kit/form/in-words.server";
import { data } from "react-router";
import { recordEntry } from "#server/commands/record-entry";
import { takeClimate } from "#server/devices/take-climate";
import { serverContext } from "#server/running";
import { loadPreflight } from "#server/views/preflight-view";
import { answerForm, textOf } from "~/kit/form/answer";
import { preflightForm } from "./prep.form";
import { climateForm } from "~/kit/form/spray-entries";
import { guardedAction } from "~/kit/form/guarded-action";
import { formPrefs } from "~/kit/http/prefs.server";
import { formOf } from "~/kit/http/body.server";
import type { Route } from "./+types/ready.route";
import { ReadyDesk } from "./ready.desk";

export async function loader({ params: { jobId, panelId } }: Route.LoaderArgs) {
  return loadPreflight(await serverContext(), jobId, panelId);
}

export const action = acting(async ({ request, params: { panelId } }: Route.ActionArgs) => {
  const ctx = await serverContext();
  const form = await formOf(request);
  const { units, by } = await formPrefs(request, form);
  switch (textOf(form, "intent")) {
    case "preflight":
      return answerForm(form, preflightForm, async (body) => {
        await recordEntry(ctx, { panelId, kind: "preflight", body, by });
      });
    case "climate":
      return answerForm(form, climateForm(units), async (body) => ({
        entryId: await recordEntry(ctx, { panelId, kind: "climate", body, by }),
        message: "Climate logged",
      }));
    case "probe":
      return { ok: true, intent: "probe", message: "Probe read", errors: {}, entryId: await takeClimate(ctx, { panelId, by }) };
    default:
      throw data("Not understood", { status: 400 });
  }
});

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => guardedAction(serverAction);
export default function Ready({ loaderData }: Route.ComponentProps) {
  return <ReadyDesk loaderData={loaderData} />;
}
