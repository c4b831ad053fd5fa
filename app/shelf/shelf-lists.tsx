import type { ColumnDef } from "@tanstack/react-table";
import { Link } from "react-router";
import { show, showFilm } from "#core/kernel/units/format";
import type { ProductSheet, PartSheet } from "#core/models/product/sheet";
import type { CanView } from "#server/views/cans-view";
import { ListFoot, ListTable, ListTools } from "~/kit/list/list-view";
import { ONE_COLUMN, useList } from "~/kit/list/use-list";
import { UsualTag } from "~/kit/first/usual-tag";
import { CanTag } from "~/kit/panel/can-tag";
import { useUnits } from "~/kit/root/use-root";
import { ScrollRegion } from "~/kit/ui/scroll-region";
import { preferredUnit } from "#core/kernel/units/quantities";

/** So many are seen at a glance, without a search. */
const FEW = 8;
/** So many of a page. */
const PAGE = 24;

interface Listed<S> {
  id: string;
  revision: number;
  sheet: S;
}

/** Whatever lies on a wet panel, with the figures a painter compares. */
export function ProductList({ coats }: { coats: readonly Listed<ProductSheet>[] }) {
  const units = useUnits();
  const span = (low: string, high: string) => `${low}–${high}`;
  const film = (m: number) => showFilm(m, units).text;
  const minutes = (s: number) => show("duration", s, units).text;
  const percent = (share: number) => `${show("share", share, units, 0).text} %`;
  const columns: ColumnDef<Listed<ProductSheet>>[] = [
    {
      id: "name",
      accessorFn: (p) => p.sheet.name,
      header: "Product",
      cell: ({ row: { original: p } }) => (
        <Link to={`/shelf/${p.id}`} className="flex min-h-11 items-center font-semibold underline-offset-4 hover:underline">
          {p.sheet.name}
          <span className="ml-2 font-normal text-ink2">rev. {p.revision}</span>
          {p.sheet.usual && <UsualTag className="ml-2" />}
        </Link>
      ),
    },
    { id: "kind", accessorFn: (p) => p.sheet.kind, header: "Kind" },
    {
      id: "ratio",
      header: "Ratio",
      accessorFn: ({ sheet }) => `${sheet.ratio || "–"}${sheet.reducerMax > 0 ? ` + ${percent(sheet.reducerMax)}` : ""}`,
      enableSorting: false,
    },
    {
      id: "solids",
      accessorFn: (p) => p.sheet.volumeSolids,
      header: "Solids",
      cell: ({ row }) => percent(row.original.sheet.volumeSolids),
    },
    {
      id: "film",
      accessorFn: (p) => p.sheet.filmPerCoatMax_m,
      header: `Film a coat, ${units.film}`,
      cell: ({ row: { original: p } }) => span(film(p.sheet.filmPerCoatMin_m), film(p.sheet.filmPerCoatMax_m)),
    },
    {
      id: "flash",
      accessorFn: (p) => p.sheet.flashMin_s,
      header: "Flash, min",
      cell: ({ row: { original: p } }) => span(minutes(p.sheet.flashMin_s), minutes(p.sheet.flashMax_s)),
    },
    { id: "pot", accessorFn: (p) => p.sheet.potLife_s, header: "Pot, min", cell: ({ row }) => minutes(row.original.sheet.potLife_s) },
  ];
  const list = useList({
    id: "products",
    rows: coats,
    columns,
    text: ({ sheet }) => `${sheet.name} ${sheet.kind} ${sheet.ratio}`,
    only: (p) => p.sheet.kind,
    most: PAGE,
  });
  const kinds = [...new Set(coats.map((c) => c.sheet.kind))].sort();
  return (
    <div className="space-y-3">
      {coats.length > FEW && (
        <ListTools
          list={list}
          label="Search the products"
          only={{ label: "Kind", values: kinds.map((value) => ({ value, name: value })) }}
        />
      )}
      <ScrollRegion label="Products">
        <ListTable list={list} caption="Products" hiddenCaption />
      </ScrollRegion>
      <ListFoot list={list} what="products" none="No product is on the shelf yet." />
    </div>
  );
}

/** Cans, the one that dies first on top. */
export function CanList({ cans }: { cans: readonly CanView[] }) {
  const units = useUnits();
  const list = useList({ id: "cans", rows: cans, columns: ONE_COLUMN, text: (c) => `${c.name} ${c.batch} ${c.age.words}`, most: PAGE });
  return (
    <div className="space-y-3">
      {cans.length > FEW && <ListTools list={list} label="Search the cans" />}
      <ul className="grid border-t border-hair empty:hidden lg:grid-cols-2 lg:gap-x-10">
        {list.table.getRowModel().rows.map(({ original: c }) => (
          <li key={c.id} className="border-b border-hair">
            <Link to={`/shelf/cans/${c.id}`} className="flex min-h-14 items-center gap-3 rounded-press px-1 hover:bg-glow-wash">
              <span className="min-w-0 flex-1">
                <b className="font-semibold">{c.name}</b>
                <span className="block text-[13px] text-ink2">
                  {show("volume", c.left_m3, units).text} of {show("volume", c.size_m3, units).text} {units.volume} left
                  {c.batch && ` · batch ${c.batch}`}
                </span>
              </span>
              <CanTag state={c.age.state} words={c.age.words} />
            </Link>
          </li>
        ))}
      </ul>
      <ListFoot list={list} what="cans" none="No can is kept track of. Put opened hardener here and it tells you when it dies." />
    </div>
  );
}

/** Hardeners, reducers, additives. */
export function PartList({ parts }: { parts: readonly Listed<PartSheet>[] }) {
  const units = useUnits();
  const facts = ({ sheet }: Listed<PartSheet>) =>
    [
      sheet.speed,
      sheet.kind,
      sheet.density_kg_m3 && `${show("density", sheet.density_kg_m3, units, 2).text} ${preferredUnit("density", units)}`,
    ]
      .filter(Boolean)
      .join(" · ");
  const list = useList({ id: "parts", rows: parts, columns: ONE_COLUMN, text: (p) => `${p.sheet.name} ${facts(p)}`, most: PAGE });
  return (
    <div className="space-y-3">
      {parts.length > FEW && <ListTools list={list} label="Search hardeners, reducers, additives" />}
      <ul className="grid border-t border-hair empty:hidden sm:grid-cols-2 sm:gap-x-10">
        {list.table.getRowModel().rows.map(({ original: p }) => (
          <li key={p.id} className="border-b border-hair">
            <Link
              to={`/shelf/parts/${p.id}`}
              className="flex min-h-11 items-center justify-between gap-3 rounded-press px-1 hover:bg-glow-wash"
            >
              <b className="font-semibold">{p.sheet.name}</b>
              <span className="text-[14px] text-ink2">{facts(p)}</span>
            </Link>
          </li>
        ))}
      </ul>
      <ListFoot list={list} what="hardeners, reducers and additives" none="None is on the shelf yet." />
    </div>
  );
}
