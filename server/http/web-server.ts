import type { Server } from "node:http";
import { randomBytes } from "node:crypto";
import compression from "compression";
import express, { type RequestHandler } from "express";
import { rateLimit } from "express-rate-limit";
import helmet from "helmet";
import type { Logger } from "pino";
import { storageFaultKind } from "../db/storage-fault";
import { cutBodies, drainBodies } from "./body-limits";
import { gate } from "./gate";
import { requestLog } from "./request-log";

/** Requests of one address in ten seconds: far above what a shop's screens ask, far below what would hold them up. */
const WINDOW_MS = 10_000;
export const REQUESTS_A_WINDOW = { read: 4000, write: 1000 } as const;
/** A client that sends its body slower than this is let go. */
const SLOWEST_MS = 120_000;

export interface WebParts {
  hosts: ReadonlySet<string>;
  log: Logger;
  /** The way to the pages, where it can be shut. */
  door?: RequestHandler;
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
export function webApp({ hosts, log, door, pages, files, health, styles = [], requestsAWindow = REQUESTS_A_WINDOW }: WebParts) {
  const app = express();
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
    app.use("/assets", express.static(`${files}/assets`, { immutable: true, maxAge: "1y" }));
    app.use(express.static(files, { maxAge: "1h" }));
  }
  const limit = (most: number, methods: (method: string) => boolean) =>
    rateLimit({
      windowMs: WINDOW_MS,
      limit: most,
      skip: (req) => req.ip === undefined || !methods(req.method), // whoever has left asks for nothing
      standardHeaders: "draft-8",
      legacyHeaders: false,
      message: "Too many requests at once; try again in a few seconds.",
    });
  app.use(limit(requestsAWindow.write, (m) => m === "POST"));
  app.use(limit(requestsAWindow.read, (m) => m !== "POST"));
  if (door) app.use(door);
  app.use(pages);
  app.use(lastFault(log));
  return app;
}

/** Policy of every answer; pages take the nonce from `res.locals`. */
function withPolicy(styles: readonly string[]): RequestHandler[] {
  return [
    (_req, res, next) => {
      res.locals.nonce = randomBytes(16).toString("base64");
      next();
    },
    helmet({
      contentSecurityPolicy: {
        useDefaults: false,
        directives: {
          "default-src": ["'self'"],
          "script-src": ["'self'", (_req, res) => `'nonce-${(res as express.Response).locals.nonce as string}'`, "'strict-dynamic'"],
          "style-src": ["'self'", (_req, res) => `'nonce-${(res as express.Response).locals.nonce as string}'`, ...styles],
          "style-src-attr": ["'unsafe-inline'"],
          "img-src": ["'self'", "data:", "blob:"],
          "font-src": ["'self'"],
          "connect-src": ["'self'"],
          "worker-src": ["'self'", "blob:"],
          "object-src": ["'none'"],
          "base-uri": ["'none'"],
          "form-action": ["'self'"],
          "frame-ancestors": ["'none'"],
        },
      },
      crossOriginEmbedderPolicy: false,
      referrerPolicy: { policy: "same-origin" },
      xFrameOptions: { action: "deny" },
      strictTransportSecurity: false, // plain http on this machine; whoever puts TLS before it says this there
    }),
    (_req, res, next) => {
      res.setHeader("Permissions-Policy", "camera=(), microphone=(), geolocation=()");
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
export function limitTimes(server: Server): void {
  server.requestTimeout = SLOWEST_MS;
  server.headersTimeout = 20_000;
  server.keepAliveTimeout = 10_000;
}
