import { CUP_U, beatsFor, fitGunCurve, gunFlow, metronomeSpeed, rippleProfile, setupTurns, timedSpeed } from "#core/models/spray/gun-curve";
import { patternRipple } from "#core/models/spray/pattern-ripple";

const ML_MIN = 1e-6 / 60;
const cup = (turns: number, ml: number, time_s = 10) => ({ turns, volume_m3: ml * 1e-6, time_s });
const curveOf = (full: number, rise: number) => (turns: number) => (full * (1 - Math.exp(-turns / rise)) * 10) / 60;

test("exact cups give back the curve they were made from", () => {
  const ml = curveOf(420, 2.5);
  const curve = fitGunCurve([1, 2, 3, 4].map((t) => cup(t, ml(t))));
  expect(curve.full_m3_s / ML_MIN).toBeCloseTo(420, 0);
  expect(curve.rise_turns).toBeCloseTo(2.5, 1);
  expect(gunFlow(curve, 2.25).fluidRate_m3_s / ML_MIN).toBeCloseTo(420 * (1 - Math.exp(-0.9)), 0);
});
test("one cup is met exactly and scales a usual needle; its uncertainty is the cup's", () => {
  const points = [cup(2.25, 40)];
  const curve = fitGunCurve(points);
  const flow = gunFlow(curve, 2.25, points);
  expect(flow.fluidRate_m3_s / ML_MIN).toBeCloseTo(240, 6);
  expect(flow.u_m3_s / flow.fluidRate_m3_s).toBeCloseTo(CUP_U, 12);
  expect(gunFlow(curve, 4, points).u_m3_s / gunFlow(curve, 4, points).fluidRate_m3_s).toBeCloseTo(2 * CUP_U, 12);
});
test("scattered cups widen the uncertainty; flow never falls with more turns", () => {
  const ml = curveOf(400, 3);
  const curve = fitGunCurve([1, 2, 3, 4].map((t, i) => cup(t, ml(t) * (i % 2 ? 1.2 : 0.85))));
  expect(curve.relativeU).toBeGreaterThan(0.1);
  for (let t = 0.2; t < 9; t += 0.2)
    expect(gunFlow(curve, t + 0.2).fluidRate_m3_s).toBeGreaterThanOrEqual(gunFlow(curve, t).fluidRate_m3_s);
});
test("without a cup the turns are a guess and say so", () => {
  expect(gunFlow(null, 2.25)).toMatchObject({ from: "turns" });
  expect(gunFlow(null, 2.25).u_m3_s / gunFlow(null, 2.25).fluidRate_m3_s).toBeCloseTo(0.25, 12);
});
test("schools of the needle, common practice", () => {
  expect([setupTurns("closed", 5), setupTurns("closed-wide", 5), setupTurns("open", 5), setupTurns("full", 5)]).toEqual([2.25, 3.5, 4, 5]);
  expect(setupTurns("closed-wide", 3)).toBe(3);
});
test("metronome and timed pass agree on the same hand", () => {
  const speed_m_s = metronomeSpeed({ beats_1_min: 40, stroke_m: 0.51 });
  expect(speed_m_s).toBeCloseTo(0.34, 12);
  expect(beatsFor({ speed_m_s, stroke_m: 0.51 })).toBeCloseTo(40, 12);
  const timed = timedSpeed({ length_m: 1.02, passes: 4, time_s: 12 });
  expect(timed.speed_m_s).toBeCloseTo(0.34, 12);
  expect(timed.u_m_s).toBeCloseTo((0.34 * Math.SQRT2 * 0.1) / 12, 12);
});
test("the ripple's picture has the mean and spread of the closed form", () => {
  for (const overlap of [0, 0.5, 0.75]) {
    const film = rippleProfile(overlap, { count: 2000, width_fans: 8 }).map((p) => p.film);
    const inner = film.slice(0, -1);
    const mean = inner.reduce((a, b) => a + b, 0) / inner.length;
    const cv = Math.sqrt(inner.reduce((a, b) => a + (b - mean) ** 2, 0) / inner.length) / mean;
    expect(mean).toBeCloseTo(1, 2);
    expect(cv).toBeCloseTo(patternRipple(overlap).cv, 2);
  }
});
test("refuses what no gun does", () => {
  expect(() => fitGunCurve([])).toThrow(RangeError);
  expect(() => fitGunCurve([cup(2, NaN)])).toThrow(RangeError);
  expect(() => fitGunCurve([cup(0, 40)])).toThrow(RangeError);
  expect(() => metronomeSpeed({ beats_1_min: 0, stroke_m: 1 })).toThrow(RangeError);
  expect(() => timedSpeed({ length_m: 1, passes: 1, time_s: 0 })).toThrow(RangeError);
  expect(() => rippleProfile(1, { count: 10, width_fans: 2 })).toThrow(RangeError);
});
