import { type ChildProcess, spawn } from "node:child_process";
import { once } from "node:events";
import { cpSync, mkdtempSync, rmSync } from "node:fs";
import { Agent, type IncomingHttpHeaders, type IncomingMessage, request as httpRequest } from "node:http";
import { createServer } from "node:net";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { text } from "node:stream/consumers";

export interface Answer {
  /** 0: no answer at all. */
  status: number;
  headers: IncomingHttpHeaders;
  body: string;
  ms: number;
}
export interface Ask {
  method?: string;
  headers?: Record<string, string>;
  body?: string | Buffer;
}

export async function freePort(): Promise<number> {
  const probe = createServer().listen(0, "127.0.0.1");
  await once(probe, "listening");
  const address = probe.address();
  probe.close();
  if (address === null || typeof address === "string") throw new Error("no port");
  return address.port;
}

/** Waits until a server that was just started says where it listens: it may say other things before that. @returns false when it ended instead */
export async function listens(child: ChildProcess): Promise<boolean> {
  let said = "";
  return new Promise((resolve) => {
    child.once("exit", () => resolve(false));
    child.stdout!.on("data", (chunk: Buffer) => {
      said = (said + chunk.toString()).slice(-2000);
      if (said.includes("Yakamoz is at ")) resolve(true);
    });
  });
}

const folders: string[] = [];

/** A folder of the trial's own, removed at the end of the process. */
export function ownFolder(like?: string): string {
  const folder = mkdtempSync(join(tmpdir(), "yakamoz-trial-"));
  if (like) cpSync(like, folder, { recursive: true });
  if (folders.length === 0) process.once("exit", () => folders.forEach((f) => rmSync(f, { recursive: true, force: true })));
  folders.push(folder);
  return folder;
}

/** A server of the built program on a data folder, to be asked, stopped and killed. */
export class TrialServer {
  #child: ChildProcess | null = null;
  #agent = new Agent({ keepAlive: true, maxSockets: 32 });
  port = 0;
  /** What it said on its error stream, and the code it ended with. */
  said = "";
  /** Its log, as lines of JSON. */
  log = "";
  constructor(
    readonly folder: string,
    readonly env: Record<string, string> = {},
  ) {}

  /** Starts it and waits until it listens. @returns false when it ended instead */
  async start(): Promise<boolean> {
    this.port ||= await freePort();
    this.said = "";
    const child = spawn(process.execPath, ["--import", "./e2e/shift-clock.mjs", "server.mjs"], {
      env: {
        ...process.env,
        NODE_ENV: "production",
        YAKAMOZ_DATA: this.folder,
        PORT: String(this.port),
        LOG_LEVEL: "error",
        YAKAMOZ_REQUESTS_A_WINDOW: "10000000",
        ...this.env,
      },
      stdio: ["ignore", "pipe", "pipe", "ipc"],
    });
    this.#child = child;
    if (process.env.TRIAL_DEBUG) child.on("exit", (code, sig) => console.error("server ended", code, sig, this.said.slice(-3000)));
    child.stdout!.on("data", (chunk: Buffer) => (this.log = (this.log + chunk.toString()).slice(-200_000)));
    child.stderr!.on("data", (chunk: Buffer) => (this.said += chunk.toString()));
    const up = await listens(child);
    if (!up) this.#child = null;
    return up;
  }

  async stop(signal: NodeJS.Signals = "SIGTERM"): Promise<number | null> {
    const child = this.#child;
    if (!child) return null;
    this.#child = null;
    if (child.exitCode !== null || child.signalCode !== null) return child.exitCode; // it has ended by itself
    const gone = once(child, "exit") as Promise<[number | null]>;
    child.kill(signal);
    this.#agent.destroy();
    this.#agent = new Agent({ keepAlive: true, maxSockets: 32 });
    return (await gone)[0];
  }

  /** Sets its wall clock ahead, or back. */
  async shiftClock(ahead_ms: number): Promise<void> {
    const heard = once(this.#child!, "message");
    this.#child!.send({ ahead_ms });
    await heard;
  }

  /** Resident memory, bytes. */
  get pid(): number {
    return this.#child?.pid ?? 0;
  }

  async ask(path: string, { method = "GET", headers = {}, body: sent }: Ask = {}): Promise<Answer> {
    const start = performance.now();
    let reused = false;
    try {
      const req = httpRequest({
        host: "127.0.0.1",
        port: this.port,
        path,
        method,
        agent: this.#agent,
        headers: {
          host: `localhost:${this.port}`,
          ...(sent === undefined ? {} : { "content-length": String(Buffer.byteLength(sent)) }),
          ...headers,
        },
      });
      req.setTimeout(60_000, () => req.destroy(new Error("no answer in a minute")));
      const closed = once(req, "close").then(() => Promise.reject(new Error("closed without an answer")));
      closed.catch(() => {});
      const answered = Promise.race([once(req, "response") as Promise<[IncomingMessage]>, closed]);
      if (sent !== undefined) req.write(sent);
      req.end();
      const [res] = await answered.finally(() => (reused = req.reusedSocket));
      const body = await text(res);
      return { status: res.statusCode ?? 0, headers: res.headers, body, ms: performance.now() - start };
    } catch (error) {
      // A server may close a connection that rested just when it is used again: what only reads asks once more.
      if (reused && method === "GET" && (error as NodeJS.ErrnoException).code === "ECONNRESET") return this.ask(path, { headers });
      return { status: 0, headers: {}, body: String(error), ms: performance.now() - start };
    }
  }

  post(path: string, fields: Record<string, string>, headers: Record<string, string> = {}): Promise<Answer> {
    return this.ask(path, {
      method: "POST",
      headers: { "content-type": "application/x-www-form-urlencoded", origin: `http://localhost:${this.port}`, ...headers },
      body: new URLSearchParams(fields).toString(),
    });
  }
  postJson(path: string, value: unknown): Promise<Answer> {
    return this.ask(path, {
      method: "POST",
      headers: { "content-type": "application/json", origin: `http://localhost:${this.port}` },
      body: JSON.stringify(value),
    });
  }
}

/** Runs work on a list with so many at a time. */
export async function inLanes<T>(items: Iterable<T>, lanes: number, work: (item: T) => Promise<void>): Promise<void> {
  const queue = items[Symbol.iterator]();
  await Promise.all(
    Array.from({ length: lanes }, async () => {
      for (let next = queue.next(); !next.done; next = queue.next()) await work(next.value);
    }),
  );
}

/** One of a list, by a stream of random numbers. */
export const pickBy =
  (random: () => number) =>
  <T>(list: readonly T[]): T =>
    list[Math.floor(random() * list.length)]!;

export const median = (values: readonly number[]): number => at(values, 0.5);
export const at = (values: readonly number[], share: number): number =>
  [...values].sort((a, b) => a - b)[Math.min(values.length - 1, Math.floor(share * values.length))] ?? NaN;
