import { data, redirect } from "react-router";
import { changePerson, letPersonGo } from "#server/commands/people";
import { getPerson } from "#server/repos/person-repo";
import { shopContext } from "#server/running";
import { answerForm, textOf, versionIn } from "~/kit/form/answer";
import { guardedAction } from "~/kit/form/guarded-action";
import { acting } from "~/kit/form/in-words.server";
import { formOf } from "~/kit/http/body.server";
import { changePersonForm, takeForm } from "./access.form";
import { PersonDesk } from "./person.desk";
import type { Route } from "./+types/person.route";

export const meta: Route.MetaFunction = () => [{ title: "Somebody of the shop · Yakamoz" }];

export async function loader({ params: { personId } }: Route.LoaderArgs) {
  const ctx = await shopContext();
  const person = await getPerson(ctx.db, personId);
  if (!person) throw data("This person is no longer there.", { status: 404 });
  const { id, name, role, version } = person;
  return { id, name, role, version: String(version) };
}

export const action = acting(async ({ request, params: { personId } }: Route.ActionArgs) => {
  const ctx = await shopContext();
  const form = await formOf(request);
  const done = { yes: false };
  const answer =
    textOf(form, "intent") === "letGo"
      ? await answerForm(form, takeForm.partial(), async () => {
          await letPersonGo(ctx, personId);
          done.yes = true;
        })
      : await answerForm(
          form,
          changePersonForm,
          async ({ name, role, secret }) => {
            await changePerson(ctx, personId, { name, role, secret: secret === "" ? null : secret, version: versionIn(form) });
            done.yes = true;
          },
          (there: { name: string; role: string }) => ({ name: there.name, role: there.role }),
        );
  return done.yes ? redirect("/house/people") : answer;
});

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => guardedAction(serverAction);
export default function PersonPage({ loaderData, actionData }: Route.ComponentProps) {
  return <PersonDesk key={loaderData.id} {...loaderData} answer={actionData} />;
}
