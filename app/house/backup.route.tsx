import { format } from "date-fns";
import { data, redirect } from "react-router";
import { z } from "zod";
import { Refusal } from "#server/commands/refusal";
import { bringBack, serverContext, shopCopies } from "#server/running";
import { lookInto } from "#server/storage/look-into";
import { answerForm } from "~/kit/form/answer";
import { guardedAction } from "~/kit/form/guarded-action";
import { acting } from "~/kit/form/in-words.server";
import { formOf } from "~/kit/http/body.server";
import type { Route } from "./+types/backup.route";
import { BackupDesk } from "./backup.desk";
import { sizeWords } from "~/kit/words/size-words";
import { copyWords } from "./backups.words";

export const meta: Route.MetaFunction = () => [{ title: "Look into a backup · Yakamoz" }];

/** One of the copies that are there, by its name among them: nothing that is sent here is ever taken for a path. */
async function copyOf(id: string) {
  const copy = (await shopCopies()).find((c) => c.id === id);
  if (!copy) throw data("This backup is not here any more.", { status: 404 });
  return copy;
}

export async function loader({ params }: Route.LoaderArgs) {
  const copy = await copyOf(params.copyId);
  const on = { on: format(copy.at_ms, "d MMM yyyy HH:mm"), size: sizeWords(copy.bytes), what: copyWords(copy) };
  const looked = await lookInto(copy.file, await serverContext()).catch((error: unknown) => ({
    fault: error instanceof Error ? error.message : String(error),
  }));
  if ("fault" in looked) return { ...on, fault: looked.fault, inside: null };
  const { jobs, same, others, newest } = looked;
  const timeOf = (at_ms: number | null) => (at_ms === null ? "none" : format(at_ms, "d MMM yyyy HH:mm"));
  const inside = { jobs, same, others, newest: { then: timeOf(newest.then_ms), now: timeOf(newest.now_ms) } };
  return { ...on, fault: null, inside };
}

export const action = acting(async ({ request, params }: Route.ActionArgs) => {
  const form = await formOf(request);
  const copy = await copyOf(params.copyId);
  const answer = await answerForm(form, z.object({ intent: z.literal("bringBack", "This page knows no such press") }), async () => {
    await bringBack(copy.file).catch((error: unknown) => {
      throw new Refusal(null, `Not brought back: ${error instanceof Error ? error.message : String(error)}`);
    });
  });
  return "ok" in answer && answer.ok ? redirect("/house/backups") : answer;
});

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => guardedAction(serverAction);
export default function Backup({ loaderData, actionData }: Route.ComponentProps) {
  return <BackupDesk copy={loaderData} answer={actionData} />;
}
