import { spawnSync } from "node:child_process";
import { mkdtempSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import type { Page } from "@playwright/test";
import { PORT, inBrowser, report } from "./bench-kit";

const ROUNDS = 5;
/** The desks with most on them, of the demo's panels: where, and what is typed into which field. */
const DESKS = [
  ["Will it run?", "Lodos", "Front door", "spray/window", "Hand speed", ["0.31", "0.32", "0.33", "0.35", "0.36", "0.37", "0.38"]],
  ["Mix", "Lodos", "Front door", "plan/mix", "Reducer", ["1", "2", "3", "4", "5", "6", "7"]],
  ["Coats", "Lodos", "Front door", "spray", "Hand speed", ["0.31", "0.32", "0.33", "0.35", "0.36", "0.37", "0.38"]],
  ["Correct", "Meltem", "Rear quarter", "correct", "Peel to leave", ["1", "2", "1.5", "0.5", "2.5", "1.2", "1.8"]],
  ["Film map, slider", "Meltem", "Rear quarter", "inspect/map", "slider", ["4", "6", "8", "10", "12", "14", "16"]],
] as const;

/** Time from a change of a field until the page has taken it in; painting comes after. */
async function keystrokes(page: Page, label: string, texts: readonly string[]): Promise<number[]> {
  const field = label === "slider" ? page.locator("input[type=range]").first() : page.getByLabel(new RegExp(`^${label}`)).first();
  const samples: number[] = [];
  for (let round = 0; round < ROUNDS; round++)
    for (const text of texts) {
      const ms = await field.evaluate(async (e: Element, value: string) => {
        const own = Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, "value")!;
        const begun = performance.now();
        own.set!.call(e, value);
        e.dispatchEvent(new Event("input", { bubbles: true }));
        await Promise.resolve();
        await Promise.resolve();
        return performance.now() - begun;
      }, text);
      samples.push(ms);
      await page.waitForTimeout(250);
    }
  return samples;
}

/** A keystroke on the largest desks, with the demo's own panels. */
export async function benchTyping(): Promise<void> {
  const folder = mkdtempSync(join(tmpdir(), "yakamoz-bench-"));
  const env = { ...process.env, YAKAMOZ_DATA: folder, NODE_ENV: "production" };
  const loaded = spawnSync(process.execPath, ["node_modules/tsx/dist/cli.mjs", "demo/load.ts"], { env, stdio: "ignore" });
  if (loaded.status !== 0) throw new Error("the demo could not be loaded");
  await inBrowser(folder, async (page) => {
    for (const [name, vehicle, panel, path, label, texts] of DESKS) {
      await page.goto(`http://127.0.0.1:${PORT}/`);
      const link = page.locator("li", { hasText: vehicle }).getByRole("link", { name: new RegExp(panel) });
      const href = (await link.first().getAttribute("href"))!;
      await page.goto(`http://127.0.0.1:${PORT}${href.replace(/[^/]+$/, path)}`);
      await page.locator("html[data-live]").waitFor({ state: "attached" });
      await page.waitForTimeout(4000); // what follows the document, and the first answers of the worker
      report(`keystroke, ${name}`, await keystrokes(page, label, texts));
    }
  });
}
