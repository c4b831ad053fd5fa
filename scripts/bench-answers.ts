import type { Page } from "@playwright/test";
import { inBrowser, report } from "./bench-kit";
import { demoFolder } from "./trial/demo-folder";
import { median } from "./trial/harness";

const ROUNDS = 10;
/** From press to answer: the first time after an entry, and again. */
const MOST_MS = { first: 600, again: 250 } as const;
/** The page rests between two: what it asks ahead is asked. */
const REST_MS = 2000;

/** What is pressed, from where, and what shows that the answer is there. */
const QUESTIONS = [
  { name: "plan", from: "inspect", to: "correct", answered: "[data-testid=verdict]:not([data-verdict=waiting])" },
  { name: "Options", from: "correct/causes", to: "correct/options", answered: "[data-testid=option-sentence]" },
  { name: "film map", from: "inspect", to: "inspect/map", answered: "[data-testid=map-verdict]:not([data-verdict=waiting])" },
] as const;

/** Presses the link that leads to an address and waits for what answers. @returns ms from the press to the frame that shows it */
const pressToAnswer = (page: Page, path: string, answered: string): Promise<number> =>
  page.evaluate(
    ({ path: to, answered: selector }) =>
      new Promise<number>((resolve, reject) => {
        const link = [...document.querySelectorAll("a")].find((a) => new URL(a.href).pathname === to);
        if (!link) return reject(new Error(`no link to ${to}`));
        const begun = performance.now();
        const look = () => {
          if (location.pathname !== to || !document.querySelector(selector)) return;
          seen.disconnect();
          requestAnimationFrame(() => resolve(performance.now() - begun));
        };
        const seen = new MutationObserver(look);
        seen.observe(document.body, { childList: true, subtree: true, attributes: true, characterData: true });
        link.click();
        look();
      }),
    { path, answered },
  );

/** From press to answer in Chromium: plan, Options, map, the first time after an entry and again. @returns what takes longer than it may */
export async function benchAnswers(): Promise<string[]> {
  const { folder } = demoFolder();
  const above: string[] = [];
  await inBrowser(folder, async (page, { url }) => {
    await page.goto(`${url}/`);
    const href = await page
      .locator("li", { hasText: "Meltem" })
      .getByRole("link", { name: /Rear quarter/ })
      .first()
      .getAttribute("href");
    const base = href!.replace(/\/[^/]+$/, "");
    const panelId = base.split("/").at(-1)!;
    let n = 0;
    for (const { name, from, to, answered } of QUESTIONS) {
      const first: number[] = [];
      const again: number[] = [];
      for (let round = 0; round < ROUNDS; round++) {
        await page.goto(`${url}${base}/${from}`);
        await page.locator("html[data-live]").waitFor({ state: "attached" });
        await page.waitForTimeout(REST_MS);
        const stored = await page.request.post(`${url}/do/panels/${panelId}/readings`, {
          form: { clientKey: `answer-${n++}`, phase: "after", spot: String(1 + (n % 8)), x_m: "0.5", y_m: "0.4", value: String(200 + n) },
          headers: { origin: url },
        });
        if (!stored.ok()) throw new Error(`a reading was answered ${stored.status()}`);
        await page.waitForTimeout(REST_MS);
        first.push(await pressToAnswer(page, `${base}/${to}`, answered));
        await page.waitForTimeout(REST_MS);
        await page.goBack();
        await page.waitForTimeout(REST_MS / 2);
        again.push(await pressToAnswer(page, `${base}/${to}`, answered));
      }
      report(`${name}, from press to answer, first after an entry`, first);
      report(`${name}, from press to answer, again`, again);
      for (const [how, times] of Object.entries({ first, again }))
        if (median(times) > MOST_MS[how as keyof typeof MOST_MS]) above.push(`${name}, ${how}: ${median(times).toFixed(0)} ms`);
    }
  });
  return above;
}
