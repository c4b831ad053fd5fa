import { readFileSync } from "node:fs";
import type { Page } from "@playwright/test";
import { PAGES } from "../e2e/page-list";
import { at, median } from "./trial/harness";
import { demoFolder } from "./trial/demo-folder";
import { inBrowser } from "./bench-kit";
import { firstLoad, gzipped_kB } from "./first-load";

/** What a cold page may bring, and what the server may spend on one. */
export const PAGE_BUDGET = { script_kB: 180, requests: 40, processor_ms: 60 } as const;
const ROUNDS = 10;
/** After this nothing more is asked for: what is fetched when the browser is idle is there. */
const SETTLED_MS = 2500;
const TICKS_A_SECOND = 100;

/** Seconds of processor that a process has used, all threads. */
export function processor_s(pid: number): number {
  const fields = readFileSync(`/proc/${pid}/stat`, "utf8")
    .replace(/^.*\) /, "")
    .split(" ");
  return (Number(fields[11]) + Number(fields[12])) / TICKS_A_SECOND;
}

interface Cold {
  /** What the document names, and all that is asked for until the page rests. */
  script_kB: number;
  all_kB: number;
  requests: number;
}

/** One cold page, without what the browser keeps. */
async function cold(page: Page, url: string): Promise<Cold> {
  const context = await page
    .context()
    .browser()!
    .newContext({ viewport: { width: 1280, height: 800 }, serviceWorkers: "block" });
  const fresh = await context.newPage();
  const asked: string[] = [];
  fresh.on("request", (request) => void asked.push(new URL(request.url()).pathname));
  const document = await (await fresh.goto(url))!.text();
  await fresh.locator("html[data-live]").waitFor({ state: "attached" });
  await fresh.waitForTimeout(SETTLED_MS);
  await context.close();
  // A second worker takes its file from what the browser has.
  const files = [...new Set(asked)];
  return { script_kB: firstLoad(document).kB, all_kB: gzipped_kB(files.filter((path) => path.endsWith(".js"))), requests: files.length };
}

/** Every page, cold in a browser and asked again and again of the server. @returns what is above its budget */
export async function benchPages(): Promise<string[]> {
  const { folder } = demoFolder();
  const above: string[] = [];
  await inBrowser(folder, async (page, { url, pid }) => {
    console.log("page                  script kB    in all  requests  processor ms (median, most)");
    for (const [name, path] of PAGES) {
      const whole = url + (await path(page));
      const { script_kB, all_kB, requests } = await cold(page, whole);
      const spent: number[] = [];
      for (let i = 0; i < ROUNDS; i++) {
        const before = processor_s(pid);
        for (let k = 0; k < 3; k++) await (await fetch(whole)).text();
        spent.push(((processor_s(pid) - before) * 1000) / 3);
      }
      const ms = median(spent);
      console.log(
        `${name.padEnd(22)}${script_kB.toFixed(0).padStart(8)}${all_kB.toFixed(0).padStart(10)}${String(requests).padStart(10)}${ms.toFixed(0).padStart(14)}, ${at(spent, 1).toFixed(0)}`,
      );
      if (script_kB > PAGE_BUDGET.script_kB) above.push(`${name}: ${script_kB.toFixed(0)} kB of script`);
      if (requests > PAGE_BUDGET.requests) above.push(`${name}: ${requests} requests`);
      if (ms > PAGE_BUDGET.processor_ms) above.push(`${name}: ${ms.toFixed(0)} ms of processor`);
    }
  });
  return above;
}
