import fc from "fast-check";
import { MOMENT } from "#workers/bench-talk";
import { HandLog } from "./hand-log";

const watched = () => {
  const log = new HandLog(0.175);
  log.begins(false);
  log.isWatched();
  return log;
};
/** Moments as the bench gets them: time, place, distance, whether pulled. */
const momentsOf = (news: Float64Array | null) =>
  Array.from({ length: (news?.length ?? 0) / MOMENT }, (_, k) => [...news!.slice(k * MOMENT, (k + 1) * MOMENT)]);

test("what a frame says of the gun holds until an event says otherwise of the time before it", () => {
  const log = watched();
  log.passes(10, true);
  log.gun.x_m = 0.1;
  log.passes(10.5, true); // the device stood still: the frame comes first
  log.gun.x_m = 0.05;
  log.passes(10.2, false);
  log.gun.x_m = 0.1;
  log.passes(10.4, false);
  expect(momentsOf(log.news()).map(([t_s, x_m]) => [+t_s!.toFixed(3), x_m])).toEqual([
    [0, -0.08],
    [0.2, 0.05],
    [0.4, 0.1],
  ]);
  expect(log.news()).toBeNull();
});

test("whatever comes in whatever order, time never goes back, and all of it is handed over once", () => {
  const tick = fc.record({ dt_s: fc.double({ min: -0.1, max: 0.2, noNaN: true }), ofFrame: fc.boolean(), takes: fc.boolean() });
  fc.assert(
    fc.property(fc.array(tick, { minLength: 1, maxLength: 60 }), (ticks) => {
      const log = watched();
      const got: number[] = [];
      let at_s = 100;
      for (const { dt_s, ofFrame, takes } of ticks) {
        at_s += dt_s;
        if (takes && ofFrame) got.push(...momentsOf(log.news()).map(([t_s]) => t_s!));
        log.passes(at_s, ofFrame);
      }
      got.push(...momentsOf(log.news()).map(([t_s]) => t_s!));
      expect(got.every((t_s, k) => k === 0 || t_s >= got[k - 1]!)).toBe(true);
      expect(log.t_s).toBeGreaterThanOrEqual(0);
      expect(log.t_s).toBeLessThan(0.21 * ticks.length);
    }),
    { numRuns: 200 },
  );
});

test("a device that slept, and a page in the background, lose no time; keys steer no farther than what is seen", () => {
  const log = watched();
  log.passes(5, true);
  log.passes(65, true);
  expect(log.t_s).toBe(0);
  log.passes(65.5, true);
  log.pauses();
  log.passes(70, true);
  expect(log.t_s).toBeCloseTo(0.5, 9);
  log.keepsWithin({ x0: 0, x1: 1, y0: 0, y1: 1 });
  log.gun.steers = { x: 1, y: -1 };
  log.isSteered(71, 0.3);
  expect(log.gun.x_m).toBeCloseTo(0.22, 9);
  for (let at_s = 71; at_s < 80; at_s++) {
    log.passes(at_s, true);
    log.isSteered(at_s + 1, 0.3);
  }
  expect(log.gun).toMatchObject({ x_m: 0.98, y_m: 0.02 });
});

test("the hand now: its speed over a quarter of a second, its overlap with the row before", () => {
  const log = watched();
  const rows = [{ across_m: 0.1, last: 3 }] as unknown as Parameters<HandLog["now"]>[0];
  log.gun.pulled = true;
  for (let k = 0; k <= 20; k++) {
    Object.assign(log.gun, { x_m: 0.04 * k * 0.34, y_m: 0.2 });
    log.passes(100 + 0.04 * k, true);
  }
  const now = log.now(rows, 0.25);
  expect(now.speed_m_s).toBeCloseTo(0.34, 6);
  expect(now.overlap).toBeCloseTo(0.6, 9);
  expect(now).toMatchObject({ distance_m: 0.175, pulled: true });
});
