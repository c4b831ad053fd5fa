import type { Server } from "node:http";
import { randomBytes } from "node:crypto";
import compression from "compression";
import express, { type RequestHandler } from "express";
import { ipKeyGenerator, rateLimit } from "express-rate-limit";
import helmet from "helmet";
import type { Logger } from "pino";
import { storageFaultKind } from "../db/storage-fault";
import { knownOf } from "../access/guard";
import { cutBodies, drainBodies } from "./body-limits";
import { gate } from "./gate";
import { pagePolicy, policyText } from "./page-policy";
import { requestLog } from "./request-log";

/** Requests of one device in ten seconds; of one address, where it is none that was let in: far above what a shop's screens ask, far below what would hold them up. */
const WINDOW_MS = 10_000;
export const REQUESTS_A_WINDOW = { read: 4000, write: 1000 } as const;
/** Of an address that was never let in, and of whoever tries codes and PINs: as much as a person does. */
const STRANGER_READS = 300;
const TRIES = 20;
const TRYING = /^\/(pair|sign-in|owner)(\.data)?$/;
/** Screens of one device, or of one address that is none, that follow the shop at once: refused here, more of them cost the others nothing. */
export const STREAMS_A_DEVICE = 40;
const FOLLOWING = /^\/do\/events$/;
/** A client that sends its body slower than this is let go. */
const SLOWEST_MS = 120_000;

export interface WebParts {
  hosts: ReadonlySet<string>;
  log: Logger;
  /** The way to the pages, where it can be shut. */
  door?: RequestHandler;
  /** Who asks, and whether they may; without one nobody is asked. */
  guard?: RequestHandler | undefined;
  /** Addresses of proxies whose word is taken for who asks, and how. */
  trustProxy?: string | undefined;
  /** Answers everything that is no file: the pages. */
  pages: RequestHandler;
  /** Folder of the built client files; null in tests. */
  files: string | null;
  /** Throws where the shop cannot be read or written. */
  health: () => Promise<void>;
  /** Sources of styles allowed beside the nonce. */
  styles?: readonly string[];
  requestsAWindow?: { read: number; write: number };
}

/** The program as express serves it: one gate before everything, the same policy on every answer, then files, then pages. */
export function webApp({
  hosts,
  log,
  door,
  guard,
  trustProxy,
  pages,
  files,
  health,
  styles = [],
  requestsAWindow = REQUESTS_A_WINDOW,
}: WebParts) {
  const app = express();
  if (trustProxy) app.set("trust proxy", trustProxy);
  app.disable("x-powered-by");
  app.use(requestLog(log));
  app.use(withPolicy(styles));
  app.use(gate(hosts));
  app.use(drainBodies);
  app.use(cutBodies);
  app.get("/healthz", (_req, res) => {
    health().then(
      () => void res.type("text/plain").send("ok"),
      (error: unknown) =>
        void res
          .status(503)
          .type("text/plain")
          .send(error instanceof Error ? error.message : String(error)),
    );
  });
  const isEventStream = (res: express.Response) => String(res.getHeader("Content-Type") ?? "").startsWith("text/event-stream");
  app.use(compression({ filter: (req, res) => !isEventStream(res) && compression.filter(req, res) }));
  if (files) {
    app.use("/assets", express.static(`${files}/assets`, { immutable: true, maxAge: "1y", setHeaders: letEngineRun }));
    app.use(express.static(files, { maxAge: "1h" }));
  }
  const whose = (req: express.Request, res: express.Response) => knownOf(res).device?.id ?? ipKeyGenerator(req.ip ?? "");
  const limit = (most: number, of: (req: express.Request, res: express.Response) => boolean, byAddress = false) =>
    rateLimit({
      windowMs: WINDOW_MS,
      limit: most,
      skip: (req, res) => req.ip === undefined || !of(req, res), // whoever has left asks for nothing
      keyGenerator: (req, res) => (byAddress ? ipKeyGenerator(req.ip ?? "") : whose(req, res)),
      standardHeaders: "draft-8",
      legacyHeaders: false,
      message: "Too many requests at once; try again in a few seconds.",
    });
  const writes = (req: express.Request) => req.method === "POST";
  const isStranger = (res: express.Response) => knownOf(res).asked && knownOf(res).device === null;
  if (door) app.use(door);
  if (guard) app.use(guard);
  if (guard) app.use(limit(TRIES, (req) => writes(req) && TRYING.test(req.path), true));
  if (guard) app.use(limit(STRANGER_READS, (req, res) => !writes(req) && isStranger(res)));
  app.use(limit(requestsAWindow.write, writes));
  app.use(limit(requestsAWindow.read, (req) => !writes(req)));
  app.use(fewStreams(whose));
  app.use(pages);
  app.use(lastFault(log));
  return app;
}

