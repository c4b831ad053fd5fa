import { useEffect, useMemo, useRef, useState } from "react";
import { useSearchParams } from "react-router";
import {
  type ColumnDef,
  type Table,
  getCoreRowModel,
  getFilteredRowModel,
  getPaginationRowModel,
  getSortedRowModel,
  useReactTable,
} from "@tanstack/react-table";
import { type ListState, readListState, searchedWords, writeListState } from "./list-state";

/** A list that is not a table is searched and cut to pages all the same: one column stands for the row. */
export const ONE_COLUMN: ColumnDef<never>[] = [{ id: "row", accessorFn: () => "" }];

export interface ListQuestion<T> {
  /** Names the list in the page's address. */
  id: string;
  rows: readonly T[];
  columns: readonly ColumnDef<T>[] | typeof ONE_COLUMN;
  /** The words a row is found by. */
  text: (row: T) => string;
  /** The value that the list's filter goes by. */
  only?: (row: T) => string;
  /** Rows of one page; all without. */
  most?: number;
  /** The server has searched, sorted and cut to a page already: so many rows there are in all. */
  onServer?: { found: number };
}
export interface List<T> {
  id: string;
  table: Table<T>;
  state: ListState;
  change: (part: Partial<ListState>) => void;
  /** The search as it is typed; the list follows it when it rests. */
  typed: string;
  type: (search: string) => void;
  found: number;
  pages: number;
}

/** A typed search rests so long before the list follows. */
const REST_MS = 150;

/** A list's rows searched, sorted and cut to pages; its state is the page's address, its typed search at once on the screen. */
export function useList<T>({ id, rows, columns, text, only, most = Infinity, onServer }: ListQuestion<T>): List<T> {
  const [params, setParams] = useSearchParams();
  const state = readListState(params, id);
  const [typed, setTyped] = useState(state.search);
  const asked = useRef(params); // what was chosen a moment ago is not in the address yet, and stays
  useEffect(() => {
    asked.current = params;
  }, [params]);
  const change = (part: Partial<ListState>) => {
    if (part.search !== undefined) setTyped(part.search);
    const now = asked.current;
    asked.current = writeListState(now, id, { ...readListState(now, id), page: 1, ...part });
    setParams(asked.current, { replace: true, preventScrollReset: true });
  };
  const newest = useRef(change);
  useEffect(() => {
    newest.current = change;
  });
  useEffect(() => {
    if (typed === state.search) return;
    const wait = setTimeout(() => newest.current({ search: typed }), REST_MS);
    return () => clearTimeout(wait);
    // eslint-disable-next-line react-hooks/exhaustive-deps -- only what is typed starts a search
  }, [typed]);
  const data = useMemo(
    () => (state.only && only && !onServer ? rows.filter((r) => only(r) === state.only) : [...rows]),
    // eslint-disable-next-line react-hooks/exhaustive-deps -- a function of the row alone
    [rows, state.only],
  );
  const size = Number.isFinite(most) ? most : Math.max(1, data.length);
  // eslint-disable-next-line react-hooks/incompatible-library -- its functions are used in this rendering only
  const table = useReactTable<T>({
    data,
    columns: columns as ColumnDef<T>[],
    state: {
      globalFilter: state.search,
      sorting: state.sort ? [{ id: state.sort, desc: state.desc }] : [],
      pagination: { pageIndex: state.page - 1, pageSize: size },
    },
    globalFilterFn: (row, _, search: string) => {
      const said = text(row.original).toLowerCase();
      return searchedWords(search).every((w) => said.includes(w));
    },
    getColumnCanGlobalFilter: () => true,
    autoResetPageIndex: false,
    getCoreRowModel: getCoreRowModel(),
    ...(onServer
      ? { manualFiltering: true, manualSorting: true, manualPagination: true, rowCount: onServer.found }
      : {
          getFilteredRowModel: getFilteredRowModel(),
          getSortedRowModel: getSortedRowModel(),
          getPaginationRowModel: getPaginationRowModel(),
        }),
    onSortingChange: (next) => {
      const [first] = typeof next === "function" ? next(state.sort ? [{ id: state.sort, desc: state.desc }] : []) : next;
      change({ sort: first?.id ?? null, desc: first?.desc ?? false });
    },
  });
  const found = onServer?.found ?? table.getFilteredRowModel().rows.length;
  return { id, table, state, change, typed, type: setTyped, found, pages: Math.max(1, Math.ceil(found / size)) };
}
