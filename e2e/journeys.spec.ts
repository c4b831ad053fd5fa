import { type Page, expect, test } from "@playwright/test";
import { gridInside } from "#core/kernel/geometry/geometry";
import { createContext } from "#server/context";
import { databaseFile, openDatabase } from "#server/db/open";
import { hiddenPanel } from "#server/devices/take-readings";
import { trueFilm } from "#stand-ins/film-gauge";
import { open, ownServer, settled } from "./support";

const MIN_MS = 60_000;
const HOUR_MS = 60 * MIN_MS;
type Server = Awaited<ReturnType<typeof ownServer>>;

/** A shop with the demo's shelf and cards, whose clock this test moves. */
async function demoShop(browser: { newPage: (o: { baseURL: string }) => Promise<Page> }) {
  const server = await ownServer(process.env.E2E_DEMO);
  await server.start();
  return { server, page: await browser.newPage({ baseURL: server.url }) };
}
const now = (page: Page) => page.getByTestId("course-now");

/** Logs the next coat of a panel as it is offered. */
async function logCoat(page: Page, base: string): Promise<void> {
  await open(page, `${base}/spray`);
  await page.getByRole("button", { name: /^Log coat/ }).click();
  await expect(page.getByText(/^Coat \d+ logged/).first()).toBeVisible();
}

test("tank and two side covers in matte: both sides, hung, one pot, from the cards to the gloss that came of it", async ({ browser }) => {
  test.setTimeout(300_000);
  const { server, page } = await demoShop(browser);
  await open(page, "/jobs/new");
  await page.getByLabel("Vehicle or part").fill("Kite 250");
  await page.getByRole("radio", { name: "Matte, two closed" }).click();
  await page.getByLabel("Gloss wanted at 60°").fill("12");
  await page.getByLabel("Shape").selectOption("tank");
  await page.getByLabel("How it hangs").selectOption("vertical");
  await page.getByLabel("Faces", { exact: true }).selectOption("2");
  await expect(page.getByLabel("Clear from the shelf")).toContainText("Matte M");
  await page.getByRole("button", { name: "Start this job" }).click();
  await expect(page).toHaveURL(/\/course$/);
  const panels = [page.url().replace(/\/course$/, "")];
  const job = panels[0]!.replace(/\/panels\/.*$/, "");
  for (const name of ["Left cover", "Right cover"]) {
    await open(page, `${job}/add-panel`);
    await page.getByLabel("Shape").selectOption("mirrorCap");
    await page.getByLabel("Call it").fill(name);
    await page.getByLabel("How it hangs").selectOption("vertical");
    await page.getByLabel("Faces", { exact: true }).selectOption("2");
    await page.getByRole("button", { name: "Add this panel" }).click();
    await expect(page).toHaveURL(/\/course$/);
    panels.push(page.url().replace(/\/course$/, ""));
  }
  const [tank] = panels as [string, string, string];

  // Which mix gives 12 GU: from the cards, with the gloss to expect on all six faces.
  await open(page, `${tank}/plan/gloss`);
  await expect(page.getByTestId("matte-sentence")).toContainText(/matting component gives 12 GU/);
  await expect(page.getByTestId("matte-faces").getByRole("listitem")).toHaveCount(6);
  await page.getByRole("button", { name: /^Take .* for this job$/ }).click();
  await expect(page.getByText(/taken: it stands in the mix/)).toBeVisible();

  // One pot for all six faces, weighed with its own hardener and the gloss clear that the cards had.
  await open(page, `${tank}/plan/mix`);
  for (const name of ["Left cover", "Right cover"]) {
    const row = page.getByRole("listitem").filter({ hasText: name });
    await row.getByRole("checkbox").first().check();
    await row.getByLabel("both sides").check();
  }
  await expect(page.getByLabel("Matting component, % by weight")).toHaveValue(/^8\d/);
  const parts = page.getByTestId("mix-parts");
  for (const part of ["Matte M", "Clear 21", "Hardener M matte", "Reducer R medium"]) await expect(parts).toContainText(part);
  await expect(parts).not.toContainText("Hardener H");
  await page.getByRole("button", { name: "Keep it and start the pot clock" }).click();
  await expect(page.getByText("Mix kept; its pot clock runs")).toBeVisible();

  // Back, turned, front; two coats each, the flash between.
  for (const n of [1, 2]) {
    for (const base of panels) await logCoat(page, base);
    await server.advance(n === 1 ? 17 * MIN_MS : 61 * MIN_MS);
  }
  for (const base of panels) {
    await open(page, `${base}/course`);
    // Its sheet has no tape time, and matte keeps every touch: by its face not before it is hard; hung by its hooks it is turned all the same.
    await expect(now(page)).toContainText("Let it set before touching until");
    await page.getByRole("button", { name: "Front up, hung" }).click();
    await expect(now(page)).toHaveText("Coat 1 of 2, front now.");
  }
  for (const n of [1, 2]) {
    for (const base of panels) await logCoat(page, base);
    if (n === 1) await server.advance(17 * MIN_MS);
  }
  await open(page, `${job}/pots`);
  await expect(page.getByTestId("pot")).toHaveCount(1);
  await expect(page.getByTestId("pot")).toContainText("Right cover, front, coat 2");
  await expect(page.getByTestId("pot").getByText(/, coat [12]/)).toHaveCount(12);

  // Final flash before any heat; then it is touched, never worked.
  await open(page, `${tank}/course`);
  await expect(now(page)).toContainText("Final flash, before any heat until");
  for (const path of ["course", "spray/cure", "plan"]) {
    await open(page, `${tank}/${path}`);
    await expect(page.locator("main")).not.toContainText(/\b(sand|polish)(ed|ing)?\b/i);
  }
  await server.advance(25 * HOUR_MS);
  await open(page, `${tank}/plan/gloss`);
  await page.getByLabel("Of", { exact: true }).selectOption("part");
  await page.getByLabel("Readings, GU, spaces between").fill("12.4 11.9 12.6");
  await page.getByRole("button", { name: "Store readings" }).click();
  await expect(page.getByRole("region", { name: "Gloss read" })).toContainText("12.4");
  await page.close();
  await server.stop("SIGTERM");
});

