/**
 * The whole program in one built file: the web server, the thread it computes in, and the commands that work on the data folder without any
 * development tool (`server.mjs`, `scripts/backup.mjs`, `scripts/restore.mjs` import it).
 */
import { createRequestHandler } from "@react-router/express";
import { sql } from "kysely";
import { LRUCache } from "lru-cache";
import { type RouteObject, RouterContextProvider, matchRoutes } from "react-router";
import * as build from "virtual:react-router/server-build";
import { dataFolder } from "#server/db/open";
import { closeDemo, inShopOf, offerDemo } from "#server/looking";
import { asActor, currentActor } from "#server/access/actor";
import { inWhoseName } from "#server/access/in-whose-name";
import { type Needs, guard, knownOf } from "#server/access/guard";
import { createLan, lanSettings } from "#server/lan/lan";
import { createListeners } from "#server/lan/listeners";
import { door, keeper, onNetwork, onOpened, runningShop, serverContext, shopContext } from "#server/running";
import { LOOK_MS } from "#server/storage/keeper";
import { EXIT, StartRefusal } from "#server/storage/open-shop";
import { allowedHosts, fromMachine, isLoopback } from "#server/http/gate";
import { logFiles } from "#server/http/log-files";
import { pagePath } from "#server/http/page-path";
import { createLog, requestId } from "#server/http/request-log";
import { carriedOutWhole, sentOf, wasCarriedOut } from "#server/sent";
import { startThread } from "#server/thread";
import { REQUESTS_A_WINDOW, limitTimes, webApp } from "#server/http/web-server";
import { type RouteNeeds, needsOf } from "~/access/route-needs";
import { asksForDemo } from "~/kit/http/look-cookie";
import { requestContext } from "~/kit/http/request-context.server";
import { SONNER_STYLES } from "~/kit/http/sonner-style";

export { serveThread } from "#server/thread";
export { backupCommand, passcodeCommand, restoreCommand } from "#server/storage/commands";

/** Every route with its whole path, what it answers and what it asks of whom: the trial asks each of them, so that a new one cannot be left out. */
export function routeTable(): { path: string; reads: boolean; writes: boolean; needs: RouteNeeds }[] {
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
      needs: needsOf(r.id),
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

/** The machine's own address: always listened on. */
const MACHINE = "127.0.0.1";

/** What a path asks of whoever wants it, by the route that answers it. */
function needsOfPaths() {
  const { routes } = build;
  interface Branch {
    id: string;
    path?: string;
    index?: boolean;
    children: Branch[];
  }
  const under = (parent: string | undefined): Branch[] =>
    Object.values(routes)
      .filter((r) => r !== undefined && r.parentId === parent)
      .map((r) => ({
        id: r!.id,
        ...(r!.path === undefined ? {} : { path: r!.path }),
        ...(r!.index ? { index: true } : {}),
        children: under(r!.id),
      }));
  const tree = under(undefined) as RouteObject[];
  /** Looking a path up among all routes costs more than a small answer. */
  const known = new LRUCache<string, RouteNeeds>({ max: 2000 });
  const look = (path: string): RouteNeeds => {
    return needsOf(matchRoutes(tree, pagePath(path))?.at(-1)?.route.id ?? "");
  };
  return (path: string, writes: boolean): Needs => {
    const needs = known.get(path) ?? look(path);
    known.set(path, needs);
    return needs[writes ? "write" : "read"];
  };
}

async function listen(program: string, env: NodeJS.ProcessEnv): Promise<void> {
  const port = Number(env.PORT ?? DEFAULT_PORT);
  const network = lanSettings(env, process.argv, port);
  const host = network ? MACHINE : (env.HOST ?? MACHINE);
  if (!isLoopback(host))
    throw new StartRefusal(
      `HOST=${host} would let everybody on the network in without a sign-in. Start it with --lan (npm start -- --lan): then it asks who is there (README, The shop's network).`,
      EXIT.config,
    );
  const threads = { inThread: startThread(program), inFileThread: startThread(program) };
  const shop = await runningShop(threads);
  const log = createLog(await logFiles(dataFolder()));
  const unseen = (error: unknown) => log.error({ err: error }, "the backups could not be looked after");
  await keeper()?.first().catch(unseen); // a disk that is full is said on the first page already
  const lookAfter = setInterval(() => void keeper()?.look().catch(unseen), LOOK_MS);
  offerDemo({ context: threads, load: async (ctx) => (await import("../demo/scenario")).loadScenario(ctx) });
  for (const name of shop.migrated) log.info({ migration: name, copy: shop.copy }, "data file brought up to date");
  const requests = Number(env.YAKAMOZ_REQUESTS_A_WINDOW) || 0;
  const pages = createRequestHandler({
    build: build,
    mode: env.NODE_ENV ?? "production",
    getLoadContext: (_req, res) => {
      const context = new RouterContextProvider();
      context.set(requestContext, { nonce: res.locals.nonce as string, requestId: requestId(res), log, known: knownOf(res) });
      return context;
    },
  });
  const hosts = allowedHosts(env.YAKAMOZ_HOSTS);
  const app = webApp({
    hosts,
    log,
    files: "build/client",
    styles: SONNER_STYLES,
    requestsAWindow: requests ? { read: requests, write: requests } : REQUESTS_A_WINDOW,
    health: async () => void (await sql`select count(*) from shop`.execute((await runningShop()).ctx.db)),
    door: door().way,
    guard: network ? guard({ context: shopContext, needs: needsOfPaths(), local: fromMachine }) : undefined,
    trustProxy: env.YAKAMOZ_TRUST_PROXY,
    pages: (req, res, next) =>
      inShopOf(asksForDemo(req.headers.cookie), async () => {
        const sent = sentOf(req.method, req.headers, Date.now());
        if (!sent) return pages(req, res, next);
        const ctx = await serverContext();
        if (await wasCarriedOut(ctx, sent)) return void res.type("text/plain").send("Stored before.");
        const actor = await inWhoseName(await shopContext(), currentActor(), sent.personId);
        return asActor(actor, () =>
          carriedOutWhole(ctx, sent, async () => {
            await pages(req, res, next);
            return res.headersSent && res.statusCode < 400;
          }),
        );
      }),
  });
  const listeners = createListeners(app, { limit: limitTimes });
  let at: number;
  try {
    at = await listeners.http(host, port);
  } catch (error) {
    console.error(error instanceof Error ? error.message : String(error));
    await shop.close();
    process.exit(1);
  }
  console.log(`Yakamoz is at http://localhost:${at}`);
  const lan = network
    ? createLan(
        { ...network, port: at },
        { listeners, hosts, folder: dataFolder(), context: shopContext, now_ms: () => Date.now(), log, say: (words) => console.log(words) },
      )
    : null;
  onNetwork(lan);
  await lan?.look();
  onOpened((opened) => void opened.lost.then(taken));
  let stopping = false;
  const stop = () => {
    if (stopping) return;
    stopping = true;
    clearInterval(lookAfter);
    // Open event streams never end by themselves.
    Promise.all([lan?.stop(), listeners.close(STOP_GRACE_MS)])
      .then(() => Promise.all([closeDemo(), runningShop().then((open) => open.close())]))
      .then(
        () => {
          console.log("stopped");
          process.exit(0);
        },
        (error: unknown) => {
          log.error({ err: error }, "the data file was not closed cleanly");
          process.exit(1);
        },
      );
  };
  for (const signal of ["SIGTERM", "SIGINT"] as const) process.on(signal, stop);
}
