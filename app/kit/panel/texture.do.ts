import { acting } from "~/kit/form/in-words.server";
import { textureForm } from "~/kit/panel/texture.form";
import { recordEntry } from "#server/commands/record-entry";
import { serverContext } from "#server/running";
import { answerForm } from "~/kit/form/answer";
import { guardedAction } from "~/kit/form/guarded-action";
import { readPrefs } from "~/kit/http/prefs.server";
import { formOf } from "~/kit/http/body.server";
import type { Route } from "./+types/texture.do";

/** A texture rated by eye, of the panel or of what it has to match. */
export const action = acting(async ({ request, params: { panelId } }: Route.ActionArgs) => {
  const ctx = await serverContext();
  const form = await formOf(request);
  const { by } = await readPrefs(request);
  return answerForm(form, textureForm, async (body) => ({
    entryId: await recordEntry(ctx, { panelId, kind: "texture", body, by }),
    message: "Texture rated",
  }));
});

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => guardedAction(serverAction);
