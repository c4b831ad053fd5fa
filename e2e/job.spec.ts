import type { Locator, Page } from "@playwright/test";
import { rowsOver, sprayRows } from "./bench-hand";
import { expect, test } from "./fixture";
import { open, watchConsole } from "./support";

/** The same hidden panel each time. */
const sameChance = (page: Page) => page.addInitScript(() => (Math.random = () => 0.3));
const handOver = async (page: Page) => {
  await page.getByRole("button", { name: "Hand it over" }).click();
  await expect(page.getByTestId("job-slips")).toBeVisible({ timeout: 90_000 });
};
/** Where on the screen a place of the part lies, in metres from its upper left. */
async function placeOn(stage: Locator): Promise<(x_m: number, y_m: number) => { x: number; y: number }> {
  const box = (await stage.boundingBox())!;
  const view = await stage.locator("svg").evaluate((svg) => {
    const { x, y, width, height } = (svg as SVGSVGElement).viewBox.baseVal;
    return { x, y, width, height };
  });
  return (x_m, y_m) => ({
    x: box.x + ((x_m * 1000 - view.x) / view.width) * box.width,
    y: box.y + ((y_m * 1000 - view.y) / view.height) * box.height,
  });
}

test("somebody else's run: overlooked it is said first; found, named, read and taken level it passes and is kept", async ({ page }) => {
  test.setTimeout(240_000);
  const said = watchConsole(page);
  await sameChance(page);
  await open(page, "/practice/run-down");
  await expect(page.getByRole("button", { name: "Hand it over" })).toBeVisible({ timeout: 60_000 });
  await handOver(page);
  const slips = page.getByTestId("job-slips").getByRole("listitem");
  await expect(slips.first()).toContainText("not marked");
  await expect(page.getByTestId("faults-judged")).toContainText("Run: the hand stood or was slow; not marked.");
  // What is true is seen now: where it ran, where dust lies, and how thin it is at the thinnest.
  const rings = await page
    .getByRole("img", { name: /True film before the work/ })
    .locator("g")
    .evaluateAll((all) =>
      all.map((g) => {
        const [x, y] = /translate\(([\d.]+) ([\d.]+)\)/.exec(g.getAttribute("transform")!)!.slice(1).map(Number);
        return { x_m: x! / 1000, y_m: y! / 1000, run: Number(g.querySelector("circle")!.getAttribute("r")) > 20 };
      }),
    );
  const run = rings.find((r) => r.run)!;
  const truth = /^(\d+) µm/.exec((await page.getByTestId("judged-figures").innerText()).trim())![1]!;

  await page.getByRole("button", { name: "Once more" }).click();
  await expect(page.getByRole("button", { name: "Hand it over" })).toBeVisible({ timeout: 60_000 });
  const stage = page.getByTestId("stage");
  const at = await placeOn(stage);
  const tap = async (x_m: number, y_m: number) => {
    const { x, y } = at(x_m, y_m);
    await page.mouse.click(x, y);
  };
  for (const x_m of [0.1, 0.45, 0.8]) for (const y_m of [0.08, 0.3, 0.52]) await tap(x_m, y_m);
  await expect(page.getByText("9 of 12 spots read.")).toBeVisible();
  await page.getByLabel("At the thinnest, µm").fill("x");
  await page.getByRole("button", { name: "Hand it over" }).click();
  await expect(page.getByRole("alert")).toContainText("number");
  await page.getByLabel("At the thinnest, µm").fill(truth);
  await page.getByRole("radio", { name: "Mark" }).check();
  await tap(run.x_m, run.y_m);
  await page.getByLabel("1 Run: it came of").selectOption({ label: "the hand stood or was slow" });
  await page.getByRole("radio", { name: "Dust" }).check();
  for (const nib of rings.filter((r) => !r.run)) await tap(nib.x_m, nib.y_m);
  await page.getByRole("radio", { name: "Sand" }).check();
  // The block is led up and down over the run.
  const high = at(run.x_m, run.y_m - 0.12);
  const low = at(run.x_m, run.y_m + 0.1);
  await page.mouse.move(high.x, high.y);
  await page.mouse.down();
  for (let n = 0; n < 4; n++) {
    await page.mouse.move(low.x, low.y, { steps: 12 });
    await page.mouse.move(high.x, high.y, { steps: 12 });
  }
  await page.mouse.up();
  await expect(page.getByText(/\d+:\d\d at it\./)).toBeVisible();
  await handOver(page);
  await expect(page.getByRole("heading", { level: 2 })).toContainText(`${rings.length} of ${rings.length} fault`);
  // Nothing of the judgement is left to say, whatever is still left of the run.
  await expect(page.getByTestId("job-slips")).not.toContainText(/not marked|wrongly|misjudged|nothing was wrong/);
  await expect(page.getByTestId("faults-judged")).toContainText(/Run: the hand stood or was slow; marked\. \d+ µm high, /);
  const csv = await (await page.request.get("/do/practice.csv")).text();
  const head = csv.split("\n")[0]!.trim().split(",");
  const rows = csv.trim().split("\n").slice(1);
  expect(head.at(-1)).toBe("cost_judgement");
  const costs = rows.filter((r) => r.includes(",run-down,")).map((r) => Number(r.trim().split(",").at(-1)));
  expect(costs).toHaveLength(2);
  expect(costs[1]).toBeLessThan(costs[0]!);
  expect(said).toEqual([]);
});

test("by keys alone a panel is read, marked and sanded; what one sprayed oneself can be judged before the truth is shown", async ({
  page,
}) => {
  test.setTimeout(240_000);
  await sameChance(page);
  await open(page, "/practice/even-rows");
  await page.getByRole("button", { name: "Spray coat 1" }).click();
  const rows = rowsOver(0.8, 0.6, 6);
  rows[2]!.stands = 1;
  await sprayRows(page, rows);
  await page.getByRole("button", { name: "The coat is on" }).click();
  await page.getByRole("button", { name: "Let it harden and judge it" }).click();
  await expect(page.getByRole("button", { name: "Hand it over" })).toBeVisible({ timeout: 60_000 });
  const panel = page.getByRole("application", { name: /The panel, hard/ });
  await panel.focus();
  for (const way of ["ArrowLeft", "ArrowLeft", "ArrowUp", "ArrowUp"]) {
    await page.keyboard.press(way);
    await page.keyboard.press(" ");
  }
  await expect(page.getByText("4 of 12 spots read.")).toBeVisible();
  await page.getByRole("radio", { name: "Read" }).focus();
  await page.keyboard.press("ArrowRight"); // mark
  await panel.focus();
  await page.keyboard.press("Enter");
  await expect(page.getByTestId("marks").getByRole("listitem")).toHaveCount(1);
  await page.getByRole("radio", { name: "Mark" }).focus();
  await page.keyboard.press("ArrowRight"); // sand
  await panel.focus();
  await page.keyboard.press(" ");
  await expect(page.getByText("0:15 at it.")).toBeVisible();
  await page.getByRole("button", { name: "Hand it over" }).focus();
  await page.keyboard.press("Enter");
  await expect(page.getByTestId("job-slips")).toBeVisible({ timeout: 90_000 });
  // Judged first, then told of the hand.
  await expect(page.getByTestId("faults-judged")).toContainText("Run: the hand stood or was slow");
  await expect(page.getByTestId("advice").getByRole("listitem").first()).toContainText("In row 3 the hand stood still");
  await expect(page.getByRole("img", { name: /As the readings say|Film as the readings say it/ })).toBeVisible();
});
