import { z } from "zod";
import { USUAL_SHEET_IDS } from "#core/models/product/usual-sheets";
import { addUsual } from "#server/commands/usual-sheets";
import { serverContext } from "#server/running";
import { answerForm, textOf } from "~/kit/form/answer";
import { guardedAction } from "~/kit/form/guarded-action";
import { acting } from "~/kit/form/in-words.server";
import { formOf } from "~/kit/http/body.server";
import type { Route } from "./+types/usual.do";

/** A usual clear put on the shelf, from wherever the shelf was found empty. */
export const action = acting(async ({ request }: Route.ActionArgs) => {
  const ctx = await serverContext();
  const form = await formOf(request);
  return answerForm(form, z.object({ usual: z.enum(USUAL_SHEET_IDS) }), async ({ usual }) => ({
    message: `${await addUsual(ctx, usual, textOf(form, "formKey") || null)} is on the shelf: replace its figures by your sheet's`,
  }));
});

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => guardedAction(serverAction);
