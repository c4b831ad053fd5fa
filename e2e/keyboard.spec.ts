import type { Locator, Page } from "@playwright/test";
import { expect, test } from "./fixture";
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
