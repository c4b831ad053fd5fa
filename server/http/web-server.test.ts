import { once } from "node:events";
import { type IncomingMessage, type RequestOptions, request as httpRequest } from "node:http";
import type { AddressInfo } from "node:net";
import { text } from "node:stream/consumers";
import { pino } from "pino";
import { StorageFault } from "../db/storage-fault";
import { allowedHosts } from "./gate";
import { STREAMS_A_DEVICE, webApp } from "./web-server";

const lines: Record<string, unknown>[] = [];
const log = pino({ level: "debug" }, { write: (line: string) => void lines.push(JSON.parse(line) as Record<string, unknown>) });
let healthy = true;
const app = webApp({
  hosts: allowedHosts(),
  log,
  files: null,
  health: () => (healthy ? Promise.resolve() : Promise.reject(new StorageFault("damaged", null))),
  requestsAWindow: { read: 400, write: 40 },
  pages: (req, res, next) => {
    if (req.path === "/do/events") return void res.type("text/event-stream").write("retry: 1000\n\n");
    if (req.path === "/fault") return next(new Error("inside"));
    let bytes = 0;
    req.on("data", (chunk: Buffer) => (bytes += chunk.length));
    req.on("end", () => void res.send(String(bytes)));
    req.on("error", next);
  },
});
const server = app.listen(0, "127.0.0.1");
beforeAll(() => once(server, "listening"));
afterAll(() => server.close());

async function ask(path: string, options: RequestOptions & { body?: string | string[] } = {}) {
  const { body, ...rest } = options;
  const req = httpRequest({ port: (server.address() as AddressInfo).port, host: "127.0.0.1", path, ...rest });
  for (const chunk of Array.isArray(body) ? body : body ? [body] : []) req.write(chunk);
  req.end();
  const [answer] = (await once(req, "response")) as [IncomingMessage];
  return { status: answer.statusCode, headers: answer.headers, body: await text(answer) };
}

test("every answer carries the policy: pages, refusals, faults, and what is not there", async () => {
  const answers = await Promise.all([ask("/x"), ask("/x", { headers: { host: "evil.test" } }), ask("/fault"), ask("/healthz")]);
  expect(answers.map((a) => a.status)).toEqual([200, 421, 500, 200]);
  for (const { headers } of answers) {
    expect(headers["content-security-policy"]).toMatch(/script-src 'self' 'nonce-[A-Za-z0-9+/=]{24}' 'strict-dynamic'/);
    expect(headers["x-content-type-options"]).toBe("nosniff");
    expect(headers["cross-origin-resource-policy"]).toBe("same-origin");
    expect(headers["x-request-id"]).toMatch(/^[0-9a-f-]{36}$/);
  }
});

test("a fault keeps its inside for the log, which names time, route and request", async () => {
  lines.length = 0;
  const answer = await ask("/fault");
  expect(answer.body).not.toContain("inside");
  const told = lines.find((l) => l.msg === "not answered")!;
  const line = lines.find((l) => l.route === "/fault")!;
  expect(told.requestId).toBe(answer.headers["x-request-id"]);
  expect(line).toMatchObject({ method: "GET", status: 500, requestId: told.requestId });
  expect(typeof line.time).toBe("number");
});

test("a body that hides its length is cut off where its route ends", async () => {
  const chunk = "x".repeat(300_000);
  await expect(ask("/house", { method: "POST", body: [chunk, chunk, chunk] })).resolves.toMatchObject({ status: 200, body: "900000" });
  await expect(ask("/house", { method: "POST", body: [chunk, chunk, chunk, chunk, chunk] })).rejects.toThrow();
});

test("health says so when the data file fails", async () => {
  healthy = false;
  expect(await ask("/healthz")).toMatchObject({ status: 503, body: expect.stringContaining("damaged") as string });
  healthy = true;
});

test("a flood of writes is turned away in words", async () => {
  const answers = await Promise.all(Array.from({ length: 60 }, () => ask("/house", { method: "POST", body: "a=1" })));
  const turned = answers.filter((a) => a.status === 429);
  expect(turned.length).toBeGreaterThanOrEqual(20);
  expect(turned[0]!.body).toContain("Too many requests");
});

test("of one device so many streams are open at once and no more; one that ends makes room for another", async () => {
  const follow = async () => {
    const req = httpRequest({ port: (server.address() as AddressInfo).port, host: "127.0.0.1", path: "/do/events" });
    req.end();
    const [answer] = (await once(req, "response")) as [IncomingMessage];
    return { status: answer.statusCode, answer, end: () => req.destroy() };
  };
  const open = await Promise.all(Array.from({ length: STREAMS_A_DEVICE }, follow));
  expect(open.map((o) => o.status)).toEqual(open.map(() => 200));
  const more = await follow();
  expect([more.status, await text(more.answer)]).toEqual([503, "Too many screens are open on this device; close some."]);
  open[0]!.end();
  let next = await follow();
  for (let tries = 0; tries < 50 && next.status !== 200; tries++) {
    next.end();
    await new Promise((done) => setTimeout(done, 20));
    next = await follow();
  }
  expect(next.status).toBe(200);
  for (const { end } of [...open, next]) end();
});
