import { redirect } from "react-router";
import { ownersDevice } from "#server/commands/devices";
import { setUpOwner } from "#server/commands/people";
import { hasOwner } from "#server/access/who";
import { Refusal } from "#server/commands/refusal";
import { network, shopContext } from "#server/running";
import { answerForm } from "~/kit/form/answer";
import { guardedAction } from "~/kit/form/guarded-action";
import { acting } from "~/kit/form/in-words.server";
import { formOf } from "~/kit/http/body.server";
import { requestContext } from "~/kit/http/request-context.server";
import { ownerForm } from "./access.form";
import { deviceName, goOnWith } from "./cookie-answer.server";
import { OwnerDesk } from "./owner.desk";
import type { Route } from "./+types/owner.route";

export const meta: Route.MetaFunction = () => [{ title: "The owner · Yakamoz" }];

export async function loader({ context }: Route.LoaderArgs) {
  const { known } = context.get(requestContext);
  const ctx = await shopContext();
  if (!known.asked || (await hasOwner(ctx))) throw redirect("/");
  return { here: known.local };
}

export const action = acting(async ({ request, context }: Route.ActionArgs) => {
  const { known } = context.get(requestContext);
  if (!known.asked || !known.local) throw new Refusal(null, "The owner is made on the machine that the program runs on.", 403);
  const ctx = await shopContext();
  const made: { token: string | null } = { token: null };
  const answer = await answerForm(await formOf(request), ownerForm, async ({ name, passcode }) => {
    const ownerId = await setUpOwner(ctx, { name, passcode });
    const device = deviceName(request.headers.get("User-Agent") ?? "");
    made.token = await ownersDevice(ctx, { ownerId, name: device, address: known.address });
    await network()?.look();
  });
  return made.token === null ? answer : goOnWith(made.token, known, "/house/people");
});

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => guardedAction(serverAction);
export default function Owner({ loaderData, actionData }: Route.ComponentProps) {
  return <OwnerDesk {...loaderData} answer={actionData} />;
}
