import { data } from "react-router";
import { Refusal } from "#server/commands/refusal";
import { strikeEntry } from "#server/commands/record-entry";
import { serverContext } from "#server/context";
import { readPrefs } from "~/lib/prefs.server";
import type { Route } from "./+types/strike";

/** Strikes an entry (or a strike: the undo). Answers with the new entry's id, which is what an undo strikes in turn. */
export async function action({ request, params }: Route.ActionArgs) {
  const { by } = await readPrefs(request);
  try {
    return { ok: true as const, strikeId: await strikeEntry(await serverContext(), params.entryId, { by, reason: "undo" }) };
  } catch (error) {
    if (error instanceof Refusal) return data({ ok: false as const, message: error.message }, { status: 409 });
    throw error;
  }
}
