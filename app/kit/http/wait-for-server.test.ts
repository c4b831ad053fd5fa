import { waitForServer } from "./wait-for-server";

const away = () => Promise.reject(new TypeError("Failed to fetch"));
const LOOK = "http://shop.test/jobs/a.data?_routes=x";

/** A clock whose every rest is over at once, counted. */
function quickClock() {
  let rests = 0;
  const clock = {
    setTimeout: ((f: () => void) => {
      rests++;
      return globalThis.setTimeout(f, 0);
    }) as typeof setTimeout,
    clearTimeout: globalThis.clearTimeout,
  };
  return { clock, rests: () => rests };
}

test("a look waits for a server that is away, says so meanwhile, and gets the answer when it is back", async () => {
  const { clock, rests } = quickClock();
  const said: boolean[] = [];
  let asked = 0;
  const answer = () => Promise.resolve(new Response("[1]", { status: 202, headers: { "x-said": "so" } }));
  const server = waitForServer(() => (++asked < 4 ? away() : answer()), clock);
  const stop = server.subscribe(() => said.push(server.isWaiting()));
  const got = await server.fetch(LOOK);
  expect([got.status, got.headers.get("x-said"), await got.text()]).toEqual([202, "so", "[1]"]);
  expect({ asked, rests: rests(), said, waiting: server.isWaiting() }).toEqual({ asked: 4, rests: 3, said: [true, false], waiting: false });
  stop();
});

test("a look that was left is not asked again", async () => {
  const { clock } = quickClock();
  const left = new AbortController();
  let asked = 0;
  const server = waitForServer(
    () => {
      asked++;
      setTimeout(() => left.abort(new DOMException("left", "AbortError")));
      return away();
    },
    { ...clock, setTimeout: (() => 0) as unknown as typeof setTimeout },
  );
  await expect(server.fetch(LOOK, { signal: left.signal })).rejects.toThrow("left");
  expect({ asked, waiting: server.isWaiting() }).toEqual({ asked: 1, waiting: false });
});

test.each([
  ["what is sent to be stored", LOOK, { method: "POST" }],
  ["what is no page's data", "http://shop.test/healthz", {}],
])("%s fails at once", async (_, url, init) => {
  let asked = 0;
  const server = waitForServer(() => {
    asked++;
    return away();
  });
  await expect(server.fetch(url, init)).rejects.toThrow(TypeError);
  expect(asked).toBe(1);
});

test("what is wrong with the answer itself is not waited out", async () => {
  const server = waitForServer(() => Promise.reject(new RangeError("not a connection")));
  await expect(server.fetch(LOOK)).rejects.toThrow(RangeError);
});

test("an answer that breaks off half way is asked for again, and none without a body is touched", async () => {
  const { clock } = quickClock();
  let asked = 0;
  const half = () =>
    new Response(
      new ReadableStream({
        start(controller) {
          controller.enqueue(new TextEncoder().encode("[1"));
          controller.error(new TypeError("network error"));
        },
      }),
    );
  const server = waitForServer(() => Promise.resolve(++asked === 1 ? half() : new Response("[1]")), clock);
  expect(await (await server.fetch(LOOK)).text()).toBe("[1]");
  expect(asked).toBe(2);
  const none = new Response(null, { status: 204 });
  expect(await waitForServer(() => Promise.resolve(none)).fetch(LOOK)).toBe(none);
});

test("the answer to what was stored is here whole, or fails where it is waited for: nobody reads it half", async () => {
  const broken = () =>
    Promise.resolve(
      new Response(
        new ReadableStream({
          start(c) {
            c.enqueue(new TextEncoder().encode("[1"));
            c.error(new DOMException("left", "AbortError"));
          },
        }),
      ),
    );
  await expect(waitForServer(broken).fetch(LOOK, { method: "POST" })).rejects.toThrow("left");
  const sound = await waitForServer(() => Promise.resolve(new Response("[1]", { status: 201 }))).fetch(LOOK, { method: "POST" });
  expect([sound.status, await sound.text()]).toEqual([201, "[1]"]);
});
