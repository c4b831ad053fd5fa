import { acting } from "~/kit/form/in-words.server";
import { data } from "react-router";
import { takeOvenLog } from "#server/devices/take-oven";
import { serverContext } from "#server/running";
import { answerForm, textOf } from "~/kit/form/answer";
import { bakeForm } from "./prep.form";
import { guardedAction } from "~/kit/form/guarded-action";
import { formPrefs } from "~/kit/http/prefs.server";
import { formOf } from "~/kit/http/body.server";
import { sheetOr404 } from "~/kit/http/panel.server";
import type { Route } from "./+types/cure.route";
import { CureDesk } from "./cure.desk";

export const action = acting(async ({ request, params: { panelId } }: Route.ActionArgs) => {
  const ctx = await serverContext();
  const form = await formOf(request);
  const { units, by } = await formPrefs(request, form);
  if (textOf(form, "intent") !== "oven") throw data("Not understood", { status: 400 });
  return answerForm(form, bakeForm(units, await sheetOr404(ctx, panelId)), async (v) => ({
    entryId: await takeOvenLog(ctx, {
      panelId,
      by,
      plan: { room_K: v.room, air_K: v.air, purge_s: v.purge, ramp_s: v.ramp, hold_s: v.hold },
    }),
    message: "Bake logged from the stand-in probe",
  }));
});

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => guardedAction(serverAction);
export default function Cure() {
  return <CureDesk />;
}
