import { EVERY_MS, KEPT, superseded } from "./backup-plan";

const HOUR_MS = 3_600_000;
const START_MS = Date.UTC(2026, 0, 5, 7, 20);

/** Random, and the same again for a seed. */
function dice(seed: number): () => number {
  let state = seed;
  return () => (state = (state * 16807) % 2147483647) / 2147483647;
}

/** What lies there after so many days of a shop that works by day, rests at times, and makes a backup when it may. */
function after(days: number, seed: number) {
  const chance = dice(seed);
  let there: { at_ms: number }[] = [];
  const all: { at_ms: number }[] = [];
  let now_ms = START_MS;
  for (let hour = 0; hour < days * 24; hour++) {
    now_ms = START_MS + hour * HOUR_MS + Math.floor(chance() * 600_000);
    const works = hour % 24 < 11 && Math.floor(hour / 24) % 7 < 5 && chance() > 0.2 && Math.floor(hour / (24 * 40)) % 3 !== 2;
    if (!works || now_ms - (there.at(-1)?.at_ms ?? -Infinity) < EVERY_MS) continue;
    const made = { at_ms: now_ms };
    all.push(made);
    there.push(made);
    const gone = new Set(superseded(there, now_ms));
    there = there.filter((m) => !gone.has(m));
  }
  return { there, all, now_ms: all.at(-1)!.at_ms };
}

test("400 days of a moved clock: of every hour, day, week and month within its time the newest is there, and not many more", () => {
  for (let seed = 1; seed <= 12; seed++) {
    const { there, all, now_ms } = after(400, seed);
    const kept = new Set(there.map((m) => m.at_ms));
    for (const { most, spanOf } of KEPT) {
      const newest = new Map(all.map((m) => [spanOf(m.at_ms), m.at_ms])); // in order of time: the last of a span stays
      for (const [span, at_ms] of newest) if (span > spanOf(now_ms) - most) expect(kept.has(at_ms)).toBe(true);
    }
    expect(there.length).toBeLessThanOrEqual(24 + 7 + 8 + 12);
    expect(there.at(-1)).toBe(all.at(-1));
    // One after the other comes to the same as all at once.
    const atOnce = new Set(superseded(all, now_ms));
    expect(there).toEqual(all.filter((m) => !atOnce.has(m)));
  }
});

test("the newest is never let go, however old; nor one that bears a time to come", () => {
  const old = { at_ms: START_MS };
  const older = { at_ms: START_MS - 800 * 24 * HOUR_MS };
  const ahead = { at_ms: START_MS + 900 * 24 * HOUR_MS };
  const now_ms = START_MS + 800 * 24 * HOUR_MS;
  expect(superseded([older, old], now_ms)).toEqual([older]);
  expect(superseded([older, old, ahead], now_ms)).toEqual([older, old]);
  expect(superseded([], now_ms)).toEqual([]);
});