/** So many streams of one device are open at once, and no more. */
function fewStreams(whose: (req: express.Request, res: express.Response) => string): RequestHandler {
  const open = new Map<string, number>();
  return (req, res, next) => {
    if (!FOLLOWING.test(req.path) || req.ip === undefined) return next();
    const device = whose(req, res);
    const now = open.get(device) ?? 0;
    if (now >= STREAMS_A_DEVICE)
      return void res.status(503).set("Retry-After", "10").type("text/plain").send("Too many screens are open on this device; close some.");
    open.set(device, now + 1);
    res.on("close", () => {
      const left = open.get(device)! - 1;
      if (left > 0) open.set(device, left);
      else open.delete(device);
    });
    next();
  };
}

/** The program on a device runs SQLite, which is compiled where it runs: that one worker may, no page. */
function letEngineRun(res: express.Response, path: string): void {
  if (!/\/device-[\w-]+\.js$/.test(path)) return;
  const policy = String(res.getHeader("Content-Security-Policy") ?? "");
  res.setHeader("Content-Security-Policy", policy.replace("script-src 'self'", "script-src 'self' 'wasm-unsafe-eval'"));
}

/** Policy of every answer; pages take the nonce from `res.locals`. */
function withPolicy(styles: readonly string[]): RequestHandler[] {
  return [
    (_req, res, next) => {
      const nonce = randomBytes(16).toString("base64");
      res.locals.nonce = nonce;
      res.setHeader("Content-Security-Policy", policyText(pagePolicy(nonce, styles)));
      next();
    },
    helmet({
      contentSecurityPolicy: false, // each page has its own: above
      crossOriginEmbedderPolicy: false,
      referrerPolicy: { policy: "same-origin" },
      xFrameOptions: { action: "deny" },
      strictTransportSecurity: false, // plain http on this machine; whoever puts TLS before it says this there
    }),
    (_req, res, next) => {
      res.setHeader("Permissions-Policy", "camera=(self), microphone=(), geolocation=()");
      next();
    },
  ];
}

/** What no page answered for: a fault, in words and without its inside. */
const lastFault =
  (log: Logger): express.ErrorRequestHandler =>
  (error: unknown, _req, res, next) => {
    if (res.headersSent || res.destroyed) return next(error);
    // A path that cannot be decoded, a body that was cut off: what was asked is at fault.
    const asked = typeof error === "object" && error !== null && "status" in error ? Number(error.status) : 500;
    const status = asked >= 400 && asked < 500 ? asked : 500;
    if (status >= 500)
      log.error({ requestId: res.locals.requestId as string, err: error, storage: storageFaultKind(error) }, "not answered");
    res
      .status(status)
      .type("text/plain")
      .send(status === 500 ? "Something went wrong here; it stands in the log." : "This request could not be understood.");
  };

/** Limits on time of the listening server. */
export function limitTimes(server: Pick<Server, "requestTimeout" | "headersTimeout" | "keepAliveTimeout">): void {
  server.requestTimeout = SLOWEST_MS;
  server.headersTimeout = 20_000;
  server.keepAliveTimeout = 10_000;
}
