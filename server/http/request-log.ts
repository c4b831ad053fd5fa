import { randomUUID } from "node:crypto";
import type { RequestHandler, Response } from "express";
import { type DestinationStream, type Logger, pino } from "pino";

/**
 * Lines of JSON with time, level and request; LOG_LEVEL is one of pino's, `info` where it is not set.
 * @param file where they are written beside the console
 */
export const createLog = (file: DestinationStream | null = null, level = process.env.LOG_LEVEL ?? "info"): Logger =>
  pino(
    { level, base: null, timestamp: pino.stdTimeFunctions.isoTime, formatters: { level: (label) => ({ level: label }) } },
    pino.multistream([process.stdout, ...(file ? [file] : [])].map((stream) => ({ level: "trace" as const, stream }))),
  );

const SLOW_MS = 1000;
export const requestId = (res: Response): string => res.locals.requestId as string;

/** A line for every write, every refusal and every slow answer; the rest at `debug`. Ids in a path are the program's own, what was typed is never logged. */
export const requestLog = (log: Logger): RequestHandler => {
  return (req, res, next) => {
    const start = performance.now();
    const id = randomUUID();
    res.locals.requestId = id;
    res.setHeader("X-Request-Id", id);
    const { method, path } = req;
    res.on("close", () => {
      const ms = Math.round(performance.now() - start);
      const { statusCode: status } = res;
      const stream = String(res.getHeader("Content-Type") ?? "").startsWith("text/event-stream");
      const level =
        status >= 500
          ? "error"
          : status >= 400
            ? "warn"
            : (method !== "GET" && method !== "HEAD") || (ms > SLOW_MS && !stream)
              ? "info"
              : "debug";
      log[level]({ requestId: id, method, route: path, status, ms, ...(res.writableFinished ? {} : { cut: true }) });
    });
    next();
  };
};
