import type { IncomingMessage, ServerResponse } from "node:http";
import { bodyLimit, tooLargeBody } from "./body-limits";

/** Names under which the program answers, beside those of YAKAMOZ_HOSTS: this machine's own. */
const LOOPBACK_NAMES = ["localhost", "127.0.0.1", "[::1]"] as const;
export const isLoopback = (host: string): boolean => ["127.0.0.1", "::1", "localhost"].includes(host);
/** Whether a request comes from this very machine and asks for it by its own name: no other machine can do both. */
export const fromMachine = ({ ip = "", headers }: { ip?: string | undefined; headers: IncomingMessage["headers"] }): boolean =>
  isLoopback(ip.replace(/^::ffff:/, "")) && (LOOPBACK_NAMES as readonly string[]).includes(hostName(headers.host ?? "") ?? "");

/** Host names allowed, without ports: those of this machine and a list with commas (a proxy's own name). */
export const allowedHosts = (more = ""): Set<string> =>
  new Set([
    ...LOOPBACK_NAMES,
    ...more
      .split(",")
      .map((h) => h.trim().toLowerCase())
      .filter(Boolean),
  ]);

const MOST_PORT = 65_535;

/** The host of a `Host` header or an origin, without its port; null for one that is no host, or names a port that there is not. */
export function hostName(text: string): string | null {
  const [, name, port = "0"] = /^(\[[0-9a-f:.]+\]|[a-z0-9.-]+)(?::(\d{1,5}))?$/i.exec(text) ?? [];
  return name === undefined || Number(port) > MOST_PORT ? null : name.toLowerCase();
}

const READING = new Set(["GET", "HEAD"]);
const METHODS = new Set([...READING, "POST"]);

export interface Turned {
  status: number;
  words: string;
  headers?: Record<string, string>;
}

type Asked = Pick<IncomingMessage, "method" | "headers"> & { path: string };

/**
 * Whether a request may come in at all; null lets it. A page of another site can make a browser send anything here, so a write must come from a page
 * of this program: the browser says so itself (`Sec-Fetch-Site`, `Origin`), and a program that is no browser says neither. A name that is not
 * ours is another site's name pointed at this machine. A read from another site is allowed only as a visit, never as a part of its page.
 */
export function turnedAway({ method = "GET", headers, path }: Asked, hosts: ReadonlySet<string>): Turned | null {
  const host = headers.host ?? "";
  const name = hostName(host);
  if (name === null || !hosts.has(name))
    return { status: 421, words: "This program does not answer under that name. Names are allowed by YAKAMOZ_HOSTS (README)." };
  if (!METHODS.has(method)) return { status: 405, words: "Only GET, HEAD and POST are answered.", headers: { Allow: "GET, HEAD, POST" } };
  // A proxy's form (`GET http://…`) and `*` ask for no page of ours.
  if (!path.startsWith("/")) return { status: 400, words: "Ask for a path of this program, as /jobs." };
  const site = headers["sec-fetch-site"];
  if (READING.has(method)) {
    const visit = headers["sec-fetch-mode"] === "navigate" && headers["sec-fetch-dest"] === "document";
    return site === undefined || site === "same-origin" || site === "none" || visit ? null : foreign;
  }
  if (site !== undefined && site !== "same-origin" && site !== "none") return foreign;
  const { origin } = headers;
  if (origin !== undefined && originHost(origin) !== host.toLowerCase()) return foreign;
  return tooLarge(headers, bodyLimit(path));
}

const foreign: Turned = { status: 403, words: "This was sent by a page of another site and was not carried out." };

/** Host with port of an origin; null where it has none (`null`, a file). */
function originHost(origin: string): string | null {
  try {
    return new URL(origin).host.toLowerCase();
  } catch {
    return null;
  }
}

function tooLarge(headers: IncomingMessage["headers"], most: number): Turned | null {
  const length = headers["content-length"];
  if (length === undefined || Number(length) <= most) return null;
  return { status: 413, words: tooLargeBody(most), headers: { Connection: "close" } };
}

/** The gate as the first handler of any server of Node's kind: what may not come in is answered in words, and nothing of its body is read. */
export function gate(hosts: ReadonlySet<string>) {
  return (req: IncomingMessage, res: ServerResponse, next: () => void): void => {
    const [path = "/"] = (req.url ?? "/").split("?");
    const turned = turnedAway({ method: req.method, headers: req.headers, path }, hosts);
    if (!turned) return next();
    res
      .writeHead(turned.status, { "Content-Type": "text/plain; charset=utf-8", "Cache-Control": "no-store", ...turned.headers })
      .end(turned.words);
  };
}
