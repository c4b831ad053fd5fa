import { recordEntry } from "#server/commands/record-entry";
import { serverContext } from "#server/context";
import { answerForm } from "~/forms/answer";
import { textureForm } from "~/forms/prep-forms";
import { guardedAction } from "~/lib/guarded-action";
import { readPrefs } from "~/lib/prefs.server";
import type { Route } from "./+types/texture";

/** A texture rated by eye, of the panel or of what it has to match. */
export async function action({ request, params: { panelId } }: Route.ActionArgs) {
  const ctx = await serverContext();
  const form = await request.formData();
  const { by } = await readPrefs(request);
  return answerForm(form, textureForm, async (body) => ({
    entryId: await recordEntry(ctx, { panelId, kind: "texture", body, by }),
    message: "Texture rated",
  }));
}

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => guardedAction(serverAction);