/** The true clear of a panel, mean over it, and what Inspect says of it. */
async function truthAndSaid(page: Page, server: Server, base: string) {
  const panelId = base.split("/").at(-1)!;
  const db = openDatabase(databaseFile(server.folder));
  const hidden = await hiddenPanel(createContext(db), panelId, "after");
  await db.destroy();
  const cells = gridInside(hidden.outline);
  const true_um = (1e6 * cells.reduce((a, c) => a + trueFilm(hidden, c.point).clear_m, 0)) / cells.length;
  await open(page, `${base}/inspect`);
  const said = await page.getByRole("button", { name: /clear, mean of the panel: / }).getAttribute("aria-label");
  const [, mean, doubt] = /: ([\d.]+) ± ([\d.]+)/.exec(said!)!;
  return { true_um, mean: Number(mean), doubt: Number(doubt) };
}

/** Reads every spot with the stand-in gauge. */
async function readAll(page: Page, path: string, phase: "before" | "after" | "recheck"): Promise<void> {
  await open(page, path);
  if (phase !== "before")
    await page.getByRole("radio", { name: phase === "after" ? "After clear" : "After sanding" }).check({ force: true });
  await page.getByRole("button", { name: "All spots" }).click();
  await page.getByRole("button", { name: "Fill them, simulated" }).click();
  await expect(page.getByTestId("spots-read")).toHaveText(/^(\d+) of \1/, { timeout: 20_000 });
}

test("bonnet: three coats, overnight, flatted, two slow coats, polished; the film is right at every stage", async ({ browser }) => {
  test.setTimeout(300_000);
  const { server, page } = await demoShop(browser);
  await open(page, "/jobs/new");
  await page.getByLabel("Vehicle or part").fill("Poyraz bonnet");
  await page.getByRole("radio", { name: "Three and flat" }).click();
  await page.getByRole("button", { name: "Start this job" }).click();
  await expect(page).toHaveURL(/\/course$/);
  const base = page.url().replace(/\/course$/, "");
  await readAll(page, `${base}/spray`, "before");
  for (let n = 1; n <= 3; n++) {
    await logCoat(page, base);
    await server.advance(n < 3 ? 12 * MIN_MS : 25 * HOUR_MS);
  }
  const right = async (stage: string) => {
    const { true_um, mean, doubt } = await truthAndSaid(page, server, base);
    expect.soft(Math.abs(mean - true_um), `${stage}: ${mean} ± ${doubt} said, ${true_um.toFixed(1)} true`).toBeLessThanOrEqual(doubt + 1);
    return mean;
  };
  await readAll(page, `${base}/inspect`, "after");
  const first = await right("three coats");

  // Flat and re-clear, from its own page into the course.
  await open(page, `${base}/correct/flow`);
  await expect(page.getByTestId("flow-sentence")).toHaveAttribute("data-verdict", "safe", { timeout: 30_000 });
  await expect(page.getByTestId("flow-or-polish")).toContainText("Level and polish");
  await page.getByRole("button", { name: "Plan it: flat and re-clear" }).click();
  await expect(now(page)).toHaveText("Sand flat, P800, and clean now.");
  await page.getByRole("button", { name: "Sanded flat and clean" }).click();
  await expect(now(page)).toHaveText("Coat 4 of 5 now.");
  await readAll(page, `${base}/inspect`, "recheck");
  const flat = await right("sanded flat");
  expect(flat).toBeLessThan(first);
  for (const n of [4, 5]) {
    await logCoat(page, base);
    await server.advance(n === 4 ? 15 * MIN_MS : 25 * HOUR_MS);
  }
  await readAll(page, `${base}/inspect`, "after");
  expect(await right("two slow coats more")).toBeGreaterThan(first);

  // Polished only, as a flatted build needs no levelling.
  await open(page, `${base}/correct?school=polish`);
  const use = page.getByRole("button", { name: "Use this plan", exact: true });
  await expect(use).toBeEnabled({ timeout: 30_000 });
  await use.click();
  const done = page.getByRole("button", { name: /^Done/ });
  for (let left = 2; left > 0; left--) {
    await expect(done.first()).toBeVisible({ timeout: 20_000 });
    await done.first().click();
    await settled(page);
  }
  await readAll(page, `${base}/inspect`, "recheck");
  await right("polished");
  await page.close();
  await server.stop("SIGTERM");
});

