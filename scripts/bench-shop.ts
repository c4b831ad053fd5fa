import type { Browser, Page } from "@playwright/test";
import { panelPath } from "../e2e/page-list";
import { inBrowser, report } from "./bench-kit";
import { demoFolder } from "./trial/demo-folder";
import { ownFolder } from "./trial/harness";
import { storm } from "./trial/storm";

/** What a shop of twelve devices may cost: a post, how long another window is behind, and a page that is open and rests. */
const BUDGET = { post_ms: 100, behind_ms: 1000, page_share: 0.03 } as const;
const DEVICES = 12;
/** Every device enters something each other second: more than hands can. */
const A_SECOND = DEVICES / 2;
const SECONDS = 20;
const RESTS_MS = 15_000;
const SETTLED_MS = 4000;

/** Seconds of processor that all of a browser's processes have used. */
async function browser_s(browser: Browser): Promise<number> {
  const session = await browser.newBrowserCDPSession();
  const { processInfo } = await session.send("SystemInfo.getProcessInfo");
  await session.detach();
  return processInfo.reduce((sum, p) => sum + p.cpuTime, 0);
}

/** A page that is open while nobody enters anything: what it takes of a core, its clocks going on. */
async function restingPages(folder: string): Promise<Record<string, number>> {
  const shares: Record<string, number> = {};
  for (const [name, path] of [
    ["Floor", () => "/"],
    ["booth page", async (page: Page) => (await panelPath(page, "Lodos", "Front door", "x")).replace(/panels\/.*$/, "booth")],
  ] as const)
    await inBrowser(ownFolder(folder), async (page) => {
      const browser = page.context().browser()!;
      await page.goto(await path(page));
      await page.locator("html[data-live]").waitFor({ state: "attached" });
      await page.waitForTimeout(SETTLED_MS);
      const before_s = await browser_s(browser);
      await page.waitForTimeout(RESTS_MS);
      shares[name] = ((await browser_s(browser)) - before_s) / (RESTS_MS / 1000);
    });
  return shares;
}

/** Twelve devices that follow the shop's rows, each entering something; then a page at rest. @returns what is above its budget */
export async function benchShop(): Promise<string[]> {
  const { folder, ids } = demoFolder();
  const above: string[] = [];
  const { posts, p50_ms, p95_ms, stale_ms, share } = await storm(folder, ids, {
    perSecond: A_SECOND,
    seconds: SECONDS,
    windows: DEVICES,
    drawn: 0,
  });
  console.log(
    `${DEVICES} devices, ${posts} posts: median ${p50_ms.toFixed(1)} ms, p95 ${p95_ms.toFixed(1)}; the server took ${(100 * share).toFixed(0)} % of a core`,
  );
  report("longest that a window was behind", stale_ms);
  if (p95_ms > BUDGET.post_ms) above.push(`a post took ${p95_ms.toFixed(0)} ms (p95)`);
  if (Math.max(...stale_ms) > BUDGET.behind_ms) above.push(`a window was ${Math.max(...stale_ms)} ms behind`);
  for (const [name, of] of Object.entries(await restingPages(folder))) {
    console.log(`${name} at rest, all of its browser: ${(100 * of).toFixed(2)} % of a core`);
    if (of > BUDGET.page_share) above.push(`${name} takes ${(100 * of).toFixed(1)} % of a core`);
  }
  return above;
}
