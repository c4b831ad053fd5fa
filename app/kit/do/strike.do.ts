import { acting } from "~/kit/form/in-words.server";
import { data } from "react-router";
import { Refusal } from "#server/commands/refusal";
import { strikeEntry } from "#server/commands/record-entry";
import { serverContext } from "#server/running";
import { textOf } from "~/kit/form/answer";
import { guardedAction } from "~/kit/form/guarded-action";
import { readPrefs } from "~/kit/http/prefs.server";
import { formOf } from "~/kit/http/body.server";
import type { Route } from "./+types/strike.do";

/** Strikes an entry (or a strike: the undo), with every version of it where that is asked for. Answers with the new entry's id, which is what an undo strikes in turn. */
export const action = acting(async ({ request, params }: Route.ActionArgs) => {
  const { by } = await readPrefs(request);
  try {
    const form = await formOf(request);
    const what = textOf(form, "what") || "Entry";
    const whole = textOf(form, "whole") === "yes";
    const also = textOf(form, "also").split(" ").filter(Boolean);
    const strikeId = await strikeEntry(await serverContext(), params.entryId, { by, reason: "undo", whole, also });
    return { ok: true as const, what, strikeId };
  } catch (error) {
    if (error instanceof Refusal) return data({ ok: false as const, message: error.message }, { status: error.status });
    throw error;
  }
});

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => guardedAction(serverAction);
