import { type Page, chromium } from "@playwright/test";
import { processor_s } from "../bench-pages";
import { type LightWindow, lightWindow } from "./light-window";
import { TrialServer, at, median, ownFolder } from "./harness";

export interface StormReport {
  posts: number;
  p50_ms: number;
  p95_ms: number;
  /** Longest time that a window showed less than had been acknowledged, by window: those drawn by a browser first. */
  stale_ms: number[];
  /** What the server took of one core while it lasted. */
  share: number;
}

/** From a post's answer to the first look begun after it that is there; what nobody has looked at yet counts to the end. */
function behind(looks: LightWindow["looks"], answered: readonly number[], end: number): number {
  return Math.round(Math.max(0, ...answered.map((at) => (looks.find((l) => l.begun >= at)?.there ?? end) - at)));
}

/** After the last post every window looks once more within so long. */
const LAST_LOOK_MS = 3000;

/** Windows on the Floor and on the panel that is written to, while readings come in at a rate: how old is what each of them shows? */
export async function storm(
  demo: string,
  ids: Record<string, string>,
  { perSecond = 20, seconds = 15, drawn = 1, windows = 20, warm_s = 0 } = {},
): Promise<StormReport> {
  const server = new TrialServer(ownFolder(demo));
  if (!(await server.start())) throw new Error(server.said);
  const browser = await chromium.launch({
    executablePath: process.env.CHROMIUM_PATH ?? "/usr/bin/chromium",
    args: ["--no-sandbox", "--disable-gpu", "--disable-dev-shm-usage", "--disable-background-networking"],
  });
  const stale_ms: number[] = [];
  const times: number[] = [];
  const answered: number[] = [];
  const light: LightWindow[] = [];
  let share = 0;
  try {
    const base = `http://localhost:${server.port}`;
    const inspect = `/jobs/${ids.jobId}/panels/${ids.panelId}/inspect`;
    const pages: Page[] = [];
    for (let i = 0; i < drawn; i++) {
      const context = await browser.newContext();
      await context.addCookies(server.deviceCookie);
      const page = await context.newPage();
      await page.goto(i % 2 === 1 ? base : base + inspect);
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
    while (light.length < windows - drawn) light.push(await lightWindow(server, light.length % 2 === 0 ? "/" : inspect));
    let before_s = processor_s(server.pid);
    const begun = performance.now();
    let counted = begun;
    const sending: Promise<void>[] = [];
    const warm = perSecond * warm_s;
    for (let i = 0; i < warm + perSecond * seconds; i++) {
      if (i === warm) {
        before_s = processor_s(server.pid);
        counted = performance.now();
      }
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
            if (i < warm) return;
            times.push(a.ms);
            answered.push(performance.now());
          }),
      );
    }
    await Promise.all(sending);
    share = (processor_s(server.pid) - before_s) / ((performance.now() - counted) / 1000);
    for (const p of pages)
      stale_ms.push(
        await p.evaluate(() => {
          const { longest, last } = (globalThis as unknown as { stormSeen: { longest: number; last: number } }).stormSeen;
          return Math.max(longest, Date.now() - last);
        }),
      );
    await new Promise((done) => setTimeout(done, LAST_LOOK_MS));
    const end = performance.now();
    stale_ms.push(...light.map((w) => behind(w.looks, answered, end)));
  } finally {
    for (const w of light) w.close();
    await browser.close();
    await server.stop("SIGKILL");
  }
  return { posts: times.length, p50_ms: median(times), p95_ms: at(times, 0.95), stale_ms, share };
}
