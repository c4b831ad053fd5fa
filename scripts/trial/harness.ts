import { type ChildProcess, spawn } from "node:child_process";
import { once } from "node:events";
import { cpSync, mkdtempSync, rmSync } from "node:fs";
import { Agent, type IncomingHttpHeaders, type IncomingMessage, request as httpRequest } from "node:http";
import { createServer } from "node:net";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { text } from "node:stream/consumers";
import { AGE_HEADER, KEY_HEADER } from "#server/sent-headers";

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
  /** Address of the machine that asks: others are played by 127.0.0.2 and on. */
  from?: string;
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

/** Of the owner that the trial makes. */
export const OWNER_PASSCODE = "harbour-9-clear";
/** Every server of the trial asks who is there, and is asked by its owner: the same campaign with a sign-in. */
const SIGNED_IN = process.env.TRIAL_SIGNED_IN === "1";

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
  #cookie = "";
  #agent = new Agent({ keepAlive: true, maxSockets: 32 });
  port = 0;
  /** What it said on its error stream, and the code it ended with. */
  said = "";
  /** Its log, as lines of JSON. */
  log = "";
  constructor(
    readonly folder: string,
    readonly env: Record<string, string> = {},
    readonly args: readonly string[] = [],
  ) {}

  /** Starts it and waits until it listens. @returns false when it ended instead */
  async start(): Promise<boolean> {
    this.port ||= await freePort();
    this.said = "";
    const child = spawn(process.execPath, ["--import", "./e2e/shift-clock.mjs", "server.mjs", ...(SIGNED_IN ? ["--lan"] : this.args)], {
      env: {
        ...process.env,
        NODE_ENV: "production",
        YAKAMOZ_DATA: this.folder,
        PORT: String(this.port),
        LOG_LEVEL: "error",
        YAKAMOZ_REQUESTS_A_WINDOW: "10000000",
        ...(SIGNED_IN ? { HOST: "127.0.0.1" } : {}),
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
    if (up && SIGNED_IN && this.args.length === 0) await this.#signIn();
    return up;
  }

  /** The machine's owner, at the machine: known by its cookie from then on. */
  async #signIn(): Promise<void> {
    if (this.#cookie) return;
    await this.again();
  }

  /** Somebody signs in again: what a campaign sends may have signed everybody off. */
  async again(): Promise<void> {
    if (!SIGNED_IN) return;
    const passcode = OWNER_PASSCODE;
    const made = await this.post("/owner", { name: "Owner", passcode });
    const here = () => this.post("/pair", { intent: "here", passcode });
    let answer = made.status === 302 && made.headers["set-cookie"] ? made : await here();
    // Guesses are slowed down, and so is whoever knows the passcode.
    for (let i = 0; answer.status === 429 && i < 10; i++) {
      await new Promise((done) => setTimeout(done, 2000));
      answer = await here();
    }
    this.#cookie = answer.headers["set-cookie"]?.[0]?.split(";")[0] ?? "";
    if (!this.#cookie) throw new Error(`nobody could sign in: ${answer.status} ${answer.body.slice(0, 200)}`);
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

  /** What its owner's machine shows, for a browser. */
  get deviceCookie(): { name: string; value: string; url: string }[] {
    const [name = "", value = ""] = this.#cookie.split("=");
    return name ? [{ name, value, url: `http://localhost:${this.port}` }] : [];
  }

  /** Resident memory, bytes. */
  get pid(): number {
    return this.#child?.pid ?? 0;
  }

  async ask(path: string, { method = "GET", headers = {}, body: sent, from }: Ask = {}): Promise<Answer> {
    const start = performance.now();
    let reused = false;
    try {
      const req = httpRequest({
        host: "127.0.0.1",
        port: this.port,
        path,
        method,
        agent: this.#agent,
        ...(from ? { localAddress: from } : {}),
        headers: {
          host: `localhost:${this.port}`,
          ...(this.#cookie ? { cookie: this.#cookie } : {}),
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
      if (reused && method === "GET" && (error as NodeJS.ErrnoException).code === "ECONNRESET")
        return this.ask(path, { headers, ...(from ? { from } : {}) });
      return { status: 0, headers: {}, body: String(error), ms: performance.now() - start };
    }
  }

  post(path: string, fields: Record<string, string>, headers: Record<string, string> = {}): Promise<Answer> {
    return this.ask(path, this.form(fields, headers));
  }
  /** A form as a page of the program sends it. */
  form(fields: Record<string, string>, headers: Record<string, string> = {}): Ask {
    return {
      method: "POST",
      headers: { "content-type": "application/x-www-form-urlencoded", origin: `http://localhost:${this.port}`, ...headers },
      body: new URLSearchParams(fields).toString(),
    };
  }
  postJson(path: string, value: unknown, headers: Record<string, string> = {}): Promise<Answer> {
    return this.ask(path, {
      method: "POST",
      headers: { "content-type": "application/json", origin: `http://localhost:${this.port}`, ...headers },
      body: JSON.stringify(value),
    });
  }
}

/** What writes are sent to. */
export type Sender = Pick<TrialServer, "post" | "postJson">;

/** The same server, as the outbox of a device sends to it: under a key, some time after it happened. */
export function fromOutbox(server: TrialServer, key: string, age_s: number): Sender {
  const headers = { [KEY_HEADER]: key, [AGE_HEADER]: String(age_s) };
  return {
    post: (path, fields, more) => server.post(path, fields, { ...headers, ...more }),
    postJson: (path, value, more) => server.postJson(path, value, { ...headers, ...more }),
  };
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
