import fc from "fast-check";
import { bodyLimit } from "./body-limits";
import { allowedHosts, hostName, isLoopback, turnedAway } from "./gate";

const hosts = allowedHosts("shop.example, paint.example");
const ask = (headers: Record<string, string>, method = "POST", path = "/do/shelf/import") =>
  turnedAway({ method, path, headers: { host: "localhost:3000", ...headers } }, hosts)?.status ?? 200;

test("a page of our own and a program that is no browser may write", () => {
  expect(ask({ origin: "http://localhost:3000", "sec-fetch-site": "same-origin" })).toBe(200);
  expect(ask({ origin: "https://shop.example", host: "shop.example" })).toBe(200);
  expect(ask({})).toBe(200);
});

test("whatever a browser says of a foreign page, it may not write", () => {
  const foreign = fc.oneof(
    fc.webUrl().map((origin) => ({ origin: new URL(origin).origin })),
    fc
      .constantFrom("null", "http://localhost:3001", "http://localhost", "https://localhost:3000.evil.test", "file://", "")
      .map((origin) => ({ origin })),
    fc.constantFrom("cross-site", "same-site", "anything").map((site) => ({ "sec-fetch-site": site })),
  );
  fc.assert(fc.property(foreign, (headers: Record<string, string>) => ask(headers) === 403));
});

test("a name that is not ours reads and writes nothing, with whatever port", () => {
  fc.assert(
    fc.property(fc.domain(), fc.integer({ min: 1, max: 65535 }), fc.constantFrom("GET", "POST"), (name, port, method) => {
      const host = `${name}:${port}`;
      return ask({ host, origin: `http://${host}`, "sec-fetch-site": "same-origin" }, method, "/") === 421;
    }),
  );
  for (const host of [
    "",
    ":3000",
    "localhost:65536",
    "localhost:99999",
    "localhost:3000@evil.test",
    "localhost evil.test",
    "[::2]:3000",
    "127.0.0.1.evil.test",
  ])
    expect(ask({ host }, "GET")).toBe(421);
  for (const host of ["localhost", "LOCALHOST:80", "127.0.0.1:3000", "[::1]:3000", "paint.example"]) expect(ask({ host }, "GET")).toBe(200);
});

test("a visit from another site is let in, a picture or a script for its page is not", () => {
  const site = { "sec-fetch-site": "cross-site" };
  expect(ask({ ...site, "sec-fetch-mode": "navigate", "sec-fetch-dest": "document" }, "GET", "/jobs")).toBe(200);
  expect(ask({ ...site, "sec-fetch-mode": "no-cors", "sec-fetch-dest": "image" }, "GET", "/do/photos/x")).toBe(403);
  expect(ask({ ...site, "sec-fetch-mode": "navigate", "sec-fetch-dest": "iframe" }, "GET", "/jobs")).toBe(403);
});

test("what is asked is a path: neither a proxy's form nor a star comes in", () => {
  for (const path of ["*", "http://localhost:3000/jobs", "http://evil.test/jobs", "", "jobs"]) expect(ask({}, "GET", path)).toBe(400);
  expect(ask({}, "GET", "/jobs")).toBe(200);
});

test("only reading and posting are answered; a body beyond its route's bound is not read", () => {
  for (const method of ["PUT", "DELETE", "PATCH", "OPTIONS", "TRACE"]) expect(ask({}, method)).toBe(405);
  expect(ask({ "content-length": String(bodyLimit("/house") + 1) }, "POST", "/house")).toBe(413);
  expect(ask({ "content-length": "1000000" }, "POST", "/house")).toBe(200);
  expect(ask({ "content-length": "90000000" }, "POST", "/do/jobs/import.data")).toBe(200);
  expect(bodyLimit("/jobs/a/panels/b/inspect/photo.data")).toBeGreaterThan(40e6);
  expect(bodyLimit("/jobs/a/panels/b/inspect/photos")).toBe(1e6);
});

test("hosts without their ports, and which of them are this machine", () => {
  expect(hostName("[::1]:3000")).toBe("[::1]");
  expect(hostName("a:b:c")).toBeNull();
  expect(["127.0.0.1", "::1", "localhost", "0.0.0.0", "192.168.1.4"].map(isLoopback)).toEqual([true, true, true, false, false]);
});
