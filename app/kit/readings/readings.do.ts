import { acting } from "~/kit/form/in-words.server";
import { readingForm } from "~/kit/readings/reading.form";
import { recordReading } from "#server/commands/record-reading";
import { serverContext } from "#server/running";
import { answerForm } from "~/kit/form/answer";
import { formOf } from "~/kit/http/body.server";
import { formPrefs } from "~/kit/http/prefs.server";
import type { Route } from "./+types/readings.do";

const MS = 1000;

/** A reading of a spot, from whichever page it was typed on: the outbox waits for a plain yes or no. */
export const action = acting(async ({ request, params: { panelId } }: Route.ActionArgs) => {
  const ctx = await serverContext();
  const form = await formOf(request);
  const { units, by } = await formPrefs(request, form);
  const answer = await answerForm(form, readingForm(units), async ({ age_s, ...reading }) => ({
    // When it was read, not when the server came back.
    entryId: await recordReading(ctx, { ...reading, panelId, by, at_ms: Math.round(ctx.now_ms() - age_s * MS) }),
  }));
  if ("ok" in answer) return Response.json({ ok: answer.ok });
  const { message, errors } = answer.data;
  return Response.json({ ok: false, message: message ?? Object.values(errors).flat().join(" ") }, { status: answer.init?.status ?? 422 });
});
