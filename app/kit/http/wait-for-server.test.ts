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
  const answer = {} as Response;
  const server = waitForServer(() => (++asked < 4 ? away() : Promise.resolve(answer)), clock);
  const stop = server.subscribe(() => said.push(server.isWaiting()));
  expect(await server.fetch(LOOK)).toBe(answer);
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
