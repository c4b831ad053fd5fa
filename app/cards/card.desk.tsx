import { Link, useFetcher } from "react-router";
import { cardRows } from "./card-facts";
import { useUnits } from "~/kit/root/use-root";
import { PageHeader } from "~/kit/shell/page-header";
import { Tag } from "~/kit/ui/tag";
import type { Route } from "./+types/card.route";

export function CardPageDesk({ loaderData: { card } }: Pick<Route.ComponentProps, "loaderData">) {
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
