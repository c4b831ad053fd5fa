import { data } from "react-router";
import { Refusal } from "#server/commands/refusal";
import { strikeEntry } from "#server/commands/record-entry";
import { serverContext } from "#server/context";
import { textOf } from "~/forms/answer";
import { readPrefs } from "~/lib/prefs.server";
import type { Route } from "./+types/strike";

/** Strikes an entry (or a strike: the undo). Answers with the new entry's id, which is what an undo strikes in turn. */
export async function action({ request, params }: Route.ActionArgs) {
  const { by } = await readPrefs(request);
  try {
    const what = textOf(await request.formData().catch(() => new FormData()), "what") || "Entry";
    return { ok: true as const, what, strikeId: await strikeEntry(await serverContext(), params.entryId, { by, reason: "undo" }) };
  } catch (error) {
    if (error instanceof Refusal) return data({ ok: false as const, message: error.message }, { status: 409 });
    throw error;
  }
}
