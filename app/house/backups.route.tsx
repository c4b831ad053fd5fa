import { format } from "date-fns";
import { z } from "zod";
import { changeShop } from "#server/commands/house";
import { Refusal } from "#server/commands/refusal";
import { dataFolder } from "#server/db/open";
import { getShop } from "#server/repos/shop-repo";
import { keeper, serverContext, shopCopies } from "#server/running";
import { chooseSecond, letGo } from "#server/storage/kept-backups";
import { answerForm } from "~/kit/form/answer";
import { guardedAction } from "~/kit/form/guarded-action";
import { acting } from "~/kit/form/in-words.server";
import { formOf } from "~/kit/http/body.server";
import type { Route } from "./+types/backups.route";
import { BackupsDesk } from "./backups.desk";
import { secondForm } from "./backups.form";
import { sizeWords } from "~/kit/words/size-words";
import { keepingFault } from "#server/storage/keeper";
import { agoWords } from "~/kit/words/ago-words";
import { copyWords } from "./backups.words";

export const meta: Route.MetaFunction = () => [{ title: "Backups · Yakamoz" }];

export async function loader() {
  const kept = keeper();
  if (!kept) return null;
  const ctx = await serverContext();
  const { secondPlace } = await getShop(ctx.db);
  const now_ms = ctx.now_ms();
  return {
    second: secondPlace,
    fault: keepingFault(kept.keeping()),
    copies: (await shopCopies()).map((copy) => ({
      id: copy.id,
      on: format(copy.at_ms, "d MMM yyyy HH:mm"),
      ago: agoWords(copy.at_ms, now_ms),
      size: sizeWords(copy.bytes),
      what: copyWords(copy),
      stays: !copy.byPlan,
    })),
  };
}

export const action = acting(async ({ request }: Route.ActionArgs) => {
  const kept = keeper();
  const ctx = await serverContext();
  const form = await formOf(request);
  if (form.get("intent") === "second")
    return answerForm(form, secondForm, async ({ second }) => {
      if (!kept) throw new Refusal(null, NOT_KEPT);
      if (second !== "") inWordsAt("second", () => chooseSecond(second, dataFolder()));
      await changeShop(ctx, (now) => ({ ...now, secondPlace: second === "" ? null : second }));
      return { message: second === "" ? "No second place any more; what lies there stays" : "Every backup goes there too from now on" };
    });
  if (form.get("intent") === "letGo")
    return answerForm(form, z.object({ id: z.string() }), async ({ id }) => {
      const copy = (await shopCopies()).find((c) => c.id === id && !c.byPlan);
      if (!copy) throw new Refusal(null, "This backup is not here any more, or is kept by the plan.");
      letGo(copy);
      return { message: "It is gone" };
    });
  return answerForm(form, z.object({ intent: z.literal("make", "This page knows no such press") }), async () => {
    if (!kept) throw new Refusal(null, NOT_KEPT);
    await kept.now().catch((error: unknown) => {
      throw new Refusal(null, `Not made: ${error instanceof Error ? error.message : String(error)}.`);
    });
    return { message: "Backup made, and looked over" };
  });
});
const NOT_KEPT = "The invented shop has no backups.";

function inWordsAt(field: string, work: () => void): void {
  try {
    work();
  } catch (error) {
    if (error instanceof RangeError) throw new Refusal(field, error.message);
    throw error;
  }
}

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => guardedAction(serverAction);
export default function Backups({ loaderData, actionData }: Route.ComponentProps) {
  return <BackupsDesk kept={loaderData} answer={actionData} />;
}
