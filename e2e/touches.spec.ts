import type { Page } from "@playwright/test";
import { expect, test } from "./fixture";
import { hand } from "./hand";
import { open } from "./support";

const link = (page: Page, name: string | RegExp) => page.getByRole("link", { name, exact: typeof name === "string" });
const button = (page: Page, name: string | RegExp) => page.getByRole("button", { name, exact: typeof name === "string" });

test("a first sheet on the shelf takes at most 30 touches", async ({ page }) => {
  const h = hand(page);
  await open(page, "/");
  await h.tap(link(page, "Shelf"));
  await h.tap(link(page, "New product"));
  for (const [label, text] of Object.entries({
    Name: "Clear touched",
    "Ratio by volume": "2:1",
    "Solids by volume, mixed, %": "48",
    "Film a coat, least, µm": "25",
    "Film a coat, most, µm": "32",
    "Flash, least, min": "10",
    "Flash, most, min": "45",
    "Pot life, min": "90",
    "Sand, min": "overnight",
  }))
    await h.type(label, text);
  await h.tap(button(page, "Put it on the shelf"));
  await expect(page.getByRole("link", { name: /^Clear touched/ })).toBeVisible();
  expect(h.touches()).toBeLessThanOrEqual(30);
});

test("five cards of a matte series, read as one row, take at most 20 touches, a typed field counted as two", async ({ page }) => {
  const h = hand(page);
  await open(page, "/ask/matte");
  await h.choose("Product", "Matte M");
  await h.tap(page.getByText("Read a row of cards"));
  for (const [i, gloss] of ["46", "37", "28", "20", "13"].entries()) await h.type(`Card ${i + 1}, gloss at 60°, GU`, gloss);
  await h.tap(button(page, "Keep these cards"));
  await expect(page.getByText("5 cards in the library").first()).toBeVisible();
  expect(h.touches()).toBeLessThanOrEqual(20);
  await open(page, "/cards");
  for (const share of [30, 40, 50, 60, 70]) await expect(page.getByText(`Matte M ${share} %`).first()).toBeVisible();
});

test("five cards of a matte series take at most 60 touches, a typed field counted as two", async ({ page }) => {
  const h = hand(page);
  await open(page, "/");
  await h.tap(link(page, "Cards"));
  for (const [i, [share, gloss]] of [
    ["30", "46"],
    ["40", "37"],
    ["50", "28"],
    ["60", "20"],
    ["70", "13"],
  ].entries()) {
    if (i === 0) {
      await h.tap(link(page, "New card"));
      await h.choose("Product", "Matte M");
      await h.type("Over: base or substrate", "grey base");
      await h.type("Where it hangs", "board 2");
    } else await h.tap(link(page, "Next card"));
    await h.type("Name", `Touched ${share}`);
    await h.type(/^Matting component/, share!);
    await h.type("Reducer, %", "5");
    await h.type("Gloss at 60°, GU", gloss!);
    await h.tap(button(page, "Put it in the library"));
    await expect(page.getByText(`Touched ${share}`).first()).toBeVisible();
  }
  expect(h.touches()).toBeLessThanOrEqual(60);
});
