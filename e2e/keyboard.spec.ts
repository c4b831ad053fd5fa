import type { Locator, Page } from "@playwright/test";
import { expect, test } from "./fixture";
import { PAGES, today } from "./page-list";
import { open, startJob, watchConsole } from "./support";

/** Goes on with Tab until a control has the focus, as somebody without a mouse does. */
async function tabTo(page: Page, target: Locator, most = 90): Promise<void> {
  for (let i = 0; i < most; i++) {
    if (await target.evaluate((e) => e === document.activeElement)) return;
    await page.keyboard.press("Tab");
  }
  throw new Error(`not reached with ${most} Tabs: ${String(target)}`);
}

test("an inspection with the keyboard alone: panel found, six spots read, a run placed and sized, the verdict reached, the report handed over", async ({
  page,
}) => {
  test.setTimeout(120_000);
  const said = watchConsole(page);
  await startJob(page, { vehicle: "Keyboard coupé", coats: "1" });
  await open(page, "/");
  const key = (k: string) => page.keyboard.press(k);

  // To the panel by its name, to the coat, and on.
  await key("Control+k");
  await expect(page.getByRole("dialog", { name: "Go to" })).toBeVisible();
  await page.keyboard.type("Keyboard coupé");
  await expect(page.getByRole("option").first()).toContainText("Keyboard coupé");
  await key("Enter");
  await expect(page).toHaveURL(/\/course$/);
  await expect(page.getByTestId("course-now")).toBeVisible();
  await key("Alt+2");
  await expect(page).toHaveURL(/\/spray$/);
  await tabTo(page, page.locator("#reading-before"));
  for (const reading of ["92 93 91", "90 91 90", "94 93 94", "91 91 92", "93 92 93", "90 90 91"]) {
    await page.keyboard.type(reading);
    await key("Enter");
  }
  await expect(page.getByTestId("spots-read")).toHaveText("6 of 8");
  await page.keyboard.press("Shift+Tab");
  await tabTo(page, page.getByRole("button", { name: "Log coat 1" }), 140);
  await key("Enter");
  await expect(page.getByText("Coat 1 logged").first()).toBeVisible();

  // The readings after clear: the field is where the work is, Enter goes to the next spot.
  await key("Alt+3");
  await expect(page).toHaveURL(/\/inspect$/);
  await tabTo(page, page.locator("#reading-after"));
  for (const reading of ["145 146 145", "142 142 143", "147 147 148", "144 145 144", "145 146 145", "139 140 139"]) {
    await page.keyboard.type(reading);
    await key("Enter");
  }
  await expect(page.getByTestId("spots-read")).toHaveText("6 of 8");
  await expect(page.getByRole("heading", { level: 2 }).first()).toContainText("of clear on average");

  // A run: the mark moved with the arrows, its size typed, placed with Enter.
  await tabTo(page, page.getByRole("link", { name: "Defects", exact: true }), 140);
  await key("Enter");
  await expect(page).toHaveURL(/\/defects$/);
  await tabTo(page, page.getByRole("application"));
  await key("ArrowRight");
  await key("Enter");
  await expect(page.getByLabel("From the left")).not.toHaveValue("");
  for (const [label, text] of [
    [/^Height/, "40"],
    [/^Length/, "60"],
    [/^Width/, "10"],
  ] as const) {
    await tabTo(page, page.getByLabel(label).last());
    await page.keyboard.type(text);
  }
  await key("Enter");
  await expect(page.getByText("Run placed").first()).toBeVisible();

  // What it means, and the report.
  await key("Alt+4");
  await expect(page).toHaveURL(/\/correct$/);
  await expect(page.locator("#page").getByTestId("verdict")).not.toHaveAttribute("data-verdict", "waiting", { timeout: 30_000 });
  await key("Alt+5");
  await expect(page).toHaveURL(/\/hand-over$/);
  await tabTo(page, page.getByRole("button", { name: "Hand over", exact: true }), 140);
  await key("Enter");
  await expect(page.getByRole("heading", { level: 2, name: "Handed over." })).toBeVisible();
  expect(said).toEqual([]);
});

test("on every page the first field, or its main press, is two Tabs and Enter away", async ({ page }) => {
  test.setTimeout(300_000);
  const wrong: string[] = [];
  for (const [name, pathOf] of today(PAGES, 5)) {
    await open(page, await pathOf(page));
    await page.keyboard.press("Tab");
    await page.keyboard.press("Tab");
    await expect(page.getByRole("link", { name: "Skip to the work" })).toBeFocused();
    await page.keyboard.press("Enter");
    const elsewhere = () =>
      page.evaluate(() => {
        const on = document.activeElement;
        const inMain = on?.closest("#page main") && !on.closest("nav");
        // A page without any of them is only read: there its first heading.
        const offers = document.querySelector("#page main :is(input:not([type=hidden]), select, textarea, .press):not(nav *, :disabled)");
        return inMain && on?.matches(offers ? "input, select, textarea, .press, summary" : "h2, h3, main")
          ? ""
          : (on?.outerHTML.slice(0, 80) ?? "nothing");
      });
    // What comes after the page takes the keyboard as soon as it is there.
    const at = await expect
      .poll(elsewhere, { timeout: 5000 })
      .toBe("")
      .then(() => "", elsewhere);
    if (at) wrong.push(`${name}: ${at}`);
  }
  expect(wrong).toEqual([]);
});

test("a long form that is refused goes to its first field, and names all that is to be put right; a ratio is read as people write it", async ({
  page,
}) => {
  await open(page, "/shelf/new");
  const ratio = page.getByLabel("Ratio by volume");
  await ratio.fill("2:1:10%");
  await expect(page.getByText("2 parts to 1, then 10 % reducer on top. Of 100 parts 60.6, 30.3 and 9.1.")).toBeVisible();
  const fill = async (fields: Record<string, string>) => {
    for (const [label, text] of Object.entries(fields)) await page.getByLabel(label, { exact: true }).fill(text);
  };
  await fill({
    "Solids by volume, mixed, %": "48",
    "Film a coat, least, µm": "25",
    "Film a coat, most, µm": "32",
    "Flash, least, min": "10",
  });
  await page.getByRole("button", { name: "Put it on the shelf" }).click();
  await expect(page.getByLabel("Name", { exact: true })).toBeFocused();
  await expect(page.getByText("Not stored. To be put right: Name, Flash, most, Pot life, Sand.")).toBeVisible();
  await expect(ratio).toHaveValue("2:1:10%");
  await fill({ Name: "Clear ratio", "Flash, most, min": "45", "Pot life, min": "90", "Sand, min": "overnight", "Reducer, least, %": "5" });
  await page.getByRole("button", { name: "Put it on the shelf" }).click();
  await expect(ratio).toBeFocused();
  await expect(page.getByText("Its reducer is not the one typed beside it: leave one of the two out")).toBeVisible();
  await page.getByLabel("Reducer, least, %").fill("");
  await page.getByRole("button", { name: "Put it on the shelf" }).click();
  await page.getByRole("link", { name: /^Clear ratio/ }).click();
  await expect(ratio).toHaveValue("2:1");
  await expect(page.getByLabel("Reducer, least, %")).toHaveValue("10");

  // In a mix the reducer goes to its own field.
  await open(page, "/ask/mix");
  await page.getByLabel("Ratio by volume").fill("4-1-5%");
  await expect(page.getByLabel("Ratio by volume")).toHaveValue("4:1");
  await expect(page.getByLabel("Reducer, %", { exact: true })).toHaveValue("5");
});
