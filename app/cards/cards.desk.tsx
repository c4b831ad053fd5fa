import { useState } from "react";
import { Link } from "react-router";
import { cardGloss } from "#core/models/cards/card";
import type { Card } from "#server/repos/card-repo";
import { cardRows } from "./card-facts";
import { useUnits } from "~/kit/root/use-root";
import { ListFoot, ListTools } from "~/kit/list/list-view";
import { ONE_COLUMN, useList } from "~/kit/list/use-list";
import { PageHeader } from "~/kit/shell/page-header";
import { ScrollRegion } from "~/kit/ui/scroll-region";
import { Tag } from "~/kit/ui/tag";
import type { Route } from "./+types/cards.route";

const MOST_COMPARED = 4;

/** Cards of one page. */
const PAGE = 40;

export function CardsDesk({ loaderData: { cards } }: Pick<Route.ComponentProps, "loaderData">) {
  const units = useUnits();
  const [chosen, setChosen] = useState<string[]>([]);
  const list = useList({
    id: "cards",
    rows: cards,
    columns: ONE_COLUMN,
    text: ({ number, body, by, day }) =>
      [number, body.name, body.productName, body.mix, body.base, body.place, body.note, by, day].join(" "),
    only: (c) => c.body.productName,
    most: PAGE,
  });
  const products = [...new Set(cards.map((c) => c.body.productName))].filter(Boolean).sort();
  const side = cards.filter((c) => chosen.includes(c.id)).map((c) => ({ ...c, rows: cardRows(c.body, units) }));
  return (
    <>
      <PageHeader title="Cards" note="What was sprayed, how it came out, where it hangs" />
      <main className="space-y-6 px-4 py-6 sm:px-6">
        <h2 className="max-w-[26em] text-[25px] leading-[1.12] sm:text-[31px] font-semibold tracking-tight">
          {cards.length === 0
            ? "No card yet. Spray one, read it, put it here; nothing is lost again."
            : `${cards.length} ${cards.length === 1 ? "card" : "cards"} in the library.`}
        </h2>
        <div className="flex flex-wrap items-end gap-3">
          <ListTools list={list} label="Search" only={{ label: "Product", values: products.map((value) => ({ value, name: value })) }} />
          <Link to="/cards/new/edit" className="press" data-kind="main">
            New card
          </Link>
          <Link to="/ask/matte" className="press">
            Which matte mix?
          </Link>
        </div>
        {list.found > 0 && (
          <ul className="grid border-t border-hair lg:grid-cols-2 lg:gap-x-10" aria-label="Cards found">
            {list.table.getRowModel().rows.map(({ original: c }) => {
              const gloss = cardGloss(c.body, 60);
              return <CardRow key={c.id} {...{ c, chosen, setChosen, gloss }} />;
            })}
          </ul>
        )}
        {cards.length > 0 && <ListFoot list={list} what="cards" none="No card yet." />}
        {side.length > 1 && <SideBySide {...{ side }} />}
      </main>
    </>
  );
}

/** A card in the list, with its tick. */
function CardRow({
  c,
  chosen,
  setChosen,
  gloss,
}: {
  c: Card & { day: string };
  chosen: string[];
  setChosen: React.Dispatch<React.SetStateAction<string[]>>;
  gloss: number | null;
}) {
  return (
    <li className="flex items-center gap-3 border-b border-hair">
      <label className="grid min-h-11 min-w-11 place-content-center">
        <input
          type="checkbox"
          className="size-6"
          aria-label={`Compare card ${c.number}`}
          checked={chosen.includes(c.id)}
          disabled={!chosen.includes(c.id) && chosen.length >= MOST_COMPARED}
          onChange={(e) => setChosen((l) => (e.target.checked ? [...l, c.id] : l.filter((i) => i !== c.id)))}
        />
      </label>
      <Link to={`/cards/${c.id}`} className="flex min-h-16 min-w-0 flex-1 items-center gap-3 rounded-press hover:bg-glow-wash">
        <span className="min-w-0 flex-1">
          <b className="font-semibold">
            {c.number}. {c.body.name}
          </b>
          <span className="block truncate text-[13px] text-ink2">
            {[c.body.mix || c.body.productName, c.body.base, c.day, c.by].filter(Boolean).join(" · ")}
          </span>
        </span>
        {c.simulated && <Tag kind="simulated">simulated</Tag>}
        {gloss !== null && (
          <span className="shrink-0 text-[22px] font-semibold">
            {gloss.toFixed(1)} <span className="text-[13px] font-normal text-ink2">GU 60°</span>
          </span>
        )}
      </Link>
    </li>
  );
}

/** Cards that were chosen, side by side. */
function SideBySide({ side }: { side: readonly (Card & { rows: { name: string; value: string }[]; day: string })[] }) {
  return (
    <section aria-labelledby="side-title">
      <h3 id="side-title" className="mb-2 text-xl font-semibold">
        Side by side
      </h3>
      <ScrollRegion label="Cards side by side">
        <table className="w-full text-left [&_td]:py-1.5 [&_th]:py-1.5" data-testid="side-by-side">
          <thead>
            <tr className="border-b border-hair">
              <td />
              {side.map((c) => (
                <th key={c.id} scope="col">
                  Card {c.number}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {side[0]!.rows.map((r, i) => {
              const values = side.map((c) => c.rows[i]!.value);
              const differ = new Set(values).size > 1;
              return (
                <tr key={r.name} className="border-b border-hair">
                  <th scope="row" className="font-normal text-ink2">
                    {r.name}
                    {differ && <span className="sr-only">, differs</span>}
                  </th>
                  {values.map((v, k) => (
                    <td key={k} className={differ ? "font-semibold" : "text-ink2"}>
                      {v}
                    </td>
                  ))}
                </tr>
              );
            })}
          </tbody>
        </table>
      </ScrollRegion>
    </section>
  );
}
