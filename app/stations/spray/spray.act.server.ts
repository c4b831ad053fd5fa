import { coatsAsked } from "#core/coat/asked";
import { potLifeNow } from "#core/coat/pot-life";
import { answeredAs } from "#server/commands/answered-as";
import { logCoat } from "#server/commands/booth";
import { recordEntry } from "#server/commands/record-entry";
import { againstNow } from "#server/views/against-view";
import type { Act } from "~/kit/form/act";
import { answerForm, textOf } from "~/kit/form/answer";
import { climateForm, coatForm, mixForm } from "~/kit/form/spray-entries";
import { doneAgainst } from "~/kit/words/hold-name";
import { wetCombForm } from "./prep.form";

/** What is logged while it is sprayed: climate, mix, a coat with its settings, what the comb said. */
export const sprayAct: Act = async (ctx, { panelId, look }, form, { units, by }) => {
  const clientKey = textOf(form, "formKey") || null;
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
        const said = doneAgainst(`Coat ${body.number} logged; its clock runs`, against, ctx.now_ms());
        const entryId = await logCoat(ctx, view, { body, by, clientKey, shown: body.number, said });
        return { entryId, message: await answeredAs(ctx, clientKey, said) };
      });
    case "comb":
      return answerForm(form, wetCombForm(units), async (v) => ({
        entryId: await recordEntry(ctx, {
          panelId: v.panelId,
          kind: "wetComb",
          body: { number: v.number, thickness_m: v.wet, entered: textOf(form, "wet").slice(0, 24), unit: units.film },
          by,
        }),
        message: `Wet comb of coat ${v.number} logged`,
      }));
    default:
      return null;
  }
};
