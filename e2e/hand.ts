import { type Locator, type Page, expect } from "@playwright/test";
import { settled } from "./support";

/**
 * A hand in a glove, that looks before it touches: the page has taken in what was pressed before. Every tap is one touch, a choice from a list two (open, choose), a field that is typed into two (tap it, type); lines of readings
 * are counted apart, as a gauge sends them by itself.
 */
export function hand(page: Page) {
  const spent = new Map<string, number>();
  let at = "start";
  let lines = 0;
  const touch = (n: number) => spent.set(at, (spent.get(at) ?? 0) + n);
  const labelled = (label: string | RegExp) =>
    (typeof label === "string" ? page.getByLabel(label, { exact: true }) : page.getByLabel(label)).last();
  return {
    touches: () => [...spent.values()].reduce((a, n) => a + n, 0),
    lines: () => lines,
    /** Where the touches go, for the record. */
    told: () => `${[...spent].map(([name, n]) => `${name} ${n}`).join(", ")}; ${lines} lines of readings`,
    /** What is done from now on. */
    part: (name: string) => (at = name),
    async tap(target: Locator) {
      touch(1);
      await settled(page);
      await target.click();
    },
    async press(name: string | RegExp) {
      touch(1);
      await settled(page);
      await page
        .getByRole("button", { name, exact: typeof name === "string" })
        .first()
        .click();
    },
    async follow(name: string | RegExp) {
      touch(1);
      await settled(page);
      await page
        .getByRole("link", { name, exact: typeof name === "string" })
        .first()
        .click();
    },
    async type(label: string | RegExp, text: string) {
      touch(2);
      await settled(page);
      await labelled(label).fill(text);
    },
    async choose(label: string | RegExp, option: string) {
      touch(2);
      await settled(page);
      await labelled(label).selectOption({ label: option });
    },
    /** A place on a drawing, by shares of it. */
    async tapAt(target: Locator, x: number, y: number) {
      touch(1);
      await settled(page);
      const box = (await target.boundingBox())!;
      await target.click({ position: { x: box.width * x, y: box.height * y } });
    },
    async read(phase: "before" | "after" | "recheck", readings: readonly string[]) {
      const input = page.locator(`#reading-${phase}`);
      for (const reading of readings) {
        lines += 1;
        await input.fill(reading);
        await input.press("Enter");
      }
      await expect(page.getByTestId("spots-read")).toHaveText(new RegExp(`^${readings.length} of`));
    },
  };
}
export type Hand = ReturnType<typeof hand>;
