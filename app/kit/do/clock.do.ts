import { stopClock } from "#server/commands/jobs";
import { serverContext } from "#server/running";
import { textOf } from "~/kit/form/answer";
import { formOf } from "~/kit/http/body.server";
import { guardedAction } from "~/kit/form/guarded-action";
import { acting, inWords } from "~/kit/form/in-words.server";
import type { Route } from "./+types/clock.do";

export const action = acting(async ({ request, params }: Route.ActionArgs) => {
  const form = await formOf(request);
  return inWords(async () => {
    await stopClock(await serverContext(), params.clockId, textOf(form, "stopped") === "true");
    return { ok: true };
  });
});

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => guardedAction(serverAction);
