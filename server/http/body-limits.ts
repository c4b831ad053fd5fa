import type { RequestHandler } from "express";
import { PHOTO_LIMITS } from "../commands/photos";
import { pagePath } from "./page-path";

const MB = 1_000_000;
/** What a form may weigh. */
export const FORM_BYTES = MB;
/** What surrounds the files of an upload. */
const AROUND_BYTES = MB;
export const JOB_FILE_BYTES = 120 * MB;
export const SHELF_FILE_BYTES = 4 * MB;
/** Four million characters of readings, as JSON. */
const READINGS_BYTES = 12 * MB;
/** Photographs of one form. */
export const PHOTOS_A_FORM = 8;

/** Routes that take more than a form, by their path without `.data`. */
const LARGER: readonly (readonly [path: RegExp, bytes: number])[] = [
  [/^\/do\/jobs\/import$/, JOB_FILE_BYTES + AROUND_BYTES],
  [/^\/do\/shelf\/import$/, SHELF_FILE_BYTES + AROUND_BYTES],
  [/^\/do\/panels\/[^/]+\/import$/, READINGS_BYTES],
  [/^\/do\/photos\/look$/, PHOTO_LIMITS.bytes + AROUND_BYTES],
  [/^\/cards\/[^/]+\/edit$/, PHOTOS_A_FORM * PHOTO_LIMITS.bytes + AROUND_BYTES],
  [/^\/jobs\/[^/]+\/panels\/[^/]+\/inspect\/(photo|defects)$/, PHOTO_LIMITS.bytes + AROUND_BYTES],
];

/** Most bytes of a body sent to a path. */
export const bodyLimit = (path: string): number => {
  const plain = pagePath(path);
  return LARGER.find(([pattern]) => pattern.test(plain))?.[1] ?? FORM_BYTES;
};

export const tooLargeBody = (most: number): string =>
  `That is too large: at most ${(most / MB).toLocaleString("en")} MB here. Nothing was stored.`;

/**
 * Reads what is left of a body once its request has been answered: a page that answers without reading leaves it standing in the connection,
 * and the next request on that connection would wait behind it for ever.
 */
export const drainBodies: RequestHandler = (req, res, next) => {
  res.on("finish", () => {
    if (req.complete && req.readableLength === 0) return;
    req.removeAllListeners("data"); // whoever paused it does not read any more
    req.resume();
  });
  next();
};

/** Cuts a body off that says nothing of its length and grows beyond what its route takes. */
export const cutBodies: RequestHandler = (req, res, next) => {
  if (req.headers["content-length"] !== undefined || req.method === "GET" || req.method === "HEAD") return next();
  const most = bodyLimit(req.path);
  let seen = 0;
  const push = req.push.bind(req);
  req.push = (chunk: Buffer | null, encoding?: BufferEncoding) => {
    seen += chunk?.length ?? 0;
    if (seen > most) req.destroy(new Error(`a body of more than ${most} bytes`));
    return push(chunk, encoding);
  };
  next();
};
