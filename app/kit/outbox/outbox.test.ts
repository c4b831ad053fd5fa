/** @jest-environment node */
import "fake-indexeddb/auto";
import { jest } from "@jest/globals";
import { type Outbox, type Waiting, createOutbox } from "./outbox";

const reading = (key: string, value = "131"): Waiting => ({ key, panelId: "p", phase: "after", spot: "1", value, fields: { value } });
const sent: string[] = [];
let answer: () => Promise<Response> = () => Promise.resolve(new Response("{}"));
const fetchHere = ((_url: string, init: RequestInit) => {
  sent.push((init.body as URLSearchParams).get("clientKey")!);
  return answer();
}) as typeof fetch;
const made: Outbox[] = [];
const outbox = () => {
  const o = createOutbox();
  made.push(o);
  return o;
};
const settled = async (o: Outbox, done: () => boolean) => {
  for (let i = 0; i < 400 && !done(); i++) await new Promise((r) => setImmediate(r));
  return o.get();
};
beforeEach(() => {
  sent.length = 0;
  globalThis.fetch = fetchHere;
});
afterEach(() => made.splice(0).forEach((o) => o.stop()));

test("readings go one after another, in the order in which they were typed", async () => {
  answer = () => Promise.resolve(Response.json({ ok: true }));
  const o = outbox();
  for (const key of ["a", "b", "c"]) o.add(reading(key));
  expect(await settled(o, () => o.get().waiting.length === 0)).toMatchObject({ waiting: [], held: null });
  expect(sent).toEqual(["a", "b", "c"]);
});

test.each([
  ["a fault of the server", () => Promise.resolve(new Response("Something went wrong", { status: 500 }))],
  ["a full disk", () => Promise.resolve(Response.json({ ok: false, message: "The disk is full" }, { status: 507 }))],
  ["too many requests", () => Promise.resolve(new Response("later", { status: 429 }))],
  ["no connection", () => Promise.reject(new TypeError("failed"))],
])("%s is no answer yet: the reading waits, outlives its window and is stored once it can be", async (_what, fault) => {
  answer = fault;
  const first = outbox();
  first.add(reading("x"));
  const held = await settled(first, () => first.get().held !== null);
  expect(held.waiting.map((w) => w.key)).toEqual(["x"]);
  expect(held.refused).toEqual([]);
  first.stop(); // the window is closed
  answer = () => Promise.resolve(Response.json({ ok: true }));
  const next = outbox();
  await next.resume();
  expect(next.get().waiting).toEqual([]);
  expect(sent).toEqual(["x", "x"]);
  const third = outbox();
  await third.resume();
  expect(sent).toEqual(["x", "x"]); // stored: nothing is left to send
});

test("a refusal comes back with what was typed and why, and the next reading goes on", async () => {
  answer = () =>
    Promise.resolve(sent.length === 1 ? Response.json({ ok: false, message: "Below 0" }, { status: 422 }) : Response.json({ ok: true }));
  const o = outbox();
  o.add(reading("bad", "-5"));
  o.add(reading("good"));
  const end = await settled(o, () => o.get().waiting.length === 0);
  expect(end.refused).toEqual([{ key: "bad", panelId: "p", phase: "after", spot: "1", value: "-5", message: "Below 0" }]);
  o.drop("bad");
  expect(o.get().refused).toEqual([]);
});

test("a reading typed when nobody is signed in any more waits until somebody is", async () => {
  answer = () => Promise.resolve(new Response("Nobody is signed in on this device any more.", { status: 401 }));
  const o = outbox();
  o.add(reading("late"));
  const end = await settled(o, () => o.get().held !== null);
  expect(end).toMatchObject({ refused: [], held: "Nobody is signed in on this device any more." });
  expect(end.waiting.map((w) => w.key)).toEqual(["late"]);
});

test("it tries again by itself", async () => {
  jest.useFakeTimers({ doNotFake: ["setImmediate", "queueMicrotask"] });
  answer = () => Promise.reject(new TypeError("failed"));
  const o = outbox();
  o.add(reading("later"));
  await settled(o, () => o.get().held !== null);
  answer = () => Promise.resolve(Response.json({ ok: true }));
  jest.advanceTimersByTime(5000);
  await settled(o, () => o.get().waiting.length === 0);
  jest.useRealTimers();
  expect(o.get()).toEqual({ waiting: [], refused: [], held: null });
});

test("a reading that waited says how long ago it was typed, whenever it is sent", async () => {
  const ages: number[] = [];
  globalThis.fetch = ((_url: string, init: RequestInit) => {
    ages.push(Number((init.body as URLSearchParams).get("age_s")));
    return answer();
  }) as typeof fetch;
  answer = () => Promise.reject(new TypeError("failed"));
  const clock = jest.spyOn(Date, "now");
  try {
    clock.mockReturnValue(1_000_000);
    const first = outbox();
    first.add(reading("late"));
    await settled(first, () => first.get().held !== null);
    first.stop();
    clock.mockReturnValue(1_000_000 + 90 * 60_000);
    answer = () => Promise.resolve(Response.json({ ok: true }));
    await outbox().resume();
    expect(ages).toEqual([0, 5400]);
  } finally {
    clock.mockRestore();
  }
});
