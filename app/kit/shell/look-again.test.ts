import { jest } from "@jest/globals";
import { LOOK, lookAgain } from "./look-again";

beforeEach(() => jest.useFakeTimers());
afterEach(() => jest.useRealTimers());

/** Looks made while a change comes every so often; each look takes a time. */
async function storm({ every_ms, for_ms, look_ms = 40 }: { every_ms: number; for_ms: number; look_ms?: number }) {
  const looks: number[] = [];
  const begun = Date.now();
  const { changed, stop } = lookAgain(async () => {
    looks.push(Date.now() - begun);
    await new Promise((done) => setTimeout(done, look_ms));
  });
  for (let t = 0; t < for_ms; t += every_ms) {
    changed();
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
