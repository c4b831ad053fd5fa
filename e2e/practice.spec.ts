import type { Page } from "@playwright/test";
import { rowsOver, sprayRows } from "./bench-hand";
import { expect, test } from "./fixture";
import { open, watchConsole } from "./support";

async function hang(page: Page, exercise: string): Promise<void> {
  await open(page, `/practice/${exercise}`);
  await page.getByRole("button", { name: "Spray coat 1" }).click();
  await expect(page.getByRole("button", { name: "The coat is on" })).toBeVisible();
}
async function lookOver(page: Page): Promise<void> {
  await page.getByRole("button", { name: "The coat is on" }).click();
  await page.getByRole("button", { name: "Look it over" }).click();
  await expect(page.getByTestId("advice")).toBeVisible({ timeout: 60_000 });
}

test("a steady hand passes even rows; what it came to is kept, and in the CSV; nothing of it is in the shop", async ({ page }) => {
  test.setTimeout(180_000);
  const said = watchConsole(page);
  await hang(page, "even-rows");
  await sprayRows(page, rowsOver(0.8, 0.6, 6));
  await expect(page.getByRole("heading", { level: 2 })).toContainText("Row 6 of 6");
  await lookOver(page);
  await expect(page.getByRole("heading", { level: 2 })).toHaveText(/^No run, .*\. That passes\.$/);
  await expect(page.getByTestId("advice")).toContainText("Nothing of the hand cost film worth a word.");
  await page.getByRole("link", { name: "All exercises" }).click();
  await expect(page.getByTestId("exercises").getByRole("link", { name: /Even rows/ })).toContainText("passed");
  await expect(page.getByRole("heading", { level: 2 })).toHaveText("Next: a steady hand.");
  const csv = await (await page.request.get("/do/practice.csv")).text();
  expect(csv).toMatch(/^[^,]+,even-rows,guided,yes,0,0/m);
  expect(said).toEqual([]);
});

test("a dwell runs where it dwelt and a fast row leaves it thin: each is named, dearest first, and can be tried again from there", async ({
  page,
}) => {
  test.setTimeout(240_000);
  await hang(page, "steady-pace");
  const rows = rowsOver(0.8, 0.5, 5);
  rows[2]!.stands = 1.4;
  await sprayRows(page, rows);
  await lookOver(page);
  await expect(page.getByRole("heading", { level: 2 })).toContainText("It ran");
  await expect(page.getByTestId("advice").getByRole("listitem").first()).toContainText("In row 3 the hand stood still");
  await expect(page.getByTestId("advice").getByRole("listitem").first()).toContainText("nothing would have run");
  await page.getByRole("button", { name: "Try again from there" }).first().click();
  // Two rows lie as they were; the third and what follows are sprayed anew, the last two at twice the speed.
  await sprayRows(page, [...rows.slice(2, 3).map((r) => ({ ...r, stands: 0 })), ...rows.slice(3).map((r) => ({ ...r, speed: 0.8 }))]);
  await lookOver(page);
  await expect(page.getByRole("heading", { level: 2 })).toContainText("No run, thin on");
  await expect(page.getByTestId("advice").getByRole("listitem").first()).toContainText(/Row [45] went at 0\.[789]/);
});

test("by keys alone: a part is sprayed, flashed and told", async ({ page }) => {
  test.setTimeout(240_000);
  await page.addInitScript(() => (Math.random = () => 0.5)); // nothing falls on this coat
  await open(page, "/practice/trigger-edges");
  await page.getByRole("button", { name: "Spray coat 1" }).focus();
  await page.keyboard.press("Enter");
  await expect(page.getByRole("application", { name: /The panel on the bench/ })).toBeFocused();
  // The gun waits beside the upper left corner; a row is 0.8 m, two steps down are half a fan.
  for (let row = 0; row < 5; row++) {
    const along = row % 2 === 0 ? "ArrowRight" : "ArrowLeft";
    await page.keyboard.down(" ");
    await page.keyboard.down(along);
    await page.waitForTimeout(2350);
    await page.keyboard.up(along);
    await page.keyboard.up(" ");
    await page.keyboard.press("ArrowDown");
    await page.keyboard.press("ArrowDown");
  }
  await page.keyboard.press("Tab");
  await expect(page.getByRole("button", { name: "The coat is on" })).toBeFocused();
  await page.keyboard.press("Enter");
  await page.getByRole("button", { name: "Let it flash" }).focus();
  await page.keyboard.press("Enter");
  await expect(page.getByText(/A finger on the tape: it (sticks|takes)/)).toBeVisible({ timeout: 60_000 });
  await page.getByRole("button", { name: "Stop the time" }).focus();
  await page.keyboard.press("Enter");
  await page.getByRole("button", { name: "Look it over" }).focus();
  await page.keyboard.press("Enter");
  await expect(page.getByRole("heading", { level: 2 })).toContainText(/run|thin/, { timeout: 60_000 });
  await expect(page.getByTestId("session-figures")).toContainText("µm");
});

