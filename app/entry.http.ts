/**
 * The whole program in one built file: the web server, the thread it computes in, and the commands that work on the data folder without any
 * development tool (`server.mjs`, `scripts/backup.mjs`, `scripts/restore.mjs` import it).
 */
import { createRequestHandler } from "@react-router/express";
import { sql } from "kysely";
import { RouterContextProvider } from "react-router";
import * as build from "virtual:react-router/server-build";
import { dataFolder } from "#server/db/open";
import { closeDemo, inShopOf, offerDemo } from "#server/looking";
import { door, keeper, onOpened, runningShop } from "#server/running";
import { LOOK_MS } from "#server/storage/keeper";
import { EXIT, StartRefusal } from "#server/storage/open-shop";
import { allowedHosts, isLoopback } from "#server/http/gate";
import { logFiles } from "#server/http/log-files";
import { createLog, requestId } from "#server/http/request-log";
import { startThread } from "#server/thread";
import { REQUESTS_A_WINDOW, limitTimes, webApp } from "#server/http/web-server";
import { asksForDemo } from "~/kit/http/look-cookie";
import { requestContext } from "~/kit/http/request-context.server";
import { SONNER_STYLES } from "~/kit/http/sonner-style";

export { serveThread } from "#server/thread";
export { backupCommand, restoreCommand } from "#server/storage/commands";

/** Every route with its whole path and what it answers: the trial asks each of them, so that a new one cannot be left out. */
export function routeTable(): { path: string; reads: boolean; writes: boolean }[] {
  const { routes } = build;
  const pathOf = (id: string | undefined): string => {
    const route = id === undefined ? undefined : routes[id];
    return route ? `${pathOf(route.parentId)}/${route.path ?? ""}`.replace(/\/+/g, "/") : "";
  };
  return Object.values(routes)
    .filter((r) => r !== undefined)
    .map((r) => ({
      path: pathOf(r.id).replace(/(.)\/$/, "$1"),
      reads: r.module.loader !== undefined,
      writes: r.module.action !== undefined,
    }));
}

const STOP_GRACE_MS = 1500;
const DEFAULT_PORT = 3000;

/** The folder is another's: nothing is written any more. */
function taken(): never {
  console.error("Another process has taken the data folder over while this one was asleep. This one stops; it has written nothing since.");
  process.exit(EXIT.locked);
}

/**
 * Opens the shop, then listens; until a stop signal. A start that fails says why in one sentence and ends the process with its own code.
 * @param program URL of the built program, for its threads: this file may be part of any of its files
 */
export async function start(program: string, env: NodeJS.ProcessEnv = process.env): Promise<void> {
  try {
    await listen(program, env);
  } catch (error) {
    if (!(error instanceof StartRefusal)) throw error;
    console.error(error.message);
    process.exit(error.exitCode);
  }
}

async function listen(program: string, env: NodeJS.ProcessEnv): Promise<void> {
  const host = env.HOST ?? "127.0.0.1";
  if (!isLoopback(host))
    throw new StartRefusal(
      `HOST=${host} would let everybody on the network in: there is no sign-in yet. Listen on 127.0.0.1, and let a proxy with a sign-in of its own stand before it (README, Other machines).`,
      EXIT.config,
    );
  const threads = { inThread: startThread(program), inFileThread: startThread(program) };
  const shop = await runningShop(threads);
  const log = createLog(await logFiles(dataFolder()));
  const lookAfter = setInterval(() => {
    keeper()
      ?.look()
      .catch((error: unknown) => log.error({ err: error }, "the backups could not be looked after"));
  }, LOOK_MS);
  offerDemo({ context: threads, load: async (ctx) => (await import("../demo/scenario")).loadScenario(ctx) });
  for (const name of shop.migrated) log.info({ migration: name, copy: shop.copy }, "data file brought up to date");
  const requests = Number(env.YAKAMOZ_REQUESTS_A_WINDOW) || 0;
  const pages = createRequestHandler({
    build: build,
    mode: env.NODE_ENV ?? "production",
    getLoadContext: (_req, res) => {
      const context = new RouterContextProvider();
      context.set(requestContext, { nonce: res.locals.nonce as string, requestId: requestId(res), log });
      return context;
    },
  });
  const app = webApp({
    hosts: allowedHosts(env.YAKAMOZ_HOSTS),
    log,
    files: "build/client",
    styles: SONNER_STYLES,
    requestsAWindow: requests ? { read: requests, write: requests } : REQUESTS_A_WINDOW,
    health: async () => void (await sql`select count(*) from shop`.execute((await runningShop()).ctx.db)),
    door: door().way,
    pages: (req, res, next) => inShopOf(asksForDemo(req.headers.cookie), () => pages(req, res, next)),
  });
  const server = app.listen(Number(env.PORT ?? DEFAULT_PORT), host, (error?: Error) => {
    if (error) {
      console.error(error.message);
      void shop.close().finally(() => process.exit(1));
      return;
    }
    const address = server.address();
    console.log(`Yakamoz is at http://localhost:${typeof address === "object" && address ? address.port : ""}`);
  });
  limitTimes(server);
  onOpened((opened) => void opened.lost.then(taken));
  let stopping = false;
  const stop = () => {
    if (stopping) return;
    stopping = true;
    clearInterval(lookAfter);
    server.close(() => {
      Promise.all([closeDemo(), runningShop().then((open) => open.close())]).then(
        () => {
          console.log("stopped");
          process.exit(0);
        },
        (error: unknown) => {
          log.error({ err: error }, "the data file was not closed cleanly");
          process.exit(1);
        },
      );
    });
    server.closeIdleConnections();
    // Open event streams never end by themselves.
    setTimeout(() => server.closeAllConnections(), STOP_GRACE_MS).unref();
  };
  for (const signal of ["SIGTERM", "SIGINT"] as const) process.on(signal, stop);
}
