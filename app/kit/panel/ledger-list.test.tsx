/** @jest-environment ./scripts/jest-jsdom.mjs */
import { fireEvent, screen, waitFor } from "@testing-library/react";
import { panelShape } from "#core/kernel/geometry/shapes";
import { testLedger } from "#core/panel/testing/test-ledger";
import type { LedgerLine } from "#server/views/ledger-view";
import { renderPage } from "~/kit/testing/render-page";
import { OthersEntries } from "~/kit/root/use-root";
import { LedgerList } from "./ledger-list";

const shape = panelShape("bonnet", { width_m: 1.4, height_m: 1.2 });

/** Lines of a ledger: notes, one of them taken out, a coat corrected, one entry of tomorrow. */
function lines(): LedgerLine[] {
  const ledger = testLedger();
  for (let i = 0; i < 10; i++) ledger.add("note", { text: `word ${i}` });
  const plain = ledger.entries.map((entry): LedgerLine => ({
    id: entry.id,
    kind: entry.kind,
    at: "6 May 10:00",
    by: "painter A",
    simulated: false,
    notYet: false,
    superseded: false,
    entry,
    struckBy: null,
    canBePutRight: false,
    unread: null,
  }));
  return [
    { ...plain[0]!, id: "tomorrow", kind: "oracle", entry: null, unread: "unknown kind" },
    { ...plain[1]!, superseded: true, struckBy: "s1" },
    { ...plain[2]!, id: "coat", kind: "coat", canBePutRight: true, simulated: true },
    ...plain.slice(3),
  ];
}
const show = () => renderPage(<LedgerList log={lines()} shape={shape} base="/jobs/j/panels/p" />);

test("what counts can be taken out, what was taken out put back, a coat put right; what cannot be read says so", () => {
  show();
  expect(screen.getAllByRole("listitem")).toHaveLength(10);
  expect(screen.getByRole("link", { name: "Put right coat" }).getAttribute("href")).toBe("/jobs/j/panels/p/entries/coat?from=hand-over");
  expect(screen.getByRole("button", { name: "Put back note" })).toBeTruthy();
  expect(screen.getByText(/kept, but not read by this version \(unknown kind\)/)).toBeTruthy();
  expect(screen.getByText("painter A, simulated")).toBeTruthy();
  expect(screen.getByText("painter A, taken out")).toBeTruthy();
});

test("it is searched by what was said and what became of it, and narrowed to a kind", async () => {
  show();
  fireEvent.change(screen.getByRole("searchbox"), { target: { value: "taken out" } });
  await waitFor(() => expect(screen.getAllByRole("listitem")).toHaveLength(1));
  fireEvent.change(screen.getByRole("searchbox"), { target: { value: "" } });
  fireEvent.change(screen.getByRole("combobox"), { target: { value: "coat" } });
  await waitFor(() => expect(screen.getAllByRole("listitem").map((l) => l.textContent)).toEqual([expect.stringContaining("coat")]));
});

test("taking an entry out goes to that entry", async () => {
  const { sent } = show();
  fireEvent.click(screen.getByRole("button", { name: "Take out coat" }));
  await waitFor(() => expect(sent).toEqual([{ path: "/do/entries/coat/strike", fields: { what: "coat", whole: "yes" } }]));
});

test("entries that others made stand there without presses for whoever may not put them right", () => {
  renderPage(
    <OthersEntries value={["coat", "s1"]}>
      <LedgerList log={lines()} shape={shape} base="/jobs/j/panels/p" />
    </OthersEntries>,
  );
  expect(screen.queryByRole("link", { name: "Put right coat" })).toBeNull();
  expect(screen.queryByRole("button", { name: "Take out coat" })).toBeNull();
  expect(screen.queryByRole("button", { name: "Put back note" })).toBeNull();
  expect(screen.getAllByRole("button", { name: "Take out note" }).length).toBeGreaterThan(0);
});
