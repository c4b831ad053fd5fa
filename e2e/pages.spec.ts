import { readFileSync, readdirSync } from "node:fs";
import { gzipSync } from "node:zlib";
import AxeBuilder from "@axe-core/playwright";
import { expect, test } from "./fixture";
import { PAGES, panelPath } from "./page-list";
import { open, watchConsole } from "./support";

test.describe.configure({ mode: "parallel" }); // they only read

/** The two themes differ in their colours alone. */
const RULES = { booth: ["wcag2a", "wcag2aa", "wcag21a", "wcag21aa", "wcag22aa"], night: "color-contrast" };

for (const theme of ["booth", "night"] as const)
  test(`axe finds nothing and the console is silent on every page, ${theme}`, async ({ page }) => {
    test.setTimeout(600_000); // forty pages, each looked at whole
    const said = watchConsole(page);
    await page.request.post("/do/prefs", { data: { theme } });
    await open(page, "/");
    await expect(page.locator("html")).toHaveAttribute("data-theme", theme);
    for (const [name, path] of PAGES) {
      await open(page, await path(page));
      if (name === "Correct") await expect(page.getByTestId("verdict")).not.toHaveAttribute("data-verdict", "waiting", { timeout: 30_000 });
      if (name === "Options") await expect(page.getByTestId("option-sentence")).toBeVisible({ timeout: 30_000 });
      if (name === "Film map")
        await expect(page.getByTestId("map-verdict")).not.toHaveAttribute("data-verdict", "waiting", { timeout: 30_000 });
      const axe = new AxeBuilder({ page });
      const { violations } = await (theme === "booth" ? axe.withTags(RULES.booth) : axe.withRules(RULES.night)).analyze();
      expect({ name, violations: violations.map((v) => `${v.id}: ${v.nodes[0]?.html}`) }).toEqual({ name, violations: [] });
    }
    expect(said).toEqual([]);
  });

for (const [width, height] of [
  [1280, 800],
  [820, 1180],
  [390, 844],
] as const)
  test(`no page runs out of the side and every control is at least 44 px at ${width} × ${height}`, async ({ page }) => {
    test.setTimeout(180_000);
    await page.setViewportSize({ width, height });
    for (const [name, path] of PAGES) {
      await open(page, await path(page));
      const found = await page.evaluate(() => {
        const small = [...document.querySelectorAll<HTMLElement>(".press, .field, .choice, nav a, nav button")].flatMap((e) => {
          const { width: w, height: h } = e.getBoundingClientRect();
          const clipped = e.classList.contains("sr-only");
          return w > 0 && !clipped && (h < 43.5 || w < 43.5)
            ? [`${e.textContent?.trim().slice(0, 30)} ${w.toFixed(0)}×${h.toFixed(0)}`]
            : [];
        });
        const page = document.getElementById("page")!;
        return { over: Math.max(0, document.documentElement.scrollWidth - innerWidth, page.scrollWidth - page.clientWidth), small };
      });
      expect({ name, ...found }).toEqual({ name, over: 0, small: [] });
    }
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

test("the first load sends at most 160 kB of script (gzipped) and nothing from another host", async ({ page, request }) => {
  await open(page, "/");
  const urls = await page.evaluate(() => performance.getEntriesByType("resource").map((e) => e.name));
  expect(new Set(urls.map((u) => new URL(u).host))).toEqual(new Set([new URL(page.url()).host]));
  const scripts = [...new Set(urls.filter((u) => new URL(u).pathname.endsWith(".js")))];
  const sizes = await Promise.all(scripts.map(async (u) => gzipSync(await (await request.get(u)).body()).length));
  const bytes = sizes.reduce((a, b) => a + b, 0);
  expect(bytes).toBeGreaterThan(100_000);
  expect(bytes).toBeLessThan(160_000);
  // What checks forms and files is the server's: no page carries the library of schemas.
  const files = readdirSync("build/client/assets").filter((f) => f.endsWith(".js"));
  expect(files.length).toBeGreaterThan(50);
  for (const file of files) expect(readFileSync(`build/client/assets/${file}`, "utf8")).not.toContain("ZodError");
});

test("theme and units hold per screen; every figure opens its working", async ({ page }) => {
  await open(page, await panelPath(page, "Lodos", "Front door", "spray"));
  await page.getByRole("button", { name: /wet, coat 1: .* Show the working/ }).click();
  await expect(page.getByText("What would change it most")).toBeVisible();
  await expect(page.getByText("Spray deposition model of this program", { exact: false })).toBeVisible();
});
