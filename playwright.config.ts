import { defineConfig } from "@playwright/test";

export default defineConfig({
  testDir: "e2e",
  outputDir: "test-results",
  globalSetup: "./e2e/load-demo.ts",
  fullyParallel: false,
  workers: 2, // each with a server of its own (e2e/fixture.ts)
  timeout: 120_000,
  expect: { timeout: 20_000 },
  reporter: [["list"], ["json", { outputFile: process.env.E2E_REPORT ?? "e2e-report.json" }]],
  use: {
    viewport: { width: 1280, height: 800 },
    serviceWorkers: "block", // each window would fetch the whole program for later: what opens without the server allows it (away.spec.ts)
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
});
