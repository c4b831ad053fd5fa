/** @jest-environment ./scripts/jest-jsdom.mjs */
import { fireEvent, screen, waitFor } from "@testing-library/react";
import { renderPage } from "~/kit/testing/render-page";
import { SandDesk } from "./sand.desk";

/** The worker is not asked here: what it answers is tested with the core. */
class SilentWorker extends EventTarget {
  postMessage(): void {}
  terminate(): void {}
}
beforeEach(() => {
  (globalThis as { Worker?: unknown }).Worker = SilentWorker;
});
const desk = (units: "metric" | "imperial" = "metric") =>
  renderPage(<SandDesk productRevisionId="r1" formKey="f1" />, { units, answer: () => null });
const cell = (spot: number, when: "before" | "after", unit = "µm") =>
  screen.getByRole<HTMLInputElement>("textbox", { name: `Spot ${spot}, ${when} clear, ${unit}` });

test("six rows, one more on demand; Enter goes down the column", () => {
  desk();
  expect(screen.getAllByRole("textbox")).toHaveLength(12);
  fireEvent.click(screen.getByRole("button", { name: "One spot more" }));
  expect(screen.getAllByRole("textbox")).toHaveLength(14);
  cell(1, "after").focus();
  fireEvent.keyDown(cell(1, "after"), { key: "Enter" });
  expect(document.activeElement).toBe(cell(2, "after"));
});

test("what is no film is told at its cell, in the screen's unit, and can still be corrected", () => {
  desk("imperial");
  fireEvent.change(cell(1, "after", "mil"), { target: { value: "900" } });
  expect(screen.getByRole("alert").textContent).toBe("Film lies between 0 and 197 mil");
  expect(cell(1, "after", "mil").getAttribute("aria-invalid")).toBe("true");
  fireEvent.change(cell(1, "after", "mil"), { target: { value: "5,1" } });
  expect(screen.queryByRole("alert")).toBeNull();
});

test("parts are called as the shop calls them", () => {
  const british = desk();
  const names = () => screen.getAllByRole("option").map((o) => o.textContent);
  expect(names()).toEqual(expect.arrayContaining(["Bonnet", "Wing", "Boot lid"]));
  british.unmount();
  desk("imperial");
  expect(names()).toEqual(expect.arrayContaining(["Hood", "Fender", "Trunk lid"]));
  expect(names()).not.toContain("Bonnet");
});

test("it can be kept as a job once something is read after clear, with every row as typed", async () => {
  const { sent } = desk();
  const keep = screen.getByRole<HTMLButtonElement>("button", { name: "Keep as a job" });
  expect(keep.disabled).toBe(true);
  fireEvent.change(cell(2, "before"), { target: { value: "90" } });
  fireEvent.change(cell(2, "after"), { target: { value: "141" } });
  expect(keep.disabled).toBe(false);
  fireEvent.click(keep);
  await waitFor(() => expect(sent).toHaveLength(1));
  expect(sent[0]!.fields).toMatchObject({ shape: "bonnet", substrate: "unknown", productRevisionId: "r1", unit: "µm", formKey: "f1" });
  expect((sent[0]!.fields.rows as unknown as object[])[1]).toEqual({ before: "90", after: "141" });
});
