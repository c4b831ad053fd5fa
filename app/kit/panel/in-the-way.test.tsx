/** @jest-environment ./scripts/jest-jsdom.mjs */
import { fireEvent, screen, waitFor } from "@testing-library/react";
import { panelShape } from "#core/kernel/geometry/shapes";
import { testLedger } from "#core/panel/testing/test-ledger";
import type { PanelView } from "#server/views/panel-view";
import { renderPage } from "~/kit/testing/render-page";
import InTheWayNotice from "./in-the-way";

test("entries in the way are named with the way to put each right or take it out; what a model says is behind why", async () => {
  const ledger = testLedger();
  ledger.add("flatten", { grit: 800, by: "machine", removal_m: 300e-6, u_m: 10e-6, from: "told" });
  ledger.add("note", { text: "a word" });
  const [sanded, note] = ledger.entries;
  const view = {
    panel: { shape: panelShape("bonnet", { width_m: 1.4, height_m: 1.2 }) },
    state: {
      inTheWay: [
        { entry: sanded, why: "total_m must be finite" },
        { entry: { ...note!, elsewhere: true }, why: "the other" },
      ],
    },
  } as unknown as PanelView;
  const { sent } = renderPage(<InTheWayNotice view={view} base="/jobs/j/panels/p" />);
  expect(screen.getByRole("heading").textContent).toBe("2 entries do not fit the others: no figure here counts them");
  expect(screen.getByText(/sanded flat: P800 by machine/)).toBeTruthy();
  expect(screen.getByText(/logged on another panel of the job/)).toBeTruthy();
  expect(screen.getByText("total_m must be finite").closest("details")!.open).toBe(false);
  expect(screen.getAllByRole("link").map((l) => l.getAttribute("href"))).toEqual(["/jobs/j/panels/p/entries/e0?from=hand-over"]);
  fireEvent.click(screen.getByRole("button", { name: "Take it out : sanded flat" }));
  await waitFor(() => expect(sent).toEqual([{ path: "/do/entries/e0/strike", fields: { what: "sanded flat", whole: "yes" } }]));
});
