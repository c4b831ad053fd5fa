import { acting } from "~/kit/form/in-words.server";
import { data } from "react-router";
import { coatsAsked } from "#core/coat/asked";
import { potLifeNow } from "#core/coat/pot-life";
import { againstNow } from "#server/views/against-view";
import { doneAgainst } from "~/kit/words/hold-name";
import { logCoat } from "#server/commands/booth";
import { recordEntry } from "#server/commands/record-entry";
import { serverContext } from "#server/running";
import { answerForm, textOf } from "~/kit/form/answer";
import { climateForm, coatForm, mixForm } from "~/kit/form/spray-entries";
import { guardedAction } from "~/kit/form/guarded-action";
import { formPrefs } from "~/kit/http/prefs.server";
import { readingAction } from "~/kit/readings/reading-action.server";
import { panelOr404 } from "~/kit/http/panel.server";
import { formOf } from "~/kit/http/body.server";
import type { Route } from "./+types/spray.route";
import { SprayDesk } from "./spray.desk";

export const action = acting(async ({ request, params: { jobId, panelId } }: Route.ActionArgs) => {
  const ctx = await serverContext();
  const look = () => panelOr404(ctx, jobId, panelId); // what needs no account of the film is stored without one
  const form = await formOf(request);
  const { units, by } = await formPrefs(request, form);
  const clientKey = textOf(form, "formKey") || null;
  const read = await readingAction(ctx, { panelId, look }, form, { by, units });
  if (read) return read;
  switch (textOf(form, "intent")) {
    case "climate":
      return answerForm(form, climateForm(units), async (body) => ({
        entryId: await recordEntry(ctx, { panelId, kind: "climate", body, by, clientKey }),
        message: "Climate logged",
      }));
    case "mix":
      return answerForm(form, mixForm(units), async (mix) => ({
        entryId: await recordEntry(ctx, {
          panelId,
          kind: "mix",
          body: { ...mix, potLife_s: potLifeNow(coatsAsked(await look(), ctx.now_ms())) },
          by,
          clientKey,
        }),
        message: "Mix logged; the pot clock runs",
      }));
    case "coat":
      return answerForm(form, coatForm(units), async (body) => {
        const view = await look();
        const against = againstNow(view, "coat", ctx.now_ms());
        const entryId = await logCoat(ctx, view, { body, by, clientKey, shown: body.number });
        return { entryId, message: doneAgainst(`Coat ${body.number} logged; its clock runs`, against, ctx.now_ms()) };
      });
    default:
      throw data("Not understood", { status: 400 });
  }
});

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => guardedAction(serverAction);
export default function Spray() {
  return <SprayDesk />;
}
