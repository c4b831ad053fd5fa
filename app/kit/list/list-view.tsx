import { ArrowDown, ArrowUp } from "lucide-react";
import { flexRender } from "@tanstack/react-table";
import type { List } from "./use-list";

declare module "@tanstack/react-table" {
  // eslint-disable-next-line @typescript-eslint/no-unused-vars -- the library's own names
  interface ColumnMeta<TData, TValue> {
    /** Classes of the column's cells, head included. */
    cell?: string;
  }
}

/** Search, and the values the list may be narrowed to. */
export function ListTools<T>({
  list,
  label,
  only,
}: {
  list: List<T>;
  label: string;
  only?: { label: string; values: readonly { value: string; name: string }[] };
}) {
  const { state, change, typed, type } = list;
  return (
    <div role="search" data-view className="flex flex-wrap items-end gap-3">
      <label className="w-72 max-w-full">
        <span className="small-label mb-1 block">{label}</span>
        <input type="search" className="field" value={typed} maxLength={120} onChange={(e) => type(e.target.value)} />
      </label>
      {only && (
        <label>
          <span className="small-label mb-1 block">{only.label}</span>
          <select className="field" value={state.only ?? ""} onChange={(e) => change({ only: e.target.value || null })}>
            <option value="">All</option>
            {only.values.map(({ value, name }) => (
              <option key={value} value={value}>
                {name}
              </option>
            ))}
          </select>
        </label>
      )}
    </div>
  );
}

/** The rows as a table whose heads sort it: up, down, as it came. */
export function ListTable<T>({ list, caption, hiddenCaption = false }: { list: List<T>; caption: string; hiddenCaption?: boolean }) {
  const { table } = list;
  return (
    <table className="w-full text-left">
      <caption className={hiddenCaption ? "sr-only" : "pb-2 text-left text-lg font-semibold"}>{caption}</caption>
      <thead className="small-label border-b border-hair">
        {table.getHeaderGroups().map((group) => (
          <tr key={group.id}>
            {group.headers.map(({ id, column, getContext }) => {
              const sorted = column.getIsSorted();
              const head = flexRender(column.columnDef.header, getContext());
              return (
                <th
                  key={id}
                  scope="col"
                  className={column.columnDef.meta?.cell}
                  aria-sort={sorted ? (sorted === "asc" ? "ascending" : "descending") : undefined}
                >
                  {column.getCanSort() ? (
                    <button type="button" className="flex min-h-11 items-center gap-1" onClick={column.getToggleSortingHandler()}>
                      {head}
                      {sorted === "asc" && <ArrowUp size={14} aria-hidden />}
                      {sorted === "desc" && <ArrowDown size={14} aria-hidden />}
                    </button>
                  ) : (
                    head
                  )}
                </th>
              );
            })}
          </tr>
        ))}
      </thead>
      <tbody>
        {table.getRowModel().rows.map((row) => (
          <tr key={row.id} className="border-b border-hair">
            {row.getVisibleCells().map(({ id, column, getContext }) => (
              <td key={id} className={column.columnDef.meta?.cell}>
                {flexRender(column.columnDef.cell, getContext())}
              </td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** What is to be said when a list shows nothing, and the way through its pages when it has several. */
export function ListFoot<T>({ list, what, none }: { list: List<T>; what: string; none: string }) {
  const { state, change, pages, found } = list;
  const narrowed = state.search !== "" || state.only !== null;
  if (found === 0)
    return (
      <p className="text-ink2" role="status">
        {narrowed ? `None of the ${what} has all of that. ` : none}
        {narrowed && (
          <button type="button" className="press" onClick={() => change({ search: "", only: null })}>
            Show all
          </button>
        )}
      </p>
    );
  if (pages === 1) return null;
  const page = Math.min(state.page, pages);
  return (
    <nav aria-label={`Pages of ${what}`} className="flex items-center gap-3">
      <button type="button" className="press" disabled={page === 1} onClick={() => change({ page: page - 1 })}>
        Page before
      </button>
      <span className="text-ink2">
        Page {page} of {pages}
      </span>
      <button type="button" className="press" disabled={page === pages} onClick={() => change({ page: page + 1 })}>
        Next page
      </button>
    </nav>
  );
}
