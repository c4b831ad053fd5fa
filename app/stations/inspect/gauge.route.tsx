import { acting } from "~/kit/form/in-words.server";
import { recordEntry } from "#server/commands/record-entry";
import { checkStandInGauge } from "#server/devices/take-readings";
import { serverContext } from "#server/running";
import { GaugeDesk } from "./gauge.desk";
import { answerForm, textOf } from "~/kit/form/answer";
import { gaugeCheckForm } from "./inspect.form";
import { guardedAction } from "~/kit/form/guarded-action";
import { formPrefs } from "~/kit/http/prefs.server";
import { InspectTabs } from "./tabs";
import { panelOr404 } from "~/kit/http/panel.server";
import { formOf } from "~/kit/http/body.server";
import type { Route } from "./+types/gauge.route";
import { usePanel } from "~/kit/panel/use-panel";

export const action = acting(async ({ request, params: { jobId, panelId } }: Route.ActionArgs) => {
  const ctx = await serverContext();
  await panelOr404(ctx, jobId, panelId);
  const form = await formOf(request);
  const { units, by } = await formPrefs(request, form);
  if (textOf(form, "intent") === "stand-in") {
    await checkStandInGauge(ctx, { panelId, by });
    return { ok: true, intent: "stand-in", message: "Practice (simulated) gauge checked", errors: {} };
  }
  return answerForm(form, gaugeCheckForm(units), async (body) => ({
    entryId: await recordEntry(ctx, { panelId, kind: "gaugeCheck", body, by, clientKey: textOf(form, "formKey") || null }),
    message: "Gauge check kept",
  }));
});

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => guardedAction(serverAction);

export default function GaugePage() {
  const { base } = usePanel();
  return (
    <>
      <InspectTabs base={base} />
      <GaugeDesk />
    </>
  );
}
