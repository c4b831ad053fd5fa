import { execFileSync } from "node:child_process";
import { mkdtempSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { defineConfig } from "@playwright/test";

// The config is evaluated again in every worker process, so choose once and hand on through the environment.
process.env.E2E_PORT ??= execFileSync(process.execPath, [
  "-e",
  "const s=require('net').createServer().listen(0,'127.0.0.1',()=>{console.log(s.address().port);s.close()})",
])
  .toString()
  .trim();
process.env.E2E_DIR ??= mkdtempSync(join(tmpdir(), "yakamoz-e2e-"));
const { E2E_PORT, E2E_DIR } = process.env;

export default defineConfig({
  testDir: "e2e",
  outputDir: "test-results",
  fullyParallel: false,
  workers: 1,
  timeout: 90_000,
  expect: { timeout: 15_000 },
  reporter: [["list"], ["json", { outputFile: process.env.E2E_REPORT ?? "e2e-report.json" }]],
  use: {
    baseURL: `http://127.0.0.1:${E2E_PORT}`,
    viewport: { width: 1280, height: 800 },
    launchOptions: {
      executablePath: process.env.CHROMIUM_PATH ?? "/usr/bin/chromium",
      args: [
        "--no-sandbox",
        "--disable-gpu",
        "--disable-dev-shm-usage",
        "--disable-background-networking",
        "--disable-component-update",
        "--disable-default-apps",
        "--disable-sync",
        "--no-first-run",
        "--font-render-hinting=none",
      ],
    },
  },
  webServer: {
    command: "node node_modules/tsx/dist/cli.mjs demo/load.ts && exec node server.mjs",
    url: `http://127.0.0.1:${E2E_PORT}/healthz`,
    env: { PORT: E2E_PORT, YAKAMOZ_DATA: E2E_DIR, NODE_ENV: "production" },
    reuseExistingServer: false,
    gracefulShutdown: { signal: "SIGTERM", timeout: 5000 },
    stdout: "ignore",
  },
});
