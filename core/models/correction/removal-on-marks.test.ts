import fc from "fast-check";
import { choleskyFactor, choleskySolve } from "#core/kernel/stats/cholesky";
import { STEP_SPREAD } from "./learn-removal";
import { weighMeasured } from "./measured-step";
import { type Removal, sumOf } from "./removal-plan";
import {
  NO_MARKS,
  type MarkRead,
  type MarkConditions,
  afterMark,
  conditionedOnMarks,
  ifMarked,
  withMark,
  twiceCommon_m2,
  unconditioned,
  withOwn,
} from "./removal-on-marks";

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
  .record({
    removal: fc.double({ min: -2, max: 20, noNaN: true }),
    u: fc.double({ min: 0.3, max: 3, noNaN: true }),
    places: fc.integer({ min: 1, max: 3 }),
  })
  .map(({ removal, u, places }): MarkRead => ({ removal_m: um(removal), u_m: um(u), places }));

const ownOf = (s: Removal) => Math.sqrt(Math.max(0, s.u_m ** 2 - Object.values(s.common_m ?? {}).reduce((a, c) => a + c * c, 0)));
/** Covariance of two different steps, and variance of one, as forecast. */
const forecastCov = (a: Removal, b: Removal) =>
  a === b ? a.u_m ** 2 : NAMES.reduce((sum, n) => sum + (a.common_m?.[n] ?? 0) * (b.common_m?.[n] ?? 0), 0);

/** Steps conditioned on readings of some of them by the textbook: mean and covariance of all. */
function exactly(steps: readonly Removal[], readings: readonly { of: number; mark: MarkRead }[]): { mean_m: number[]; cov: number[][] } {
  const n = readings.length;
  const k = new Float64Array(n * n);
  readings.forEach((a, i) =>
    readings.forEach((b, j) => {
      const s = steps[a.of]!;
      const alone = i === j ? a.mark.u_m ** 2 + (STEP_SPREAD * s.removal_m) ** 2 / (a.mark.places ?? 1) : 0;
      k[i * n + j] = forecastCov(s, steps[b.of]!) + alone;
    }),
  );
  const factor = choleskyFactor(k, n);
  const toRead = steps.map((s) => readings.map((r) => forecastCov(s, steps[r.of]!)));
  const solved = toRead.map((row) => choleskySolve(factor, row, n));
  const more = readings.map((r) => r.mark.removal_m - steps[r.of]!.removal_m);
  return {
    mean_m: steps.map((s, i) => s.removal_m + more.reduce((a, m, q) => a + m * solved[i]![q]!, 0)),
    cov: steps.map((a, i) => steps.map((b, j) => forecastCov(a, b) - toRead[j]!.reduce((sum, c, q) => sum + c * solved[i]![q]!, 0))),
  };
}
const nameOf = (i: number) => `own ${i}`;
const after = (steps: readonly Removal[], readings: readonly { of: number; mark: MarkRead }[]): MarkConditions =>
  readings.reduce((told, r) => withMark(told, steps[r.of]!, r.mark, nameOf(r.of)), NO_MARKS);
const work = fc
  .tuple(fc.array(step, { minLength: 2, maxLength: 5 }), fc.array(fc.tuple(fc.nat(4), mark), { minLength: 1, maxLength: 4 }))
  .map(([steps, list]) => ({ steps, readings: list.map(([of, m]) => ({ of: of % steps.length, mark: m })) }));

test("any marks on any steps: every step, and all of them together, as by joint conditioning (multivariate normal, from memory)", () => {
  fc.assert(
    fc.property(work, ({ steps, readings }) => {
      const told = after(steps, readings);
      const { mean_m, cov } = exactly(steps, readings);
      const now = steps.map((s, i) => conditionedOnMarks(readings.some((r) => r.of === i) ? withOwn(s, nameOf(i)) : s, told));
      now.forEach((s, i) => {
        expect(s.removal_m * 1e6).toBeCloseTo(Math.max(0, mean_m[i]! * 1e6), 6);
        expect(s.u_m ** 2 * 1e12).toBeCloseTo(cov[i]![i]! * 1e12, 6);
      });
      const all2 = cov.flat().reduce((a, c) => a + c, 0);
      expect(sumOf(now).u_m ** 2 * 1e12).toBeCloseTo(all2 * 1e12, 6);
      // Done and still to come, told apart, come to the same doubt with what they have in common.
      const [done, rest] = [sumOf(now.slice(0, 1)), sumOf(now.slice(1))];
      expect((done.u_m ** 2 + rest.u_m ** 2 + twiceCommon_m2(done, rest)) * 1e12).toBeCloseTo(all2 * 1e12, 6);
    }),
  );
});

