import fc from "fast-check";
import { choleskyFactor, choleskySolve } from "#core/kernel/stats/cholesky";
import { STEP_SPREAD } from "./learn-removal";
import { weighMeasured } from "./measured-step";
import { type Removal, sumOf } from "./removal-plan";
import { NOTHING_TOLD, type Told, asTold, ifMarked, toldBy, untold } from "./removal-told";

const um = (x: number) => x * 1e-6;
const NAMES = ["hard", "medium", "soft", "unmeasured"] as const;
/** A step of 1 to 12 µm with a doubt of its own and two to four that it shares with others. */
const step = fc
  .record({
    removal: fc.double({ min: 1, max: 12, noNaN: true }),
    own: fc.double({ min: 0.05, max: 0.3, noNaN: true }),
    shared: fc.uniqueArray(fc.tuple(fc.constantFrom(...NAMES), fc.double({ min: 0.02, max: 0.35, noNaN: true })), {
      minLength: 1,
      maxLength: 4,
      selector: ([name]) => name,
    }),
  })
  .map(({ removal, own, shared }): Removal & { common_m: Record<string, number> } => {
    const common_m = Object.fromEntries(shared.map(([name, part]) => [name, um(removal * part)]));
    return { removal_m: um(removal), u_m: Math.hypot(um(removal * own), ...Object.values(common_m)), common_m };
  });
const mark = fc
  .record({ removal: fc.double({ min: -2, max: 20, noNaN: true }), u: fc.double({ min: 0.3, max: 3, noNaN: true }) })
  .map(({ removal, u }) => ({ removal_m: um(removal), u_m: um(u) }));

/** All shared unknowns together, conditioned on readings by the textbook: mean and covariance by the names' order. */
function exactly(readings: readonly { step: Removal; mark: Removal }[]): { mean: number[]; covariance: number[][] } {
  const n = readings.length;
  const loads = readings.map(({ step: s }) => NAMES.map((name) => s.common_m?.[name] ?? 0));
  const k = new Float64Array(n * n);
  for (let i = 0; i < n; i++)
    for (let j = 0; j < n; j++)
      k[i * n + j] = loads[i]!.reduce((a, c, q) => a + c * loads[j]![q]!, 0) + (i === j ? alone(readings[i]!) : 0);
  const factor = choleskyFactor(k, n);
  const solved = choleskySolve(
    factor,
    readings.map((r) => r.mark.removal_m - r.step.removal_m),
    n,
  );
  const mean = NAMES.map((_, q) => loads.reduce((a, l, i) => a + l[q]! * solved[i]!, 0));
  const covariance = NAMES.map((_, q) => {
    const column = choleskySolve(
      factor,
      loads.map((l) => l[q]!),
      n,
    );
    return NAMES.map((__, p) => (p === q ? 1 : 0) - loads.reduce((a, l, i) => a + l[p]! * column[i]!, 0));
  });
  return { mean, covariance };
}
/** What a reading has of its own: the step's own doubt, the mark's, and from place to place. */
function alone({ step: s, mark: m }: { step: Removal; mark: Removal }): number {
  const shared = Object.values(s.common_m ?? {}).reduce((a, c) => a + c * c, 0);
  return Math.max(0, s.u_m ** 2 - shared) + m.u_m ** 2 + (STEP_SPREAD * s.removal_m) ** 2;
}
const after = (readings: readonly { step: Removal; mark: Removal }[]): Told =>
  readings.reduce((told, r) => toldBy(told, r.step, r.mark), NOTHING_TOLD);

test("one mark tells each shared unknown what joint conditioning tells it (multivariate normal, from memory)", () => {
  fc.assert(
    fc.property(step, mark, (s, m) => {
      const told = toldBy(NOTHING_TOLD, s, m);
      const { mean, covariance } = exactly([{ step: s, mark: m }]);
      NAMES.forEach((name, q) => {
        expect(told[name]?.mean ?? 0).toBeCloseTo(mean[q]!, 9);
        expect((told[name]?.sd ?? 1) ** 2).toBeCloseTo(covariance[q]![q]!, 9);
      });
    }),
  );
});

test("several marks of one shared unknown come out as by joint conditioning, in any order", () => {
  fc.assert(
    fc.property(fc.array(fc.tuple(step, mark), { minLength: 1, maxLength: 5 }), (list) => {
      const readings = list.map(([s, m]) => {
        const part = Object.values(s.common_m)[0]!;
        const own = Math.sqrt(s.u_m ** 2 - Object.values(s.common_m).reduce((a, c) => a + c * c, 0));
        return { step: { removal_m: s.removal_m, u_m: Math.hypot(own, part), common_m: { medium: part } }, mark: m };
      });
      // What would take a step below nothing is cut off there: that is no normal any more.
      fc.pre(readings.every((_, i) => asTold(readings[i]!.step, after(readings.slice(0, i))).removal_m > 0));
      const there = after(readings).medium!;
      const { mean, covariance } = exactly(readings);
      expect(there.mean).toBeCloseTo(mean[1]!, 8);
      expect(there.sd ** 2).toBeCloseTo(covariance[1]![1]!, 8);
    }),
  );
});

