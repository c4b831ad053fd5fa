import type { Locator, Page } from "@playwright/test";
import { expect, test } from "./fixture";
import { open } from "./support";

/**
 * A hand in a glove. Every tap is one touch, a choice from a list two (open, choose), a field that is typed into one; a reading that is typed is
 * none, as a gauge sends it by itself.
 */
function hand(page: Page) {
  let touches = 0;
  return {
    touches: () => touches,
    async tap(target: Locator) {
      touches += 1;
      await target.click();
    },
    async type(label: string | RegExp, text: string) {
      touches += 1;
      const field = typeof label === "string" ? page.getByLabel(label, { exact: true }) : page.getByLabel(label);
      await field.last().fill(text);
    },
    async choose(label: string | RegExp, option: string) {
      touches += 2;
      const field = typeof label === "string" ? page.getByLabel(label, { exact: true }) : page.getByLabel(label);
      await field.selectOption({ label: option });
    },
    async read(phase: "before" | "after", readings: readonly string[]) {
      const input = page.locator(`#reading-${phase}`);
      for (const reading of readings) {
        await input.fill(reading);
        await input.press("Enter");
      }
      await expect(page.getByTestId("spots-read")).toHaveText(new RegExp(`^${readings.length} of`));
    },
  };
}
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

test("five cards of a matte series take at most 40 touches", async ({ page }) => {
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
  expect(h.touches()).toBeLessThanOrEqual(40);
});

test("a new job takes at most 8 touches, a whole production job at most 60 besides its readings: 2 panels, 2 coats, 6 + 6 readings each, a run, 4 nibs, report", async ({
  page,
}) => {
  test.setTimeout(180_000);
  const h = hand(page);
  await open(page, "/");
  await h.tap(link(page, "Jobs"));
  await h.tap(link(page, "New job"));
  await h.type("Vehicle or part", "Imbat touched");
  await h.choose("Clear from the shelf", "Clear 21");
  await h.tap(button(page, "Start this job"));
  await expect(page).toHaveURL(/\/course$/);
  expect(h.touches()).toBeLessThanOrEqual(8);
  await h.tap(link(page, "Add a panel"));
  await h.choose("Shape", "Door");
  await h.tap(button(page, "Add this panel"));
  await expect(page.getByRole("heading", { level: 1 })).toHaveText("Imbat touched, door");

  /** The other panel, at a station; nothing is tapped that is there already. */
  const go = async (panel: string, station: string) => {
    const title = page.getByRole("heading", { level: 1 });
    if ((await title.textContent()) !== `Imbat touched, ${panel.toLowerCase()}`) await h.tap(link(page, panel));
    await expect(title).toHaveText(`Imbat touched, ${panel.toLowerCase()}`);
    const path = station.toLowerCase().replace(" ", "-");
    if (!page.url().endsWith(`/${path}`)) await h.tap(page.locator(`a[href$="/${path}"]`).first());
    await expect(page).toHaveURL(new RegExp(`/${path}$`));
  };
  for (const panel of ["Door", "Bonnet"]) {
    await go(panel, "Spray");
    await h.read("before", ["92 93 91", "90 91 90", "94 93 94", "91 91 92", "93 92 93", "90 90 91"]);
  }
  for (const coat of [1, 2])
    for (const panel of coat === 1 ? ["Bonnet", "Door"] : ["Door", "Bonnet"]) {
      await go(panel, "Spray");
      await h.tap(button(page, `Log coat ${coat}`));
      await expect(page.getByText(`Coat ${coat} logged`).first()).toBeVisible();
    }
  for (const panel of ["Door", "Bonnet"]) {
    await go(panel, "Inspect");
    await h.read("after", ["145 146 145", "142 142 143", "147 147 148", "144 145 144", "145 146 145", "139 140 139"]);
  }
  await h.tap(link(page, "Defects"));
  const panel = page.getByRole("application");
  await h.tap(panel);
  await h.type(/^Height/, "60");
  await h.type(/^Length/, "60");
  await h.type(/^Width/, "10");
  await h.tap(button(page, "Place it"));
  await expect(page.getByText("Run placed").first()).toBeVisible();
  await h.choose("Kind", "Nib");
  await h.type("How many", "4");
  await h.tap(panel);
  await h.tap(button(page, "Place it"));
  await expect(page.getByText("Nib placed").first()).toBeVisible();

  for (const panel of ["Bonnet", "Door"]) {
    await go(panel, "Hand over");
    const [report] = await Promise.all([page.waitForEvent("download"), h.tap(link(page, "PDF"))]);
    expect(report.suggestedFilename()).toContain("Imbat touched");
    await h.tap(button(page, /^Hand over/).last());
    await expect(page.getByRole("heading", { level: 2, name: "Handed over." })).toBeVisible();
  }
  expect(h.touches()).toBeLessThanOrEqual(60);
});
