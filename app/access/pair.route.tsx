import { redirect } from "react-router";
import { pairDevice, pairMachine } from "#server/commands/devices";
import { Refusal } from "#server/commands/refusal";
import { pairing, shopContext } from "#server/running";
import { answerForm, textOf } from "~/kit/form/answer";
import { guardedAction } from "~/kit/form/guarded-action";
import { acting } from "~/kit/form/in-words.server";
import { formOf } from "~/kit/http/body.server";
import { requestContext } from "~/kit/http/request-context.server";
import { pathIn } from "~/kit/http/turned-away.server";
import { machineForm, pairForm } from "./access.form";
import { deviceName, goOnWith } from "./cookie-answer.server";
import { PairDesk } from "./pair.desk";
import { useLeaveNothing } from "~/kit/away/use-leave-nothing";
import type { Route } from "./+types/pair.route";

export const meta: Route.MetaFunction = () => [{ title: "Pair this device · Yakamoz" }];

export function loader({ request, context }: Route.LoaderArgs) {
  const { known } = context.get(requestContext);
  const asked = new URL(request.url).searchParams;
  if (!known.asked) throw redirect("/");
  if (known.device) throw redirect(`/sign-in?${new URLSearchParams({ to: pathIn(asked.get("to")) })}`);
  const name = deviceName(request.headers.get("User-Agent") ?? "");
  return { name, code: asked.get("code")?.slice(0, 12) ?? "", here: known.local, plain: !known.secure && !known.local };
}

export const action = acting(async ({ request, context }: Route.ActionArgs) => {
  const { known } = context.get(requestContext);
  if (!known.asked) throw new Refusal(null, "Nobody has to sign in here.");
  const ctx = await shopContext();
  const form = await formOf(request);
  const agent = deviceName(request.headers.get("User-Agent") ?? "");
  const { address } = known;
  const got: { token: string | null } = { token: null };
  const here = textOf(form, "intent") === "here";
  if (here && !known.local) throw new Refusal(null, "Only the machine that the program runs on comes in by the passcode alone.", 403);
  const answer = here
    ? await answerForm(form, machineForm, async ({ passcode }) => {
        got.token = await pairMachine(ctx, { passcode, name: agent, address });
      })
    : await answerForm(form, pairForm, async ({ code, name }) => {
        got.token = await pairDevice(ctx, pairing(), { code, name, address });
      });
  if (got.token === null) return answer;
  const to = pathIn(new URL(request.url).searchParams.get("to"));
  return goOnWith(got.token, known, here ? to : `/sign-in?${new URLSearchParams({ to })}`);
});

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => guardedAction(serverAction);
export default function Pair({ loaderData, actionData }: Route.ComponentProps) {
  useLeaveNothing();
  return <PairDesk {...loaderData} answer={actionData} />;
}
