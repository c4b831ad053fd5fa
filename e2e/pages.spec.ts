import { readFileSync, readdirSync } from "node:fs";
import type { Page } from "@playwright/test";
import { expect, test } from "./fixture";
import { firstLoad } from "../scripts/first-load";
import { NOTHING_FOUND, WIDE, axeByDayAndNight, outAndSmallAtSizes } from "./look-over";
import { PAGES, panelPath, readBesideSimulated } from "./page-list";
import { open, watchConsole } from "./support";

test.describe.configure({ mode: "parallel" }); // they only read

const HALVES = 2;
/** So many requests a page makes at most, with its fonts, pictures, the rows that the device keeps and what it fetches when idle; a file that is there already is none. */
const MOST_REQUESTS = 46;
/** With fewer this counts nothing. */
const FEWEST_REQUESTS = 8;
/** What a page has asked for, its document first. The same address asked again, for what others have stored meanwhile, is no further one. */
const askedFor = async (page: Page): Promise<string[]> => [
  "the document",
  ...(await page.evaluate(() => [...new Set(performance.getEntriesByType("resource").map((e) => e.name.split("?")[0]!))])),
];

for (let half = 0; half < HALVES; half++)
  test(`every page, part ${half + 1}: axe finds nothing by day and night, nothing runs out of the side, every control is 44 px, at most 46 requests, the console is silent`, async ({
    page,
  }) => {
    test.setTimeout(900_000); // half of all pages, each looked at whole, in two themes and three sizes
    const said = watchConsole(page);
    for (const [name, path] of PAGES.filter((_, i) => i % HALVES === half)) {
      await page.setViewportSize(WIDE);
      await open(page, await path(page));
      if (name === "Correct") await expect(page.getByTestId("verdict")).not.toHaveAttribute("data-verdict", "waiting", { timeout: 30_000 });
      if (name === "Options") await expect(page.getByTestId("option-sentence")).toBeVisible({ timeout: 30_000 });
      if (name === "Film map")
        await expect(page.getByTestId("map-verdict")).not.toHaveAttribute("data-verdict", "waiting", { timeout: 30_000 });
      const axe = await axeByDayAndNight(page);
      // By now what comes when the browser is idle is there too.
      const asked = await askedFor(page);
      const sizes = await outAndSmallAtSizes(page);
      const tooMany = asked.length > MOST_REQUESTS || asked.length < FEWEST_REQUESTS ? asked : null;
      expect({ name, tooMany, ...axe, ...sizes }).toEqual({ name, tooMany: null, ...NOTHING_FOUND });
    }
    expect(said).toEqual([]);
  });

test.describe("in a shop of its own, which it changes", () => {
  test.use({ ownShop: true });
  test("a panel of which something is said above each of its pages asks for at most 46 too, on the page that asks most", async ({
    page,
  }) => {
    await readBesideSimulated(page);
    await open(page, await panelPath(page, "Lodos", "Front door", "spray/window"));
    await expect(page.getByTestId("doubtful")).toBeVisible();
    await expect(page.getByTestId("flow-sentence")).toBeVisible();
    await page.waitForTimeout(4000); // what it works out, and what comes when it is idle
    const asked = await askedFor(page);
    expect({ tooMany: asked.length > MOST_REQUESTS ? asked : null }).toEqual({ tooMany: null });
    expect(asked.length).toBeGreaterThan(FEWEST_REQUESTS);
  });
});

test("the night theme is the one that was set, from the first byte on", async ({ page }) => {
  await page.request.post("/do/prefs", { data: { theme: "night" } });
  await open(page, "/");
  await expect(page.locator("html")).toHaveAttribute("data-theme", "night");
});

test("keyboard alone: palette, shortcuts, units, theme, stations", async ({ page }) => {
  const said = watchConsole(page);
  await open(page, "/");
  await page.waitForTimeout(600);
  await page.keyboard.press("Control+k");
  await expect(page.getByRole("dialog", { name: "Go to" })).toBeVisible();
  await page.keyboard.type("shortcuts");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("heading", { name: "Keyboard shortcuts" })).toBeVisible();
  await page.keyboard.press("Alt+t");
  await expect(page.locator("html")).toHaveAttribute("data-theme", "night");
  await page.keyboard.press("Alt+u");
  await expect(page.getByRole("radio", { name: "mil °F psi" })).toBeChecked();
  await page.reload();
  await expect(page.getByRole("radio", { name: "mil °F psi" })).toBeChecked();
  await page.keyboard.press("Alt+u");
  await open(page, await panelPath(page, "Meltem", "Boot lid", "plan"));
  await page.waitForTimeout(600);
  await page.keyboard.press("Alt+4");
  await expect(page).toHaveURL(/correct$/);
  await page.keyboard.press("Alt+0");
  await expect(page).toHaveURL(/\/$/);
  await page.keyboard.press("Tab");
  await expect(page.getByRole("link", { name: "Skip to the page" })).toBeFocused();
  expect(said).toEqual([]);
});

test("a page that is not there says so; health, headers and a nonce in the policy", async ({ page, request }) => {
  const answer = await page.goto("/jobs/none/panels/none/plan");
  expect(answer?.status()).toBe(404);
  await expect(page.getByRole("heading", { name: "This page is not here" })).toBeVisible();
  expect(await (await request.get("/healthz")).text()).toBe("ok");
  const home = await request.get("/");
  expect(home.headers()["content-security-policy"]).toMatch(/script-src 'self' 'nonce-[^']+' 'strict-dynamic'/);
  expect(home.headers()["x-content-type-options"]).toBe("nosniff");
  expect(home.headers()["x-powered-by"]).toBeUndefined();
});

test("the first load brings at most 180 kB of script (gzipped) on every page, and nothing from another host", async ({ page, request }) => {
  await open(page, "/");
  const urls = await page.evaluate(() => performance.getEntriesByType("resource").map((e) => e.name));
  expect(new Set(urls.map((u) => new URL(u).host))).toEqual(new Set([new URL(page.url()).host]));
  const loads: [name: string, kB: number][] = [];
  for (const [name, path] of PAGES) loads.push([name, firstLoad(await (await request.get(await path(page))).text()).kB]);
  expect(Math.min(...loads.map(([, kB]) => kB))).toBeGreaterThan(100);
  expect(loads.filter(([, kB]) => kB > 180)).toEqual([]);
  // What checks forms and files is the server's: no page carries the library of schemas, but for the program that stands in for the server.
  const files = readdirSync("build/client/assets").filter((f) => f.endsWith(".js") && !/^device-[\w-]{10}\.js$/.test(f));
  expect(files.length).toBeGreaterThan(50);
  for (const file of files) expect(readFileSync(`build/client/assets/${file}`, "utf8")).not.toContain("ZodError");
});

test("theme and units hold per screen; every figure opens its working", async ({ page }) => {
  await open(page, await panelPath(page, "Lodos", "Front door", "spray"));
  await page.getByRole("button", { name: /wet, coat 1: .* Show the working/ }).click();
  await expect(page.getByText("What would change it most")).toBeVisible();
  await expect(page.getByText("Spray deposition model of this program", { exact: false })).toBeVisible();
});
