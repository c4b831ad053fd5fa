import { type StreamCount, MOST_STREAMS, encoded, eventStream } from "./event-stream.server";

const asked = () => {
  const gone = new AbortController();
  return { gone, request: { method: "GET", signal: gone.signal } };
};
const NEVER = () => () => {};

test("what is told reaches its reader in order, and ends when the reader goes away", async () => {
  const count: StreamCount = { open: 0 };
  const { gone, request } = asked();
  let send: (event: string, body: object) => void = () => {};
  let stopped = 0;
  const response = eventStream(
    request,
    (s) => {
      send = s;
      return () => stopped++;
    },
    { count },
  );
  expect(count.open).toBe(1);
  send("change", { id: 1 });
  send("change", { id: 2 });
  gone.abort();
  expect(await response.text()).toBe('retry: 1000\n\nevent: change\ndata: {"id":1}\n\nevent: change\ndata: {"id":2}\n\n');
  expect([stopped, count.open]).toEqual([1, 0]);
  send("change", { id: 3 }); // told too late: nobody listens, nothing breaks
  gone.abort();
  expect([stopped, count.open]).toEqual([1, 0]);
});

test("a reader that takes nothing is let go, with a bounded pile waiting for it; the others go on", () => {
  const count: StreamCount = { open: 0 };
  const sends: ((event: string, body: object) => void)[] = [];
  let stopped = 0;
  eventStream(asked().request, (s) => (sends.push(s), () => stopped++), { count });
  const line = encoded("change", { text: "x".repeat(1000) }).length;
  for (let told = 0; told < 1_000_000 && stopped === 0; told += line) sends[0]!("change", { text: "x".repeat(1000) });
  expect([stopped, count.open]).toEqual([1, 0]);
});

test("beyond the bound a stream is refused in words, and let in again when another has gone", () => {
  const count: StreamCount = { open: 0 };
  const first = asked();
  eventStream(first.request, NEVER, { count });
  for (let i = 1; i < MOST_STREAMS; i++) eventStream(asked().request, NEVER, { count });
  let refused: unknown;
  try {
    eventStream(asked().request, NEVER, { count });
  } catch (error) {
    refused = error;
  }
  expect(refused).toMatchObject({ data: "Too many screens are open at once; close some.", init: { status: 503 } });
  expect(eventStream({ ...asked().request, method: "HEAD" }, NEVER, { count }).status).toBe(200);
  first.gone.abort();
  expect(eventStream(asked().request, NEVER, { count }).status).toBe(200);
});

test("one change told to many readers is written once", () => {
  const change = { topic: "panel", id: "p" };
  expect(encoded("change", change)).toBe(encoded("change", change));
});
