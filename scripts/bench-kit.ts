import { spawn } from "node:child_process";
import { mkdtempSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { type Page, chromium } from "@playwright/test";
import { createContext } from "#server/context";
import { migrate, openDatabase } from "#server/db/open";
import { testJob } from "#server/testing/fixtures";
import { listens } from "./trial/harness";

export const PORT = "4899";

/** Prints median and spread. @returns the median */
export function report(name: string, samples: readonly number[], unit = "ms"): number {
  const s = [...samples].sort((a, b) => a - b);
  const at = (p: number) => s[Math.min(s.length - 1, Math.floor(p * s.length))]!;
  console.log(
    `${name}: median ${at(0.5).toFixed(1)} ${unit}, p95 ${at(0.95).toFixed(1)}, least ${s[0]!.toFixed(1)}, most ${s.at(-1)!.toFixed(1)} (n = ${s.length})`,
  );
  return at(0.5);
}

/** Milliseconds of so many runs, after one that warms up. */
export function time(count: number, run: () => void): number[] {
  run(); // warm
  return Array.from({ length: count }, () => {
    const start = performance.now();
    run();
    return performance.now() - start;
  });
}

/** A data folder with one job of one panel. */
export async function emptyShop() {
  const folder = mkdtempSync(join(tmpdir(), "yakamoz-bench-"));
  const db = openDatabase(join(folder, "yakamoz.sqlite"));
  await migrate(db);
  const ctx = createContext(db);
  const job = await testJob(ctx);
  return { folder, db, ctx, job };
}

/** Serves a data folder and hands a page of Chromium to what is to be measured. */
export async function inBrowser(
  folder: string,
  measure: (page: Page, server: { url: string; pid: number }) => Promise<void>,
): Promise<void> {
  const server = spawn(process.execPath, ["server.mjs"], {
    env: { ...process.env, NODE_ENV: "production", YAKAMOZ_DATA: folder, PORT, YAKAMOZ_REQUESTS_A_WINDOW: "10000000" },
    stdio: ["ignore", "pipe", "inherit"],
  });
  if (!(await listens(server))) throw new Error("the server ended before it listened");
  const browser = await chromium.launch({
    executablePath: process.env.CHROMIUM_PATH ?? "/usr/bin/chromium",
    args: ["--no-sandbox", "--disable-gpu", "--disable-dev-shm-usage", "--disable-background-networking"],
  });
  try {
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 }, baseURL: `http://127.0.0.1:${PORT}` });
    await page.addInitScript("globalThis.__name = (f) => f"); // the script loader names functions, the page does not know its helper
    await measure(page, { url: `http://127.0.0.1:${PORT}`, pid: server.pid! });
  } finally {
    await browser.close();
    server.kill("SIGTERM");
  }
}
