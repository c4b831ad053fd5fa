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
const RESTS = 5;
const RESTS_MS = 10_000;
const SETTLED_MS = 10_000;
/** Before anything is counted the server has been at work for so long, as a shop's has been since the morning. */
const WARM_S = 5;

/** Seconds of processor that all of a browser's processes have used. */
async function browser_s(browser: Browser): Promise<number> {
  const session = await browser.newBrowserCDPSession();
  const { processInfo } = await session.send("SystemInfo.getProcessInfo");
  await session.detach();
  return processInfo.reduce((sum, p) => sum + p.cpuTime, 0);
}

/** Shares of a core that a browser takes while nobody does anything. */
async function resting(page: Page): Promise<number[]> {
  const browser = page.context().browser()!;
  const rests: number[] = [];
  for (let i = 0; i < RESTS; i++) {
    const before_s = await browser_s(browser);
    await page.waitForTimeout(RESTS_MS);
    rests.push((100 * ((await browser_s(browser)) - before_s)) / (RESTS_MS / 1000));
  }
  return rests;
}

/** A page that is open while nobody enters anything: what it takes of a core, its clocks going on, beyond what the same browser takes for a blank one. */
async function restingPages(folder: string): Promise<Record<string, number>> {
  const shares: Record<string, number> = {};
  await inBrowser(ownFolder(folder), async (page) => {
    const booth = (await panelPath(page, "Lodos", "Front door", "x")).replace(/panels\/.*$/, "booth");
    // The program is taken into the device's own store once; what comes after that is the page at rest.
    await page.evaluate(async () => void (await navigator.serviceWorker.ready));
    await page.goto("about:blank");
    await page.waitForTimeout(SETTLED_MS);
    const blank = report("blank page at rest, all of its browser", await resting(page), "% of a core");
    for (const [name, path] of [
      ["Floor", "/"],
      ["booth page", booth],
    ] as const) {
      await page.goto(path);
      await page.locator("html[data-live]").waitFor({ state: "attached" });
      await page.waitForTimeout(SETTLED_MS);
      shares[name] = (report(`${name} at rest, all of its browser`, await resting(page), "% of a core") - blank) / 100;
    }
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
    warm_s: WARM_S,
  });
  console.log(
    `${DEVICES} devices, ${posts} posts: median ${p50_ms.toFixed(1)} ms, p95 ${p95_ms.toFixed(1)}; the server took ${(100 * share).toFixed(0)} % of a core`,
  );
  report("longest that a window was behind", stale_ms);
  if (p95_ms > BUDGET.post_ms) above.push(`a post took ${p95_ms.toFixed(0)} ms (p95)`);
  if (Math.max(...stale_ms) > BUDGET.behind_ms) above.push(`a window was ${Math.max(...stale_ms)} ms behind`);
  for (const [name, of] of Object.entries(await restingPages(folder))) {
    if (of > BUDGET.page_share) above.push(`${name} takes ${(100 * of).toFixed(1)} % of a core`);
  }
  return above;
}
