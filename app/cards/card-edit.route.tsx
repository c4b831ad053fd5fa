import { acting } from "~/kit/form/in-words.server";
import type { z } from "zod";
import { data, redirect } from "react-router";
import type { CardBody } from "#core/models/cards/card";
import { keepCard } from "#server/commands/cards";
import { serverContext } from "#server/running";
import { getCard, listCards } from "#server/repos/card-repo";
import { listProducts } from "#server/repos/product-repo";
import { answerForm, textOf, versionIn } from "~/kit/form/answer";
import { NONE, askedFor, sameAgain } from "./card-start";
import { cardForm } from "./card.form";
import { cardShown } from "./card.texts";
import { guardedAction } from "~/kit/form/guarded-action";
import { formPrefs } from "~/kit/http/prefs.server";
import { formOf } from "~/kit/http/body.server";
import type { Route } from "./+types/card-edit.route";
import { CardEditDesk } from "./card-edit.desk";

export const meta: Route.MetaFunction = () => [{ title: "Card · Yakamoz" }];

export async function loader({ params: { cardId }, request }: Route.LoaderArgs) {
  const ctx = await serverContext();
  const products = (await listProducts(ctx.db)).map((p) => ({ revisionId: p.revisionId, name: p.sheet.name }));
  const formKey = ctx.newId();
  const asked = askedFor(new URL(request.url).searchParams);
  if (cardId === "new") return { card: null, last: sameAgain((await listCards(ctx.db))[0] ?? null), asked, products, formKey };
  const card = await getCard(ctx.db, cardId);
  if (!card) throw data("This card is not in the library.", { status: 404 });
  return { card, last: null, asked: NONE, products, formKey };
}

export const action = acting(async ({ request, params: { cardId } }: Route.ActionArgs) => {
  const ctx = await serverContext();
  const form = await formOf(request);
  const { units, by } = await formPrefs(request, form);
  let savedId: string | null = null;
  const photos = form.getAll("photos").flatMap((f) => (f instanceof File && f.name ? [f] : []));
  const store = async ({ productId, body }: z.infer<ReturnType<typeof cardForm>>) => {
    const upon = cardId === "new" ? null : (versionIn(form) ?? cardId);
    savedId = await keepCard(ctx, { body, productRevisionId: productId, photos, upon, by, clientKey: textOf(form, "formKey") || null });
  };
  const answer = await answerForm(form, cardForm(units), store, (there: CardBody) => cardShown(there, units));
  return savedId ? redirect(`/cards/${String(savedId)}`) : answer;
});

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => guardedAction(serverAction);
export default function CardEdit({ loaderData, actionData }: Route.ComponentProps) {
  return <CardEditDesk loaderData={loaderData} actionData={actionData} />;
}
