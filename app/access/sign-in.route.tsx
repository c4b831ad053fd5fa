import { redirect } from "react-router";
import { handOverTo, leaveDevice, signIn } from "#server/commands/devices";
import { listPeople } from "#server/repos/person-repo";
import { Refusal } from "#server/commands/refusal";
import { shopContext } from "#server/running";
import { answerForm, textOf } from "~/kit/form/answer";
import { guardedAction } from "~/kit/form/guarded-action";
import { acting } from "~/kit/form/in-words.server";
import { formOf } from "~/kit/http/body.server";
import { requestContext } from "~/kit/http/request-context.server";
import { pathIn } from "~/kit/http/turned-away.server";
import { secretForm, takeForm } from "./access.form";
import { SignInDesk } from "./sign-in.desk";
import { useLeaveNothing } from "~/kit/away/use-leave-nothing";
import type { Route } from "./+types/sign-in.route";

export const meta: Route.MetaFunction = () => [{ title: "Who is here? · Yakamoz" }];

export async function loader({ request, context }: Route.LoaderArgs) {
  const { known } = context.get(requestContext);
  if (!known.asked) throw redirect("/");
  const ctx = await shopContext();
  const asked = new URL(request.url).searchParams;
  const people = (await listPeople(ctx.db)).map(({ id, name, role }) => ({ id, name, role }));
  const again = asked.get("again") === "yes";
  // Of one person nobody has to be picked; whoever is asked again is the one who stands there.
  const id = again ? known.person?.id : (asked.get("person") ?? (people.length === 1 ? people[0]!.id : null));
  return {
    to: pathIn(asked.get("to")),
    people,
    person: people.find((p) => p.id === id) ?? null,
    again: again && known.person !== null,
    here: known.person && { id: known.person.id, name: known.person.name },
    device: known.device?.name ?? "",
  };
}

export const action = acting(async ({ request, context }: Route.ActionArgs) => {
  const { known } = context.get(requestContext);
  if (!known.device) throw new Refusal(null, "Pair this device first.", 401);
  const { id: deviceId } = known.device;
  const { address } = known;
  const ctx = await shopContext();
  const form = await formOf(request);
  const to = pathIn(textOf(form, "to") || null);
  const gone: { to: string | null } = { to: null };
  let answer: Awaited<ReturnType<typeof answerForm>> | null = null;
  switch (textOf(form, "intent")) {
    case "take":
      answer = await answerForm(form, takeForm, async ({ person }) => {
        const taken = await handOverTo(ctx, { deviceId, personId: person, address });
        gone.to = taken ? to : `/sign-in?${new URLSearchParams({ to, person })}`;
      });
      break;
    case "leave":
      await leaveDevice(ctx, deviceId);
      gone.to = "/sign-in";
      break;
    default:
      answer = await answerForm(form, secretForm, async ({ person, secret }) => {
        await signIn(ctx, { deviceId, personId: person, secret, address });
        gone.to = to;
      });
  }
  return gone.to === null ? answer : redirect(gone.to);
});

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => guardedAction(serverAction);
export default function SignIn({ loaderData, actionData }: Route.ComponentProps) {
  useLeaveNothing();
  return <SignInDesk {...loaderData} answer={actionData ?? undefined} />;
}
