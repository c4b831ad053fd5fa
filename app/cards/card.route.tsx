import { format } from "date-fns";
import { data } from "react-router";
import { strikeCard } from "#server/commands/cards";
import { serverContext } from "#server/running";
import { getCard } from "#server/repos/card-repo";
import { formOf } from "~/kit/http/body.server";
import { textOf } from "~/kit/form/answer";
import { guardedAction } from "~/kit/form/guarded-action";
import { acting, inWords } from "~/kit/form/in-words.server";
import type { Route } from "./+types/card.route";
import { CardPageDesk } from "./card.desk";

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: loaderData ? `Card ${loaderData.card.number} · Yakamoz` : "Card · Yakamoz" },
];

export async function loader({ params: { cardId } }: Route.LoaderArgs) {
  const card = await getCard((await serverContext()).db, cardId);
  if (!card) throw data("This card is not in the library.", { status: 404 });
  return { card: { ...card, day: format(card.at_ms, "d MMM yyyy") } };
}

export const action = acting(async ({ request, params: { cardId } }: Route.ActionArgs) => {
  const form = await formOf(request);
  return inWords(async () => {
    await strikeCard(await serverContext(), cardId, textOf(form, "struck") === "true");
    return { ok: true };
  });
});

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => guardedAction(serverAction);
export default function CardPage({ loaderData }: Route.ComponentProps) {
  return <CardPageDesk loaderData={loaderData} />;
}
