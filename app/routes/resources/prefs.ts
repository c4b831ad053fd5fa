import { data } from "react-router";
import { prefsChange, writePrefs } from "~/lib/prefs.server";
import type { Route } from "./+types/prefs";

export async function action({ request }: Route.ActionArgs) {
  const change = prefsChange.safeParse(await request.json());
  if (!change.success) return data({ ok: false }, { status: 400 });
  return data({ ok: true }, { headers: { "Set-Cookie": await writePrefs(request, change.data) } });
}
