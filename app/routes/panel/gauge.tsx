import { recordEntry } from "#server/commands/record-entry";
import { checkStandInGauge } from "#server/devices/take-readings";
import { serverContext } from "#server/context";
import { GaugeDesk } from "~/film/gauge-desk";
import { answerForm, textOf } from "~/forms/answer";
import { gaugeCheckForm } from "~/forms/inspect-forms";
import { guardedAction } from "~/lib/guarded-action";
import { formPrefs } from "~/lib/prefs.server";
import { InspectTabs } from "~/panel/inspect-tabs";
import { panelOr404 } from "~/lib/panel.server";
import type { Route } from "./+types/gauge";
import { usePanel } from "./layout";

export async function action({ request, params: { jobId, panelId } }: Route.ActionArgs) {
  const ctx = await serverContext();
  await panelOr404(ctx, jobId, panelId);
  const form = await request.formData();
  const { units, by } = await formPrefs(request, form);
  if (textOf(form, "intent") === "stand-in") {
    await checkStandInGauge(ctx, { panelId, by });
    return { ok: true, intent: "stand-in", message: "Stand-in gauge checked", errors: {} };
  }
  return answerForm(form, gaugeCheckForm(units), async (body) => ({
    entryId: await recordEntry(ctx, { panelId, kind: "gaugeCheck", body, by, clientKey: textOf(form, "formKey") || null }),
    message: "Gauge check kept",
  }));
}

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
