import { DEFECTS } from "#core/ledger/kinds";
import { keepPhoto } from "#server/commands/photos";
import { recordEntry } from "#server/commands/record-entry";
import { serverContext } from "#server/context";
import { DefectsDesk } from "~/defects/defects-desk";
import { answerForm, textOf } from "~/forms/answer";
import { defectForm } from "~/forms/inspect-forms";
import { guardedAction } from "~/lib/guarded-action";
import { formPrefs } from "~/lib/prefs.server";
import { InspectTabs } from "~/panel/inspect-tabs";
import { panelOr404 } from "~/lib/panel.server";
import type { Route } from "./+types/defects";
import { usePanel } from "./layout";

export async function action({ request, params: { jobId, panelId } }: Route.ActionArgs) {
  const ctx = await serverContext();
  const view = await panelOr404(ctx, jobId, panelId);
  const form = await request.formData();
  const { units, by } = await formPrefs(request, form);
  return answerForm(form, defectForm(units, view.panel.shape.outline), async (body) => {
    const file = form.get("photos");
    const photoId =
      file instanceof File && file.name ? await keepPhoto(ctx, { name: file.name, bytes: new Uint8Array(await file.arrayBuffer()) }) : null;
    return {
      entryId: await recordEntry(ctx, {
        panelId,
        kind: "defect",
        body: { ...body, photoId },
        by,
        clientKey: textOf(form, "formKey") || null,
      }),
      message: `${DEFECTS[body.kind].name} placed`,
    };
  });
}

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
