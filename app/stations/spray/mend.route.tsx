import { acting } from "~/kit/form/in-words.server";
import { data } from "react-router";
import { z } from "zod";
import { MEND_CARDS, MEND_CARD_IDS } from "#core/models/prep/mend-cards";
import { recordEntry } from "#server/commands/record-entry";
import { serverContext } from "#server/running";
import { answerForm, textOf } from "~/kit/form/answer";
import { guardedAction } from "~/kit/form/guarded-action";
import { formOf } from "~/kit/http/body.server";
import { readPrefs } from "~/kit/http/prefs.server";
import { usePanel } from "~/kit/panel/use-panel";
import { MendDesk } from "./mend.desk";
import { SprayTabs } from "./tabs";
import type { Route } from "./+types/mend.route";

const stepForm = z.object({ card: z.enum(MEND_CARD_IDS), step: z.coerce.number().int().min(0).max(20) });

export const action = acting(async ({ request, params: { panelId } }: Route.ActionArgs) => {
  const ctx = await serverContext();
  const form = await formOf(request);
  if (textOf(form, "intent") !== "step") throw data("Not understood", { status: 400 });
  const { by } = await readPrefs(request);
  const clientKey = textOf(form, "formKey") || null;
  return answerForm(form, stepForm, async (body) => ({
    entryId: await recordEntry(ctx, { panelId, kind: "mendStep", body, by, clientKey }),
    message: `${MEND_CARDS[body.card].name}: step ${body.step + 1} done`,
  }));
});

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => guardedAction(serverAction);

/** Faults that are mended on the way: a card for each, step by step, with its waits. */
export default function Mend() {
  const { base } = usePanel();
  return (
    <>
      <SprayTabs base={base} />
      <MendDesk />
    </>
  );
}
