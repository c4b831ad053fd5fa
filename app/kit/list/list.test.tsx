/** @jest-environment ./scripts/jest-jsdom.mjs */
import type { ColumnDef } from "@tanstack/react-table";
import { fireEvent, render, screen, waitFor } from "@testing-library/react";
import { createMemoryRouter, RouterProvider } from "react-router";
import { type ListState, readListState, searchedWords, unlessListMoved, writeListState } from "./list-state";
import { ListFoot, ListTable, ListTools } from "./list-view";
import { useList } from "./use-list";

const PLAIN: ListState = { search: "", sort: null, desc: false, only: null, page: 1 };

test("a list's state goes into the address and comes back; other lists' and other words stay; nonsense is the plain list", () => {
  const state: ListState = { search: "teal pearl", sort: "from", desc: true, only: "matte", page: 3 };
  const params = writeListState(new URLSearchParams("for=customer&away.page=2"), "open", state);
  expect(readListState(params, "open")).toEqual(state);
  expect(readListState(params, "away")).toEqual({ ...PLAIN, page: 2 });
  expect(params.get("for")).toBe("customer");
  expect(writeListState(params, "open", PLAIN).toString()).toBe("for=customer&away.page=2");
  for (const page of ["0", "-1", "1.5", "x", "1e99"]) expect(readListState(new URLSearchParams({ "a.page": page }), "a")).toEqual(PLAIN);
  expect(readListState(new URLSearchParams({ "a.find": "x".repeat(900) }), "a").search).toHaveLength(120);
  expect(searchedWords("  Teal  PEARL ")).toEqual(["teal", "pearl"]);
});

test("what only moves through a list asks the server nothing; another page, a form or a fresh look does", () => {
  const url = (s: string) => new URL(s, "http://x");
  const ask = (from: string, to: string, formMethod?: string) =>
    unlessListMoved({ currentUrl: url(from), nextUrl: url(to), formMethod, defaultShouldRevalidate: true });
  expect(ask("/cards", "/cards?cards.find=a")).toBe(false);
  expect(ask("/cards", "/cards")).toBe(true);
  expect(ask("/cards", "/shelf?x=1")).toBe(true);
  expect(ask("/cards?a=1", "/cards?a=2", "POST")).toBe(true);
});

interface Can {
  name: string;
  kind: string;
  left: number;
}
const CANS: Can[] = [
  { name: "Clear 21", kind: "clear", left: 9 },
  { name: "Matte M", kind: "matte clear", left: 30 },
  { name: "Clear 41 slow", kind: "clear", left: 100 },
];
const COLUMNS: ColumnDef<Can>[] = [
  { id: "name", accessorKey: "name", header: "Name" },
  { id: "left", accessorKey: "left", header: "Left" },
  { id: "act", header: "", enableSorting: false, cell: () => <button type="button">Take</button> },
];
function Page() {
  const list = useList({ id: "cans", rows: CANS, columns: COLUMNS, text: (c) => `${c.name} ${c.kind}`, only: (c) => c.kind, most: 2 });
  return (
    <>
      <ListTools list={list} label="Search" only={{ label: "Kind", values: [{ value: "clear", name: "Clear" }] }} />
      <ListTable list={list} caption="Cans" />
      <ListFoot list={list} what="cans" none="No can." />
    </>
  );
}
function mount(at = "/") {
  const router = createMemoryRouter([{ path: "/", Component: Page }], { initialEntries: [at] });
  render(<RouterProvider router={router} />);
  const names = () =>
    screen
      .getAllByRole("row")
      .slice(1)
      .map((r) => r.firstElementChild!.textContent);
  return { names, address: () => decodeURIComponent(router.state.location.search) };
}

test("searched by every word, narrowed, and when nothing is left there is a way back", async () => {
  const { names, address } = mount();
  expect(names()).toEqual(["Clear 21", "Matte M"]);
  fireEvent.change(screen.getByRole("searchbox"), { target: { value: "slow clear" } });
  await waitFor(() => expect(names()).toEqual(["Clear 41 slow"]));
  expect(address()).toBe("?cans.find=slow+clear");
  fireEvent.change(screen.getByRole("searchbox"), { target: { value: "purple" } });
  await waitFor(() => expect(screen.getByRole("status").textContent).toContain("None of the cans has all of that."));
  fireEvent.click(screen.getByRole("button", { name: "Show all" }));
  await waitFor(() => expect(names()).toEqual(["Clear 21", "Matte M"]));
  expect(screen.getByRole<HTMLInputElement>("searchbox").value).toBe("");
  fireEvent.change(screen.getByRole("combobox"), { target: { value: "clear" } });
  await waitFor(() => expect(names()).toEqual(["Clear 21", "Clear 41 slow"]));
});

test("a head sorts by figures, says which way, and lets go again; pages turn; the address brings the same back", async () => {
  const { names, address } = mount("/?cans.sort=-left");
  expect(names()).toEqual(["Clear 41 slow", "Matte M"]);
  const head = () => screen.getByRole("columnheader", { name: "Left" });
  expect(head().getAttribute("aria-sort")).toBe("descending");
  fireEvent.click(screen.getByRole("button", { name: "Next page" }));
  await waitFor(() => expect(names()).toEqual(["Clear 21"]));
  expect(address()).toBe("?cans.sort=-left&cans.page=2");
  fireEvent.click(screen.getByRole("button", { name: "Left" }));
  await waitFor(() => expect(head().getAttribute("aria-sort")).toBe("ascending"));
  expect(names()).toEqual(["Clear 21", "Matte M"]);
  fireEvent.click(screen.getByRole("button", { name: "Left" }));
  await waitFor(() => expect(head().getAttribute("aria-sort")).toBeNull());
  expect(screen.queryByRole("button", { name: "act" })).toBeNull();
});
