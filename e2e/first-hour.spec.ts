import { existsSync } from "node:fs";
import { join } from "node:path";
import { type Browser, type Page, expect, test } from "@playwright/test";
import { open, ownServer, settled } from "./support";

const HOUR_MS = 3_600_000;
/** So many presses from an empty shop to a part that is handed over, the wrong ones among them. */
const MOST = 60;

/** A shop of the test's own in which nothing is. */
async function emptyShop(browser: Browser) {
  const server = await ownServer();
  await server.start();
  return { server, page: await browser.newPage({ baseURL: server.url }) };
}

/** What the page offers next, by what anybody sees of it: its main press, else what its open step is sent with, else its first press. */
function nextPress(page: Page) {
  const main = page.locator("main");
  const live = ":not([disabled]):visible";
  const step = main.locator("[data-testid=first-hour] li[data-done=false], [data-step-here]").first();
  return [
    step.locator(`[data-kind=main]${live}`),
    main.locator(`[data-kind=main]${live}`),
    step.locator(`button:not([type=button])${live}, a.press${live}`),
    main.locator(`.press${live}:not(nav *)`),
  ];
}

/** Puts right what a form refused, by its labels and messages alone. @returns whether something was refused */
async function putRight(page: Page): Promise<boolean> {
  const refused = page.locator("main [aria-invalid=true]:visible");
  const n = await refused.count();
  for (let i = 0; i < n; i++) {
    const said = (await refused.nth(i).locator("xpath=following-sibling::p[@role='alert']").textContent()) ?? "";
    const range = /Between ([\d.]+) .*and ([\d.]+)/.exec(said);
    await refused.nth(i).fill(range ? String((Number(range[1]) + Number(range[2])) / 2) : "First of all");
  }
  return n > 0;
}

test("an empty shop never leaves anybody without a next step: a script that knows only the page gets to a part handed over", async ({
  browser,
}) => {
  test.setTimeout(300_000);
  const { server, page } = await emptyShop(browser);
  page.setDefaultTimeout(15_000);
  const way: string[] = [];
  await open(page, "/");
  const told = () =>
    page
      .getByTestId("course-now")
      .textContent({ timeout: 200 })
      .catch(() => "");
  for (let i = 0; i < MOST; i++) {
    const now = (await told()) ?? "";
    if (now.startsWith("Handed over")) break;
    // Where the page says to wait, time goes by.
    if (/ until | not yet|^Cur|^Flash/.test(now) && (await nextPress(page)[0]!.count()) === 0) {
      await server.advance((/flash/i.test(now) ? 0.4 : 24) * HOUR_MS);
      await open(page, page.url());
      way.push(`waited: ${now}`);
      continue;
    }
    const reading = page.locator("input[id^=reading-]:visible");
    if ((await reading.count()) > 0 && (await page.getByRole("button", { name: /go on$/ }).count()) === 0) {
      const film = (await reading.getAttribute("id")) === "reading-before" ? 90 : 145;
      for (const off of [0, 2, -1, 1]) {
        await reading.fill([film + off, film, film + off].join(" "));
        await reading.press("Enter");
        await settled(page);
      }
      way.push("readings typed");
      if ((await page.getByRole("button", { name: /go on$/ }).count()) > 0) await page.getByRole("button", { name: /go on$/ }).click();
      continue;
    }
    const offered = await Promise.all(nextPress(page).map((l) => l.count()));
    const which = offered.findIndex((n) => n > 0);
    expect({ at: page.url(), offers: which >= 0, way }).toMatchObject({ offers: true });
    const press = nextPress(page)[which]!.first();
    way.push(`${new URL(page.url()).pathname.split("/").slice(-1)[0] ?? ""}: ${(await press.innerText()).replace(/\s+/g, " ")}`);
    await press.click();
    await page.waitForLoadState();
    await settled(page);
    if (await putRight(page)) way.push("put right");
  }
  expect(await told()).toBe("Handed over. Nothing is left to do.");
  await page.close();
  await server.stop("SIGKILL");
});

test("every page of an empty shop says what it is for and has a press that leads on", async ({ browser }) => {
  test.setTimeout(120_000);
  const { server, page } = await emptyShop(browser);
  const wrong: string[] = [];
  const ASKS = ["sand", "run", "mix", "matte"].map((a) => `/ask/${a}`);
  const NEW = ["/jobs/new", "/shelf/new", "/shelf/parts/new", "/shelf/cans/new", "/cards/new/edit"];
  for (const path of ["/", "/jobs", "/shelf", "/cards", "/house", "/house/ways", "/booth-plan", "/keys", ...ASKS, ...NEW]) {
    await open(page, path);
    const presses = page.locator("main :is(.press, a[href]):not([disabled]):not(nav *):visible");
    const said = (await page.locator("main").innerText()).split("\n").filter((line) => line.trim().split(/\s+/).length >= 5);
    const note = await page.locator("#page header p").allInnerTexts();
    if (path !== "/keys") {
      const there = await expect
        .poll(() => presses.count())
        .toBeGreaterThan(0)
        .then(
          () => true,
          () => false,
        ); // some come with their models
      if (!there) wrong.push(`${path}: no press`);
    }
    if (said.length + note.length === 0) wrong.push(`${path}: says nothing`);
  }
  expect(wrong).toEqual([]);
  await page.close();
  await server.stop("SIGKILL");
});

test("an empty shop looks at the invented one, tries it, and throws it away; the shop itself never knew", async ({ browser }) => {
  test.setTimeout(120_000);
  const { server, page } = await emptyShop(browser);
  const title = page.getByRole("heading", { level: 1 });
  const name = async () => {
    await open(page, "/");
    return title.textContent();
  };
  await open(page, "/");
  await page.getByLabel("Name of the shop").fill("Harbour Five");
  await page.getByRole("button", { name: "Keep it" }).click();
  await expect(title).toHaveText("Harbour Five");
  await page.getByRole("button", { name: "Look at a demo shop first" }).click();
  await expect(title).toHaveText("Quay Nine Refinish", { timeout: 60_000 });
  await expect(page.getByText("An invented shop, to look at and try; your own is untouched.")).toBeVisible();
  await open(page, "/shelf");
  await expect(page.getByRole("link", { name: /^Clear 21/ })).toBeVisible();
  // Another screen is in the shop all the while; a restart does not lose where this one was.
  const other = await browser.newPage({ baseURL: server.url });
  await open(other, "/shelf");
  await expect(other.getByRole("link", { name: /^Clear 21/ })).toHaveCount(0);
  await other.close();
  await server.stop("SIGTERM");
  await server.start();
  expect(await name()).toBe("Quay Nine Refinish");
  await page.getByRole("button", { name: "Throw it away" }).click();
  await expect(title).toHaveText("Harbour Five");
  await expect(page.locator('body > div[hidden][id^="S:"]')).toHaveCount(0); // until then what followed the document is there twice
  await expect(page.getByTestId("first-hour")).toBeVisible();
  expect(existsSync(join(server.folder, "demo-shop"))).toBe(false);
  await page.close();
  await server.stop("SIGTERM");
});