test("plastic mirror caps: judged by forecast alone, and said so; litres by strokes, five times what the area says", async ({
  browser,
}) => {
  test.setTimeout(180_000);
  const { server, page } = await demoShop(browser);
  await open(page, "/jobs/new");
  await page.getByLabel("Vehicle or part").fill("Lodos caps");
  await page.getByRole("radio", { name: "Three and flat" }).click();
  await page.getByLabel("Shape").selectOption("mirrorCap");
  await page.getByLabel("What lies below").selectOption("plastic");
  await page.getByRole("button", { name: "Start this job" }).click();
  await expect(page).toHaveURL(/\/course$/);
  const base = page.url().replace(/\/course$/, "");
  await open(page, `${base.replace(/\/panels\/.*$/, "")}/add-panel`);
  await page.getByLabel("Shape").selectOption("mirrorCap");
  await page.getByLabel("Call it").fill("Right cap");
  await page.getByLabel("What lies below").selectOption("plastic");
  await page.getByRole("button", { name: "Add this panel" }).click();
  // Nothing is asked for that cannot be read.
  await open(page, `${base}/course`);
  await expect(now(page)).toHaveText("Coat 1 of 3 now.");
  await open(page, `${base}/plan`);
  const litres = await page.getByText(/by strokes over .* by area alone/).innerText();
  const strokes = Number(
    (await page.getByRole("button", { name: /of clear to mix, ready to spray: / }).getAttribute("aria-label"))!.match(/: ([\d.]+)/)![1],
  );
  const area = Number(/by area alone ([\d.]+)/.exec(litres)![1]);
  expect(strokes / area).toBeGreaterThan(3);
  for (let n = 1; n <= 3; n++) {
    await logCoat(page, base);
    await server.advance(n < 3 ? 12 * MIN_MS : 25 * HOUR_MS);
  }
  await open(page, `${base}/inspect`);
  await expect(page.getByText("By forecast alone, not measured", { exact: true })).toBeVisible();
  await expect(page.getByTestId("strip-desk")).toBeVisible();
  await open(page, `${base}/inspect/map`);
  await expect(page.getByTestId("map-verdict")).toHaveAttribute("data-verdict", /safe|caution|stop/, { timeout: 30_000 });
  await open(page, `${base}/correct/options`);
  await expect(page.getByTestId("option-sentence")).toBeVisible({ timeout: 30_000 });
  await expect(page.getByText("By forecast alone, not measured", { exact: true })).toBeVisible();
  await open(page, `${base}/correct?school=polish`);
  await expect(page.getByTestId("verdict")).toHaveAttribute("data-verdict", /safe|caution|stop/, { timeout: 30_000 });
  // A strip sprayed beside it tells more.
  await open(page, `${base}/inspect`);
  for (const [when, value] of [
    ["before", "22 23 22"],
    ["after", "98 99 97"],
  ] as const) {
    await page.getByLabel(`Strip ${when} clear`).fill(value);
    await page.getByRole("button", { name: `Store the strip ${when} clear` }).click();
    await expect(page.getByRole("list", { name: "Strip as read" })).toContainText(
      `Strip ${when} clear: ${value.replaceAll(" ", " µm, ")} µm`,
    );
  }
  await expect(page.getByText("By a strip beside it", { exact: true })).toBeVisible();
  await page.close();
  await server.stop("SIGTERM");
});
