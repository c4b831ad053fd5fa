import { format } from "date-fns";
import { Link, data, useFetcher } from "react-router";
import { strikeCard } from "#server/commands/cards";
import { serverContext } from "#server/running";
import { getCard } from "#server/repos/card-repo";
import { cardRows } from "./card-facts";
import { useUnits } from "~/kit/root/use-root";
import { PageHeader } from "~/kit/shell/page-header";
import { Tag } from "~/kit/ui/tag";
import { formOf } from "~/kit/http/body.server";
import { textOf } from "~/kit/form/answer";
import { guardedAction } from "~/kit/form/guarded-action";
import { acting, inWords } from "~/kit/form/in-words.server";
import type { Route } from "./+types/card.route";

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

export default function CardPage({ loaderData: { card } }: Route.ComponentProps) {
  const units = useUnits();
  const fetcher = useFetcher();
  return (
    <>
      <PageHeader title={`Card ${card.number}: ${card.body.name}`} note={`${card.day} · ${card.by}`} />
      <main className="grid gap-x-10 gap-y-6 px-4 py-6 sm:px-6 lg:grid-cols-[minmax(0,460px)_1fr]">
        <section aria-label="The card" className="space-y-4">
          <div className="flex flex-wrap gap-2">
            {card.simulated && <Tag kind="simulated">simulated readings</Tag>}
            {card.struck && <Tag kind="stop">taken out of the library</Tag>}
            {card.supersededBy && <Tag kind="caution">corrected since</Tag>}
          </div>
          <dl className="grid grid-cols-[auto_1fr] border-t border-hair [&>*]:border-b [&>*]:border-hair [&>*]:py-2 [&>dd]:text-right [&>dd]:font-medium [&>dt]:text-ink2">
            {cardRows(card.body, units).map((r) => (
              <div key={r.name} className="contents">
                <dt>{r.name}</dt>
                <dd>{r.value}</dd>
              </div>
            ))}
          </dl>
          {card.body.note && <p className="max-w-[60ch]">{card.body.note}</p>}
          <div className="flex flex-wrap gap-2">
            {card.supersededBy ? (
              <Link to={`/cards/${card.supersededBy}`} className="press" data-kind="main">
                See the corrected card
              </Link>
            ) : (
              <Link to={`/cards/${card.id}/edit`} className="press" data-kind="main">
                Correct it
              </Link>
            )}
            <Link to="/cards/new/edit" className="press">
              Next card
            </Link>
            <Link to={`/labels/card/${card.id}`} className="press">
              Print its label
            </Link>
            <button
              type="button"
              className="press"
              onClick={() => void fetcher.submit({ struck: String(!card.struck) }, { method: "post" })}
            >
              {card.struck ? "Put it back" : "Take it out"}
            </button>
          </div>
        </section>
        <section aria-label="Photographs" className="grid content-start gap-4 sm:grid-cols-2">
          {card.body.photoIds.length === 0 && <p className="text-ink2">No photograph.</p>}
          {card.body.photoIds.map((id, i) => (
            <img key={id} src={`/do/photos/${id}`} alt={`Card ${card.number}, photograph ${i + 1}`} className="w-full border border-hair" />
          ))}
        </section>
      </main>
    </>
  );
}
