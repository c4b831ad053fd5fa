import { keepCardRow } from "#server/commands/cards";
import { serverContext } from "#server/running";
import { answerForm, textOf } from "~/kit/form/answer";
import { guardedAction } from "~/kit/form/guarded-action";
import { acting } from "~/kit/form/in-words.server";
import { formOf } from "~/kit/http/body.server";
import { formPrefs } from "~/kit/http/prefs.server";
import { cardRowForm } from "./card.form";
import type { Route } from "./+types/card-row.do";

/** Cards of one row, sprayed alike but for their mix and read together. */
export const action = acting(async ({ request }: Route.ActionArgs) => {
  const ctx = await serverContext();
  const form = await formOf(request);
  const { units, by } = await formPrefs(request, form);
  return answerForm(form, cardRowForm(units), async (row) => {
    const { length } = await keepCardRow(ctx, row, by, textOf(form, "formKey") || null);
    return { message: `${length} ${length === 1 ? "card" : "cards"} in the library` };
  });
});

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => guardedAction(serverAction);
