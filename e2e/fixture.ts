import { rmSync } from "node:fs";
import { test as base } from "@playwright/test";
import { TrialServer, ownFolder } from "../scripts/trial/harness";

export { expect } from "@playwright/test";

/** A server on a copy of the demo shop for as long as it is used. */
async function onItsOwnShop(use: (server: TrialServer) => Promise<void>): Promise<void> {
  const server = new TrialServer(ownFolder(process.env.E2E_DEMO));
  if (!(await server.start())) throw new Error(`the server did not start: ${server.said}`);
  await use(server);
  await server.stop();
  rmSync(server.folder, { recursive: true, force: true });
}

/**
 * Every worker has a server of its own on its own copy of the demo shop, so that the spec files run beside each other.
 * What changes a panel that other specs look at asks for a shop of its own (`test.use({ ownShop: true })`).
 */
export const test = base.extend<{ ownShop: boolean }, { server: TrialServer }>({
  ownShop: [false, { option: true }],
  server: [
    // eslint-disable-next-line no-empty-pattern -- Playwright reads the fixtures that are asked for from this pattern
    async ({}, use) => onItsOwnShop(use),
    { scope: "worker", timeout: 60_000 },
  ],
  baseURL: async ({ server, ownShop }, use) => {
    const at = ({ port }: TrialServer) => use(`http://127.0.0.1:${port}`);
    await (ownShop ? onItsOwnShop(at) : at(server));
  },
});