test("a work of several steps is never surer than by joint conditioning, and never less sure than before", () => {
  fc.assert(
    fc.property(fc.array(step, { minLength: 1, maxLength: 4 }), step, mark, (work, marked, m) => {
      const told = toldBy(NOTHING_TOLD, marked, m);
      const { covariance } = exactly([{ step: marked, mark: m }]);
      const loads = NAMES.map((name) => work.reduce((a, s) => a + (s.common_m[name] ?? 0), 0));
      const own2 = work.reduce((a, s) => a + s.u_m ** 2 - Object.values(s.common_m).reduce((b, c) => b + c * c, 0), 0);
      const joint = own2 + loads.reduce((a, l, p) => a + loads.reduce((b, k, q) => b + l * k * covariance[p]![q]!, 0), 0);
      const { u_m } = sumOf(work.map((s) => asTold(s, told)));
      expect(u_m).toBeGreaterThanOrEqual(Math.sqrt(joint) - 1e-12);
      expect(u_m).toBeLessThanOrEqual(sumOf(work).u_m + 1e-12);
    }),
  );
});

test("more at the mark than forecast means more of every step that shares something with it, as forecast leaves all as it was", () => {
  const p1500: Removal = { removal_m: um(6), u_m: um(1.4), common_m: { medium: um(1), unmeasured: um(0.7) } };
  const p2000: Removal = { removal_m: um(3), u_m: um(0.8), common_m: { medium: um(0.6), unmeasured: um(0.35) } };
  const polish: Removal = { removal_m: um(1.6), u_m: um(0.5), common_m: {} };
  const more = toldBy(NOTHING_TOLD, p1500, { removal_m: um(8), u_m: um(1) });
  expect(asTold(p2000, more).removal_m).toBeGreaterThan(um(3));
  expect(asTold(p2000, more).u_m).toBeLessThan(um(0.8));
  expect(asTold(polish, more)).toBe(polish);
  const same = toldBy(NOTHING_TOLD, p1500, { removal_m: um(6), u_m: um(1) });
  expect(asTold(p2000, same).removal_m).toBeCloseTo(um(3), 15);
  expect(asTold(p2000, same).u_m).toBeLessThan(um(0.8));
  // By hand: variance 1.4² + 1² + (0.17 × 6)² = 4.0004 µm²; gains 1/4.0004 and 0.7/4.0004; 3 + 2 × (0.6 + 0.35 × 0.7)/4.0004.
  expect(asTold(p2000, more).removal_m).toBeCloseTo(um(3.42246), 10);
});

test("a forecast that beliefs had gone into comes out of them again as it was", () => {
  fc.assert(
    fc.property(step, step, mark, (s, marked, m) => {
      const told = toldBy(NOTHING_TOLD, marked, m);
      const now = asTold(s, told);
      fc.pre(now.removal_m > 0);
      const back = untold(now, told);
      expect(back.removal_m).toBeCloseTo(s.removal_m, 12);
      expect(back.u_m).toBeCloseTo(s.u_m, 12);
      for (const [name, part] of Object.entries(s.common_m)) expect(back.common_m[name]).toBeCloseTo(part, 12);
    }),
  );
});

test("nothing comes off below nothing, whatever a mark says; a step that shares nothing tells nothing", () => {
  fc.assert(
    fc.property(step, step, mark, (s, marked, m) => {
      expect(asTold(s, toldBy(NOTHING_TOLD, marked, { ...m, removal_m: um(-300) })).removal_m).toBeGreaterThanOrEqual(0);
      expect(toldBy(NOTHING_TOLD, { ...marked, common_m: {} }, m)).toBe(NOTHING_TOLD);
    }),
  );
  expect(() => toldBy(NOTHING_TOLD, { removal_m: 1e-6, u_m: 1e-7, common_m: { soft: 1e-7 } }, { removal_m: NaN, u_m: 0 })).toThrow(
    RangeError,
  );
  expect(() => toldBy(NOTHING_TOLD, { removal_m: 1e-6, u_m: 1e-7, common_m: { soft: 1e-7 } }, { removal_m: 0, u_m: -1 })).toThrow(
    RangeError,
  );
});

test("a mark that comes out as forecast moves no step and leaves no step more doubt, of the marked one what weighing leaves", () => {
  fc.assert(
    fc.property(fc.array(step, { minLength: 1, maxLength: 5 }), fc.nat(4), (steps, pick) => {
      const marked = pick % steps.length;
      const then = ifMarked(steps, marked, um(1.6));
      then.forEach((s, i) => {
        expect(s.removal_m).toBeCloseTo(steps[i]!.removal_m, 15);
        expect(s.u_m).toBeLessThanOrEqual(steps[i]!.u_m + 1e-15);
      });
      const read = { removal_m: steps[marked]!.removal_m, u_m: um(1.6) * Math.sqrt(2 / 3) };
      expect(then[marked]!.u_m).toBeCloseTo(weighMeasured(steps[marked]!, read).u_m, 15);
    }),
  );
});
