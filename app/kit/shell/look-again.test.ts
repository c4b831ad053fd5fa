import { jest } from "@jest/globals";
import { LOOK, apartOf, lookAgain } from "./look-again";

beforeEach(() => jest.useFakeTimers());
afterEach(() => jest.useRealTimers());

/** Looks made while a change comes every so often; each look takes a time. */
async function storm({
  every_ms,
  for_ms,
  look_ms = 40,
  windows = 20,
  share = 0,
}: {
  every_ms: number;
  for_ms: number;
  look_ms?: number;
  windows?: number;
  share?: number;
}) {
  const looks: number[] = [];
  const begun = Date.now();
  const { changed, stop } = lookAgain(
    async () => {
      looks.push(Date.now() - begun);
      await new Promise((done) => setTimeout(done, look_ms));
    },
    globalThis,
    share,
  );
  for (let t = 0; t < for_ms; t += every_ms) {
    changed(windows);
    await jest.advanceTimersByTimeAsync(every_ms);
  }
  const during = [...looks];
  await jest.advanceTimersByTimeAsync(5000);
  stop();
  return { during, after: looks.length - during.length };
}
const gaps = (times: readonly number[]) => times.slice(1).map((t, i) => t - times[i]!);

test("in a storm of 20 changes a second a window looks again at least once a second, and not much more", async () => {
  const { during, after } = await storm({ every_ms: 50, for_ms: 15_000 });
  expect(during[0]).toBeLessThanOrEqual(LOOK.apart_ms);
  expect(Math.max(...gaps(during))).toBeLessThanOrEqual(LOOK.apart_ms + LOOK.burst_ms);
  expect(during.length).toBeLessThanOrEqual(17);
  expect(after).toBeGreaterThanOrEqual(1); // the last change is seen
});

test.each([20, 70, 110, 130, 300, 700])(
  "with a change every %i ms a window looks about once a second, and no change waits longer",
  async (every_ms) => {
    const { during, after } = await storm({ every_ms, for_ms: 20_000 });
    expect(during.length).toBeLessThanOrEqual(21);
    expect(Math.max(...gaps(during))).toBeLessThanOrEqual(Math.max(LOOK.apart_ms, every_ms) + LOOK.burst_ms + every_ms);
    expect(after).toBeGreaterThanOrEqual(1);
  },
);

test("a change after a rest is looked at at once, also where another came a second before", async () => {
  const { during } = await storm({ every_ms: 4000, for_ms: 12_000 });
  expect(during).toEqual([
    LOOK.burst_ms,
    LOOK.settle_ms,
    4000 + LOOK.burst_ms,
    4000 + LOOK.settle_ms,
    8000 + LOOK.burst_ms,
    8000 + LOOK.settle_ms,
  ]);
});

test("a single change is looked at soon, and once more when the burst is over", async () => {
  const { during, after } = await storm({ every_ms: 300, for_ms: 300 });
  expect(during).toEqual([LOOK.burst_ms]);
  expect(after).toBe(1);
});

test("a slow answer is never overtaken by the next look", async () => {
  const { during } = await storm({ every_ms: 50, for_ms: 12_000, look_ms: 3000 });
  expect(Math.min(...gaps(during))).toBeGreaterThanOrEqual(3000);
});

test("a few windows look more often than many, and all together no more than the machine answers", () => {
  const apart = Array.from({ length: 200 }, (_, i) => apartOf(i + 1));
  apart.forEach((ms, i) => {
    expect(ms).toBeGreaterThanOrEqual(Math.max(LOOK.least_apart_ms, apart[i - 1] ?? 0));
    expect(ms).toBeLessThanOrEqual(LOOK.apart_ms);
    if (ms > LOOK.least_apart_ms && ms < LOOK.apart_ms) expect((1000 * (i + 1)) / ms).toBeCloseTo(LOOK.looks_a_second, 9);
  });
});

test.each([0, 0.5, 1])(
  "twelve windows, each with its own share of the wait (%d): none is a second behind while six changes a second come",
  async (share) => {
    const { during, after } = await storm({ every_ms: 167, for_ms: 20_000, windows: 12, share });
    expect(Math.max(...gaps(during))).toBeLessThanOrEqual(900);
    expect(after).toBeGreaterThanOrEqual(1);
  },
);

test("windows that hear of one change in the same moment do not all ask in the same moment; a window by itself does not wait", async () => {
  const first = async (windows: number, share: number) => (await storm({ every_ms: 5000, for_ms: 5000, windows, share })).during[0];
  expect(await first(12, 0)).toBe(LOOK.burst_ms);
  expect(await first(12, 1)).toBe(LOOK.burst_ms + LOOK.spread_ms);
  expect(await first(1, 1)).toBe(LOOK.burst_ms);
});
