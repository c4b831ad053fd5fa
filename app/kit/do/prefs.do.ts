import { acting } from "~/kit/form/in-words.server";
import { data } from "react-router";
import { jsonBodyOf } from "~/kit/http/body.server";
import { guardedAction } from "~/kit/form/guarded-action";
import { prefsChange, writePrefs } from "~/kit/http/prefs.server";
import type { Route } from "./+types/prefs.do";

export const action = acting(async ({ request }: Route.ActionArgs) => {
  const change = prefsChange.safeParse(await jsonBodyOf(request));
  if (!change.success) return data({ ok: false }, { status: 400 });
  return data({ ok: true }, { headers: { "Set-Cookie": await writePrefs(request, change.data) } });
});

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => guardedAction(serverAction);