test("a fibre falls on the coat: time rests, lifted at once the film closes over it; one that is left is told, and stands out of the hard film", async ({
  page,
}) => {
  test.setTimeout(180_000);
  await page.addInitScript(() => (Math.random = () => 0.6)); // something falls
  const sprayed = async () => {
    await hang(page, "even-rows");
    await sprayRows(page, rowsOver(0.8, 0.6, 2));
    await page.getByRole("button", { name: "The coat is on" }).click();
    await page.getByRole("button", { name: "Let it flash" }).click();
    await expect(page.getByRole("heading", { level: 2 })).toContainText("A fibre has fallen in: out, or left?", { timeout: 30_000 });
    await expect(page.getByTestId("fibre")).toBeVisible();
    await expect(page.getByRole("button", { name: "Let it flash" })).toBeVisible(); // time rests
  };
  const told = page.getByTestId("fibre-told");
  await sprayed();
  await page.getByRole("button", { name: "Lift the fibre out" }).click();
  await expect(page.getByText("Out; the film closes over it.").or(page.getByText(/^Out; a pit of [\d.]+ µm stays\.$/))).toBeVisible();
  await expect(page.getByTestId("fibre")).toHaveCount(0);
  await page.getByRole("button", { name: "Look it over" }).click();
  await expect(told).toContainText(/The fibre in coat 1 was lifted/, { timeout: 60_000 });
  await sprayed();
  await page.getByRole("button", { name: "Let it harden and judge it" }).click();
  await expect(page.getByTestId("nib").first()).toBeVisible({ timeout: 60_000 });
  await sprayed();
  await page.getByRole("button", { name: "Look it over" }).click();
  await expect(told).toContainText(/A fibre was left in coat 1: it stands out [\d.]+ µm, to be sanded off/, { timeout: 60_000 });
});

test("a gun that nobody has tried: its burst says a dirty tip, which is cleaned before it is on the part; needle and air are set by hand", async ({
  page,
}) => {
  test.setTimeout(120_000);
  await page.addInitScript(() => (Math.random = () => 0.5));
  await open(page, "/practice/as-in-the-booth");
  await page.getByRole("button", { name: "The gun" }).click();
  await page.getByRole("button", { name: "A burst on paper" }).click();
  await expect(page.getByRole("img", { name: "Burst: heavy end, the lower one" })).toBeVisible();
  await page.getByRole("button", { name: "Turn the cap half round" }).click();
  await expect(page.getByRole("img", { name: "Cap turned: heavy end, the lower one" })).toBeVisible();
  await page.getByRole("button", { name: "Clean tip and needle" }).click();
  await page.getByRole("button", { name: "A burst on paper" }).click();
  await expect(page.getByRole("img", { name: "Burst: even" })).toBeVisible();
  await page.getByLabel("Needle, ml/min").fill("90");
  await page.getByRole("button", { name: "A burst on paper" }).click();
  await expect(page.getByRole("img", { name: "Burst: split" })).toBeVisible();
  await page.getByLabel("Fan, % of the usual").fill("10");
  await expect(page.getByRole("alert")).toContainText("Between 40 and 130");
  await expect(page.getByRole("button", { name: "Spray coat 1" })).toBeDisabled();
  await page.getByLabel("Fan, % of the usual").fill("100");
  await page.getByRole("button", { name: "Metronome" }).click();
  await page.getByRole("button", { name: "Spray coat 1" }).click();
  await sprayRows(page, rowsOver(1.1, 0.7, 7));
  await page.getByRole("button", { name: "The coat is on" }).click();
  await page.getByRole("button", { name: "Spray coat 2" }).click();
  await sprayRows(page, rowsOver(1.1, 0.7, 2));
  await lookOver(page);
  await expect(page.getByTestId("advice")).toContainText("The needle gave 90 ml/min.");
});

test("what hangs is chosen: part, clear, air and way; its address hangs the same again, and what is no choice asks anew", async ({
  page,
}) => {
  await open(page, "/practice");
  await page.getByRole("link", { name: "Choose what hangs" }).click();
  await page.getByLabel("Part").selectOption("tank");
  await page.getByLabel("Air").selectOption({ label: "12.0 °C" });
  await page.getByLabel("Hardener").selectOption("slow");
  await page.getByLabel("Coats").selectOption("1");
  await page.getByRole("button", { name: "Hang it" }).click();
  await expect(page.getByRole("heading", { level: 1 })).toHaveText("Practice: Your own choice");
  await expect(page.getByText(/^12\.0 °C · .* · upright · simulated · one coat$/)).toBeVisible();
  await expect(page.getByRole("button", { name: "Spray coat 1" })).toBeVisible({ timeout: 30_000 });
  await page.reload();
  await expect(page.getByRole("button", { name: "Spray coat 1" })).toBeVisible({ timeout: 30_000 });
  await open(page, "/practice/free?part=car");
  await expect(page).toHaveURL(/\/practice\/choose$/);
});
