/** @jest-environment ./scripts/jest-jsdom.mjs */
import { fireEvent, screen, waitFor, within } from "@testing-library/react";
import type { PartSheet } from "#core/models/product/sheet";
import { partSheet } from "#core/models/product/sheet-schema";
import { TEST_SHEET } from "#core/panel/testing/test-ledger";
import type { CanView } from "#server/views/cans-view";
import { renderPage } from "~/kit/testing/render-page";
import { CanList, PartList, ProductList } from "./shelf-lists";

const product = (n: number, over: object = {}) => ({ id: `p${n}`, revision: n, sheet: { ...TEST_SHEET, name: `Clear ${n}`, ...over } });
const names = () =>
  screen
    .getAllByRole("row")
    .slice(1)
    .map((r) => within(r).getByRole("link").textContent);

test("products with their figures in the screen's units", () => {
  renderPage(<ProductList coats={[product(1)]} />, { units: "imperial" });
  expect(screen.getByRole("columnheader", { name: "Film a coat, mil" })).toBeTruthy();
  expect(screen.getAllByRole("cell").map((c) => c.textContent)).toEqual([
    "Clear 1rev. 1",
    "clear",
    "2:1",
    "48 %",
    "1.0–1.2",
    "10–45",
    "90",
  ]);
});

test("many products are searched, narrowed by kind and sorted by their figures", async () => {
  const coats = [
    ...Array.from({ length: 9 }, (_, i) => product(i + 1, { volumeSolids: 0.4 + i / 100 })),
    product(20, { name: "Matte M", kind: "matte clear", volumeSolids: 0.6 }),
  ];
  renderPage(<ProductList coats={coats} />);
  fireEvent.click(screen.getByRole("button", { name: "Solids" }));
  await waitFor(() => expect(names()[0]).toContain("Matte M")); // figures: the highest first
  fireEvent.change(screen.getByRole("combobox", { name: "Kind" }), { target: { value: "matte clear" } });
  await waitFor(() => expect(names()).toHaveLength(1));
  fireEvent.change(screen.getByRole("searchbox"), { target: { value: "clear 3" } });
  await waitFor(() => expect(screen.getByRole("status").textContent).toContain("None of the products"));
});

test("cans and parts lead to their pages; an empty shelf says what belongs there", () => {
  const can = { id: "c1", name: "Hardener H", left_m3: 3e-4, size_m3: 1e-3, batch: "Q7", age: { state: "today", words: "use today" } };
  const part: PartSheet = partSheet.parse({ name: "Hardener H", kind: "hardener", speed: "medium", density_kg_m3: 1050 });
  const first = renderPage(
    <>
      <CanList cans={[can as CanView]} />
      <PartList parts={[{ id: "h1", revision: 1, sheet: part }]} />
    </>,
  );
  const [canLink, partLink] = screen.getAllByRole("link");
  expect([canLink!.getAttribute("href"), partLink!.getAttribute("href")]).toEqual(["/shelf/cans/c1", "/shelf/parts/h1"]);
  expect(canLink!.textContent).toContain("300 of 1000 ml left · batch Q7");
  expect(partLink!.textContent).toContain("medium · hardener · 1.05 g/ml");
  first.unmount();
  renderPage(<CanList cans={[]} />);
  expect(screen.getByRole("status").textContent).toContain("No can is kept track of");
});
