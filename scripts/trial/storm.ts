import { type Page, chromium } from "@playwright/test";
import { TrialServer, at, median, ownFolder } from "./harness";

export interface StormReport {
  posts: number;
  p50_ms: number;
  p95_ms: number;
  /** Longest time that a window showed less than had been acknowledged, by window. */
  stale_ms: number[];
}

/** Windows on the Floor and on the panel that is written to, while readings come in at a rate: how old is what each of them shows? */
export async function storm(
  demo: string,
  ids: Record<string, string>,
  { perSecond = 20, seconds = 15, windows = 4 } = {},
): Promise<StormReport> {
  const server = new TrialServer(ownFolder(demo));
  if (!(await server.start())) throw new Error(server.said);
  const browser = await chromium.launch({
    executablePath: process.env.CHROMIUM_PATH ?? "/usr/bin/chromium",
    args: ["--no-sandbox", "--disable-gpu", "--disable-dev-shm-usage", "--disable-background-networking"],
  });
  const stale_ms = Array.from({ length: windows }, () => 0);
  const times: number[] = [];
  try {
    const base = `http://localhost:${server.port}`;
    const pages: Page[] = [];
    for (let i = 0; i < windows; i++) {
      const page = await (await browser.newContext()).newPage();
      await page.goto(i % 2 === 0 ? base : `${base}/jobs/${ids.jobId}/panels/${ids.panelId}/inspect`);
      await page.locator("html[data-live]").waitFor({ state: "attached" });
      // Every answer of a look tells when it was made.
      await page.evaluate(() => {
        const seen = { last: Date.now(), longest: 0 };
        Object.assign(globalThis, { stormSeen: seen });
        new PerformanceObserver((list) => {
          for (const entry of list.getEntries())
            if (entry.name.includes(".data")) {
              const now = Date.now();
              seen.longest = Math.max(seen.longest, now - seen.last);
              seen.last = now;
            }
        }).observe({ entryTypes: ["resource"] });
      });
      pages.push(page);
    }
    await Promise.all(
      pages.map((p) =>
        p.evaluate(() => Object.assign((globalThis as unknown as { stormSeen: object }).stormSeen, { last: Date.now(), longest: 0 })),
      ),
    );
    const total = perSecond * seconds;
    const begun = performance.now();
    const sending: Promise<void>[] = [];
    for (let i = 0; i < total; i++) {
      const wait = begun + (i * 1000) / perSecond - performance.now();
      if (wait > 0) await new Promise((done) => setTimeout(done, wait));
      sending.push(
        server
          .post(`/do/panels/${ids.panelId}/readings`, {
            clientKey: `storm-${i}`,
            phase: "after",
            spot: String((i % 8) + 1),
            x_m: "0.5",
            y_m: "0.4",
            value: "131",
          })
          .then((a) => {
            if (a.status !== 200) throw new Error(`a reading of the storm was answered ${a.status}`);
            times.push(a.ms);
          }),
      );
    }
    await Promise.all(sending);
    for (const [i, p] of pages.entries())
      stale_ms[i] = await p.evaluate(() => {
        const { longest, last } = (globalThis as unknown as { stormSeen: { longest: number; last: number } }).stormSeen;
        return Math.max(longest, Date.now() - last);
      });
  } finally {
    await browser.close();
    await server.stop("SIGKILL");
  }
  return { posts: times.length, p50_ms: median(times), p95_ms: at(times, 0.95), stale_ms };
}
