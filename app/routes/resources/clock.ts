import { data } from "react-router";
import { Refusal } from "#server/commands/refusal";
import { stopClock } from "#server/commands/jobs";
import { serverContext } from "#server/context";
import type { Route } from "./+types/clock";

export async function action({ request, params }: Route.ActionArgs) {
  const form = await request.formData();
  try {
    await stopClock(await serverContext(), params.clockId, form.get("stopped") === "true");
    return { ok: true };
  } catch (error) {
    if (error instanceof Refusal) return data({ ok: false, message: error.message }, { status: 404 });
    throw error;
  }
}