test("the doubt of all that comes off after a mark was too small: 0.75 to 0.93 of the right one, the first step and the rest added in squares", () => {
  // The ladder of the simulation: 16 % one paper's depth, 12 % nobody has measured; 60 % of it in the first step.
  const whole = um(11);
  const ladder = [0.6, 0.4].map((share): Removal => {
    const common_m = { medium: 0.16 * whole * share, unmeasured: 0.12 * whole * share };
    return { removal_m: whole * share, u_m: Math.hypot(...Object.values(common_m)), common_m };
  });
  const now = afterMark(ladder, 0, { removal_m: ladder[0]!.removal_m, u_m: um(1.3) });
  const inSquares = Math.hypot(now[0]!.u_m, now[1]!.u_m);
  const { cov } = exactly(ladder, [{ of: 0, mark: { removal_m: ladder[0]!.removal_m, u_m: um(1.3) } }]);
  const right = Math.sqrt(cov.flat().reduce((a, c) => a + c, 0));
  expect(inSquares / right).toBeLessThan(0.85);
  expect(sumOf(now).u_m / right).toBeCloseTo(1, 9);
});

test("a marked step comes out as weighing it with its mark does; three places tell more than one", () => {
  fc.assert(
    fc.property(step, mark, (s, m) => {
      const { removal_m, u_m } = weighMeasured(s, m);
      const now = afterMark([s], 0, m)[0]!;
      expect(now.removal_m * 1e6).toBeCloseTo(Math.max(0, removal_m * 1e6), 8);
      expect(now.u_m * 1e6).toBeCloseTo(u_m * 1e6, 8);
      expect(ifMarked([s], 0, um(1.6), 3)[0]!.u_m).toBeLessThan(ifMarked([s], 0, um(1.6))[0]!.u_m);
    }),
  );
});

test("more at the mark than forecast means more of every step that shares something with it, as forecast leaves all as it was", () => {
  const p1500: Removal = { removal_m: um(6), u_m: um(1.4), common_m: { medium: um(1), unmeasured: um(0.7) } };
  const p2000: Removal = { removal_m: um(3), u_m: um(0.8), common_m: { medium: um(0.6), unmeasured: um(0.35) } };
  const polish: Removal = { removal_m: um(1.6), u_m: um(0.5), common_m: {} };
  const more = withMark(NO_MARKS, p1500, { removal_m: um(8), u_m: um(1) });
  expect(conditionedOnMarks(p2000, more).removal_m).toBeGreaterThan(um(3));
  expect(conditionedOnMarks(p2000, more).u_m).toBeLessThan(um(0.8));
  expect(conditionedOnMarks(polish, more)).toBe(polish);
  const same = withMark(NO_MARKS, p1500, { removal_m: um(6), u_m: um(1) });
  expect(conditionedOnMarks(p2000, same).removal_m).toBeCloseTo(um(3), 15);
  expect(conditionedOnMarks(p2000, same).u_m).toBeLessThan(um(0.8));
  // By hand: variance 1.4² + 1² + (0.17 × 6)² = 4.0004 µm²; gains 1/4.0004 and 0.7/4.0004; 3 + 2 × (0.6 + 0.35 × 0.7)/4.0004.
  expect(conditionedOnMarks(p2000, more).removal_m).toBeCloseTo(um(3.42246), 10);
});

test("a forecast that marks had gone into comes out of them again as it was", () => {
  fc.assert(
    fc.property(step, work, (s, { steps, readings }) => {
      const told = after(steps, readings);
      const now = conditionedOnMarks(s, told);
      fc.pre(now.removal_m > 0);
      const back = unconditioned(now, told);
      expect(back.removal_m).toBeCloseTo(s.removal_m, 12);
      expect(back.u_m).toBeCloseTo(s.u_m, 12);
      for (const [name, part] of Object.entries(back.common_m)) expect(part).toBeCloseTo(s.common_m[name] ?? 0, 12);
    }),
  );
});

test("nothing comes off below nothing, whatever a mark says; what is known for certain is told nothing", () => {
  fc.assert(
    fc.property(step, step, mark, (s, marked, m) => {
      expect(conditionedOnMarks(s, withMark(NO_MARKS, marked, { ...m, removal_m: um(-300) })).removal_m).toBeGreaterThanOrEqual(0);
      expect(withMark(NO_MARKS, { ...marked, u_m: 0, common_m: {} }, m)).toBe(NO_MARKS);
      expect(ownOf(withOwn(s))).toBeCloseTo(0, 12);
    }),
  );
  const forecast = { removal_m: 1e-6, u_m: 1e-7, common_m: { soft: 1e-7 } };
  for (const wrong of [
    { removal_m: NaN, u_m: 0 },
    { removal_m: 0, u_m: -1 },
    { removal_m: 0, u_m: 0, places: 0 },
  ])
    expect(() => withMark(NO_MARKS, forecast, wrong)).toThrow(RangeError);
});

test("a mark that comes out as forecast moves no step and leaves no step more doubt", () => {
  fc.assert(
    fc.property(fc.array(step, { minLength: 1, maxLength: 5 }), fc.nat(4), fc.integer({ min: 1, max: 3 }), (steps, pick, places) => {
      ifMarked(steps, pick % steps.length, um(1.6), places).forEach((s, i) => {
        expect(s.removal_m).toBeCloseTo(steps[i]!.removal_m, 15);
        expect(s.u_m).toBeLessThanOrEqual(steps[i]!.u_m + 1e-15);
      });
    }),
  );
});
