import { acting } from "~/kit/form/in-words.server";
import { recordEntry } from "#server/commands/record-entry";
import { serverContext } from "#server/running";
import { answerForm, textOf } from "~/kit/form/answer";
import { photoOf } from "~/kit/http/photo.server";
import { guardedAction } from "~/kit/form/guarded-action";
import { formOf } from "~/kit/http/body.server";
import { formPrefs } from "~/kit/http/prefs.server";
import { usePanel } from "~/kit/panel/use-panel";
import { NeighbourDesk } from "./neighbour.desk";
import { neighbourForm } from "./neighbour.form";
import { PlanTabs } from "./tabs";
import type { Route } from "./+types/neighbour.route";

export const action = acting(async ({ request, params: { panelId } }: Route.ActionArgs) => {
  const ctx = await serverContext();
  const form = await formOf(request);
  const { units, by } = await formPrefs(request, form);
  return answerForm(form, neighbourForm(units), async (body) => {
    const photoId = await photoOf(ctx, form);
    return {
      entryId: await recordEntry(ctx, {
        panelId,
        kind: "neighbour",
        body: { ...body, photoId },
        by,
        clientKey: textOf(form, "formKey") || null,
      }),
      message: `${body.name}: kept as the neighbour`,
    };
  });
});

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => guardedAction(serverAction);

export default function NeighbourPage() {
  const { base } = usePanel();
  return (
    <>
      <PlanTabs base={base} />
      <NeighbourDesk />
    </>
  );
}
