import { rmSync } from "node:fs";
import { test as base } from "@playwright/test";
import { TrialServer, ownFolder } from "../scripts/trial/harness";

export { expect } from "@playwright/test";

/** Every worker has a server of its own on its own copy of the demo shop, so that the spec files run beside each other. */
export const test = base.extend<object, { server: TrialServer }>({
  server: [
    // eslint-disable-next-line no-empty-pattern -- Playwright reads the fixtures that are asked for from this pattern
    async ({}, use) => {
      const server = new TrialServer(ownFolder(process.env.E2E_DEMO));
      if (!(await server.start())) throw new Error(`the server did not start: ${server.said}`);
      await use(server);
      await server.stop();
      rmSync(server.folder, { recursive: true, force: true });
    },
    { scope: "worker", timeout: 60_000 },
  ],
  baseURL: async ({ server }, use) => use(`http://127.0.0.1:${server.port}`),
});
