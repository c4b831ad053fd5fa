import fc from "fast-check";
import { brier, reliability } from "#core/kernel/stats/reliability";
import { CALIBRATED_FROM, type RunLog, calibrateRuns, calibratedChance } from "./run-calibration";
import { runChance, sagAtEdge } from "./run-chance";
import { hiddenShop } from "./testing/hidden-shop";

const LOGS = 60;

test("60 logs of each of 60 hidden shops: what is said of fresh coats comes true within ten points in every tenth", () => {
  const said: { probability: number; right: boolean }[] = [];
  const before: { probability: number; right: boolean }[] = [];
  for (let seed = 1; seed <= 60; seed++) {
    const shop = hiddenShop(seed);
    const learnt = calibrateRuns(Array.from({ length: LOGS }, shop.coat));
    if (!learnt.enough) continue; // it says a word, no percentage
    for (let i = 0; i < 100; i++) {
      const { sagLocal_m, ran } = shop.coat();
      said.push({ probability: calibratedChance(learnt, sagLocal_m), right: ran });
      before.push({ probability: runChance(sagAtEdge(sagLocal_m)), right: ran });
    }
  }
  expect(said.length).toBeGreaterThan(3000);
  for (const t of reliability(said).filter((r) => r.n >= 20)) expect(Math.abs(t.right - t.said)).toBeLessThanOrEqual(0.1);
  expect(brier(said)).toBeLessThan(brier(before));
});

test("before there are logs enough, with runs and without among them, there is no percentage", () => {
  const log = (ran: boolean): RunLog => ({ sagLocal_m: 0.006, ran });
  const of = (runs: number, right: number) =>
    calibrateRuns([...Array.from({ length: runs }, () => log(true)), ...Array.from({ length: right }, () => log(false))]);
  expect([of(0, 0), of(0, 60), of(2, 58), of(CALIBRATED_FROM.ofEach, 10)].map((c) => c.enough)).toEqual([false, false, false, false]);
  expect(of(CALIBRATED_FROM.ofEach, CALIBRATED_FROM.logs).enough).toBe(true);
});

test("more sag is never less likely to run, more runs seen never make it less likely, and a chance is a chance", () => {
  const logs = fc.array(fc.record({ sagLocal_m: fc.double({ min: 1e-4, max: 0.08, noNaN: true }), ran: fc.boolean() }), { maxLength: 12 });
  fc.assert(
    fc.property(logs, fc.double({ min: 1e-4, max: 0.08, noNaN: true }), (list, sag_m) => {
      const c = calibrateRuns(list);
      const at = calibratedChance(c, sag_m);
      expect(at >= 0 && at <= 1).toBe(true);
      expect(calibratedChance(c, 1.3 * sag_m)).toBeGreaterThanOrEqual(at - 1e-12);
      const more = calibrateRuns(list.map((l, i) => (i === 0 ? { ...l, ran: true } : l)));
      const less = calibrateRuns(list.map((l, i) => (i === 0 ? { ...l, ran: false } : l)));
      if (list.length > 0) expect(calibratedChance(more, list[0]!.sagLocal_m)).toBeGreaterThan(calibratedChance(less, list[0]!.sagLocal_m));
    }),
    { numRuns: 25 },
  );
  expect(() => calibrateRuns([{ sagLocal_m: Number.NaN, ran: true }])).toThrow(RangeError);
});

test("reliability: Brier's own worked sum, and tenths that hold what they should", () => {
  // Brier 1950 (from memory): (0.7 − 1)² and (0.3 − 0)², mean 0.09.
  expect(
    brier([
      { probability: 0.7, right: true },
      { probability: 0.3, right: false },
    ]),
  ).toBeCloseTo(0.09, 12);
  const tenths = reliability([0, 0.05, 0.1, 0.95, 1].map((probability) => ({ probability, right: probability > 0.5 })));
  expect(tenths.map((t) => [t.from, t.n])).toEqual([
    [0, 2],
    [0.1, 1],
    [0.9, 2],
  ]);
  expect(reliability([])).toEqual([]);
});
