import { redirect } from "react-router";
import { freeChoice } from "#core/practice/free";
import { serverContext } from "#server/running";
import { freeChoices } from "#server/views/bench-view";
import { answerForm } from "~/kit/form/answer";
import { guardedAction } from "~/kit/form/guarded-action";
import { acting } from "~/kit/form/in-words.server";
import { formOf } from "~/kit/http/body.server";
import { later, useLater } from "~/kit/root/later";
import { PageHeader } from "~/kit/shell/page-header";
import type { Route } from "./+types/choose.route";

export const meta: Route.MetaFunction = () => [{ title: "Choose what hangs · Yakamoz" }];

export async function loader() {
  return freeChoices(await serverContext());
}

/** Nothing is stored: what was chosen is the address of the bench. */
export const action = acting(async ({ request }: Route.ActionArgs) => {
  let to = "";
  const answer = await answerForm(await formOf(request), freeChoice, (choice) => {
    to = `/practice/free?${new URLSearchParams(Object.entries(choice).map(([name, value]) => [name, String(value)]))}`;
    return Promise.resolve();
  });
  return to ? redirect(to) : answer;
});
export const clientAction = ({ serverAction }: Route.ClientActionArgs) => guardedAction(serverAction);

/** No other page needs any of it. */
const chooseDesk = later(() => import("./choose.desk"));

export default function ChoosePage({ loaderData, actionData }: Route.ComponentProps) {
  const desk = useLater(chooseDesk, true, true);
  return (
    <>
      <PageHeader title="Choose what hangs" note="Simulated; nothing of it enters a job" narrow />
      <main className="max-w-[760px] px-4 py-6 sm:px-6">{desk && <desk.ChooseDesk choices={loaderData} answer={actionData} />}</main>
    </>
  );
}
