import type { Point } from "#core/kernel/geometry/geometry";
import { summarise } from "#core/kernel/stats/summary";
import { standInGauge, trueFilm } from "#stand-ins/film-gauge";

const outline: Point[] = [
  [0, 0],
  [1, 0],
  [1, 0.8],
  [0, 0.8],
];
const panel = { outline, under_m: 95e-6, clear_m: 55e-6, seed: 4 };

test("the hidden panel keeps its film from visit to visit and is thinner at the rim", () => {
  expect(trueFilm(panel, [0.4, 0.4])).toEqual(trueFilm(panel, [0.4, 0.4]));
  expect(trueFilm(panel, [0.4, 0.4])).not.toEqual(trueFilm({ ...panel, seed: 5 }, [0.4, 0.4]));
  const middle = trueFilm(panel, [0.5, 0.4]).clear_m;
  expect(trueFilm({ ...panel, clear_m: 0 }, [0.5, 0.4]).clear_m).toBe(0);
  expect(trueFilm(panel, [0.5, 0.001]).clear_m).toBeLessThan(middle);
});

test("readings scatter round the truth with the noise and slope asked for", () => {
  const gauge = standInGauge(panel, { visitSeed: 1, slope: 1 });
  const film = trueFilm(panel, [0.5, 0.4]);
  const totals = Array.from({ length: 400 }, () => {
    const answer = gauge.read([0.5, 0.4]);
    return answer.ok ? answer.total_m : NaN;
  });
  const { mean, sd, nMissing } = summarise(totals);
  expect(nMissing).toBe(0);
  expect(Math.abs(mean - film.under_m - film.clear_m)).toBeLessThan(0.4e-6);
  expect(sd).toBeGreaterThan(1.3e-6);
  expect(sd).toBeLessThan(2e-6);
  expect(gauge.simulated).toBe(true);
});

test("it can fail as a real one does, in words", () => {
  const gauge = standInGauge(panel, { visitSeed: 1, faultEvery: 2 });
  expect(gauge.read([0.5, 0.4]).ok).toBe(true);
  expect(gauge.read([0.5, 0.4])).toMatchObject({ ok: false, fault: expect.stringContaining("did not settle") as string });
  expect(() => standInGauge(panel, { visitSeed: 1, noise_m: NaN })).toThrow("noise_m");
});
