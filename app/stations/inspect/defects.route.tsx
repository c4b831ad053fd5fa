import { z } from "zod";
import { acting } from "~/kit/form/in-words.server";
import { DEFECT_KINDS } from "#core/models/defects/kinds";
import { SEEN_TO } from "#core/record/kinds";
import { recordEntry } from "#server/commands/record-entry";
import { markSeenTo } from "#server/commands/see-to";
import { serverContext } from "#server/running";
import { DefectsDesk } from "./defects.desk";
import { answerForm, textOf } from "~/kit/form/answer";
import { defectForm, seenToForm } from "./inspect.form";
import { photoOf } from "~/kit/http/photo.server";
import { guardedAction } from "~/kit/form/guarded-action";
import { formPrefs } from "~/kit/http/prefs.server";
import { capital } from "~/kit/words/capital";
import { InspectTabs } from "./tabs";
import { panelOr404 } from "~/kit/http/panel.server";
import { formOf } from "~/kit/http/body.server";
import type { Route } from "./+types/defects.route";
import { usePanel } from "~/kit/panel/use-panel";

export const action = acting(async ({ request, params: { jobId, panelId } }: Route.ActionArgs) => {
  const ctx = await serverContext();
  const view = await panelOr404(ctx, jobId, panelId);
  const form = await formOf(request);
  const { units, by } = await formPrefs(request, form);
  const clientKey = textOf(form, "formKey") || null;
  if (textOf(form, "intent") === "lookedOver")
    return answerForm(form, z.object({}), async () => ({
      entryId: await recordEntry(ctx, { panelId, kind: "lookedOver", body: {}, by, clientKey }),
      message: "Looked over: nothing found",
    }));
  if (textOf(form, "intent") === "seenTo")
    return answerForm(form, seenToForm, async (body) => ({
      entryId: await markSeenTo(ctx, { panelId, body, by, clientKey }),
      message: `${capital(SEEN_TO[body.as])}: it holds nothing back any more`,
    }));
  return answerForm(form, defectForm(units, view.panel.shape.outline), async (body) => {
    const photoId = await photoOf(ctx, form);
    return {
      entryId: await recordEntry(ctx, { panelId, kind: "defect", body: { ...body, photoId }, by, clientKey }),
      message: `${DEFECT_KINDS[body.kind].name} placed`,
    };
  });
});

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => guardedAction(serverAction);

export default function DefectsPage() {
  const { base } = usePanel();
  return (
    <>
      <InspectTabs base={base} />
      <DefectsDesk />
    </>
  );
}
