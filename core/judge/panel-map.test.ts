import fc from "fast-check";
import { foilSuits, gaugeCheck, setupUncertainty } from "#core/models/film/gauge-check";
import { DEFAULT_FIELD, FilmField, type FilmObservation } from "#core/models/film/film-field";
import { stackHypotheses } from "#core/judge/film-facts";
import { FilmJudge } from "#core/judge/film-judge";
import { workedShare } from "#core/judge/judge-cells";
import { planReadings } from "#core/judge/next-reading";
import { type MapInput, mapPanel } from "#core/judge/panel-map";
import { matern52 } from "#core/models/film/matern";
import { type Point, edgeDistance, edgeDistances, gridInside, lineDistances } from "#core/kernel/geometry/geometry";
import { panelShape, suggestSpots } from "#core/kernel/geometry/shapes";
import { choleskyFactor } from "#core/kernel/stats/cholesky";
import { normals, seededRandom } from "#core/kernel/stats/random";
import { standInGauge, trueFilm } from "../../stand-ins/film-gauge";
import { denseField } from "../../scripts/dense-kriging";

const um = (x: number) => x * 1e-6;
const shape = panelShape("bonnet", { width_m: 1.4, height_m: 1.2 });
const { outline, bodyLines } = shape;
const hidden = { outline, under_m: um(92), clear_m: um(56), seed: 11, bodyLines, line_m: um(-8) };

/** Spots of a hidden panel read three times each by the stand-in gauge, before and after clear. */
function observe(spots: number, { before = true, seed = 5, panel = hidden } = {}): FilmObservation[] {
  const places = suggestSpots(outline, spots, { bodyLines });
  const visit = (clear_m: number, visitSeed: number, layer: FilmObservation["layer"]): FilmObservation[] => {
    const gauge = standInGauge({ ...panel, clear_m }, { visitSeed });
    return places.map((at) => {
      const readings = [0, 1, 2].map(() => {
        const r = gauge.read(at);
        return r.ok ? r.total_m : NaN;
      });
      return { at, layer, total_m: readings.reduce((a, b) => a + b, 0) / 3, n: 3 };
    });
  };
  return [...(before ? visit(0, seed, "before") : []), ...visit(panel.clear_m, seed + 1, "after")];
}
type Setting = Partial<Omit<MapInput, "film">> & Partial<MapInput["film"]>;
const inputOf = (observations: FilmObservation[], { history, floor_m = um(35), ...more }: Setting = {}): MapInput => ({
  film: { outline, bodyLines, observations, history: history ?? { weights: { factory: 0, refinish: 1 } }, foil: true },
  removal_m: um(9),
  uRel: 0.15,
  rim_m: 0.02,
  floor_m,
  draws: 400,
  ...more,
});
const mapOf = (observations: FilmObservation[], more: Setting = {}) => {
  const answer = mapPanel(inputOf(observations, more));
  if (!answer.map) throw new Error(answer.reason);
  return answer.map;
};
const mean = (xs: ArrayLike<number>) => Array.from(xs).reduce((a, b) => a + b, 0) / xs.length;

test("the field is the dense regression of a general-purpose matrix library (ml-matrix), place by place", () => {
  const observations = observe(7);
  const points: Point[] = [
    [0.7, 0.6],
    [0.2, 0.3],
    [1.2, 0.9],
    [0.72, 0.61],
  ];
  const own = new FilmField(observations, outline);
  const predicted = own.predict(points);
  const dense = denseField(observations, outline, DEFAULT_FIELD, points);
  points.forEach((_, i) => {
    expect(predicted.mean_m[i]! / dense.mean_m[i]!).toBeCloseTo(1, 8);
    expect(predicted.sd_m[i]! / dense.sd_m[i]!).toBeCloseTo(1, 8);
    for (let j = 0; j < i; j++) expect(own.covariance(points, predicted, i, j) * 1e12).toBeCloseTo(dense.covariance.get(i, j), 6);
  });
  const column = own.covariances(points, predicted, [0, 1, 2], 3);
  expect(column[1]! * 1e12).toBeCloseTo(dense.covariance.get(1, 3), 6);
});

test("six readings give a usable wide map, sixty a sharp one near the truth; two give none, with the reason", () => {
  const [six, sixty] = [mapOf(observe(6)), mapOf(observe(60))];
  expect(mean(six.sd_m)).toBeLessThan(um(12));
  expect(mean(sixty.sd_m)).toBeLessThan(0.7 * mean(six.sd_m));
  const cells = gridInside(outline, { nx: sixty.nx, ny: sixty.ny });
  const misses = cells.map((c, i) => Math.abs(sixty.mean_m[i]! - trueFilm(hidden, c.point).clear_m));
  expect(mean(misses)).toBeLessThan(um(2.5));
  const two = mapPanel(inputOf(observe(2)));
  expect(two.map).toBeNull();
  expect(two.reason).toContain("2 of at least 3 spots");
});

test("without before-readings the map is wide and says that it is inferred", () => {
  const guessed = mapOf(observe(14, { before: false }), { history: { weights: { factory: 0.8, refinish: 0.2 } } });
  expect(guessed.inferred).toBe(true);
  expect(mean(guessed.sd_m)).toBeGreaterThan(1.5 * mean(mapOf(observe(14)).sd_m));
});

test("two readings on one spot, 0 µm, 5,000 µm and all alike are worked; a place outside the panel only tells what is near it", () => {
  const usual = observe(6);
  const odd: FilmObservation[][] = [
    [...usual, ...usual.slice(-2)],
    [...usual, { at: [0.5, 0.5], layer: "after", total_m: 0, n: 1 }],
    [...usual, { at: [0.5, 0.5], layer: "after", total_m: 5e-3, n: 1 }],
    usual.map((o) => ({ ...o, total_m: um(150) })),
    [...usual, { at: [3, 3], layer: "after", total_m: um(150), n: 1 }],
  ];
  for (const observations of odd) {
    const map = mapOf(observations);
    expect([...map.mean_m, ...map.sd_m].every(Number.isFinite)).toBe(true);
    expect(map.sd_m.every((s) => s > 0)).toBe(true);
  }
  expect(() => mapPanel(inputOf([...usual, { at: [0.5, 0.5], layer: "after", total_m: 5.1e-3, n: 1 }]))).toThrow(RangeError);
});

test("body lines are thinner than the film beside them, more so when a reading on one says so", () => {
  const onLine = bodyLines[0]![1]!;
  const beside: Point = [onLine[0] + 0.08, onLine[1]];
  const gap = (observations: FilmObservation[]) => {
    const { mean_m } = new FilmField(observations, outline, {}, { bodyLines }).predict([onLine, beside]);
    return mean_m[1]! - mean_m[0]!;
  };
  const plain = observe(8);
  expect(gap(plain)).toBeGreaterThan(um(4));
  const low: FilmObservation = { at: onLine, layer: "after", total_m: um(92 + 56 - 20), n: 3 };
  expect(gap([...plain, low])).toBeGreaterThan(gap(plain) + um(2));
});

test("the place asked for next narrows the doubt where it matters more than the riskiest place does", () => {
  const { film, floor_m } = inputOf(observe(6), { floor_m: um(42) });
  const judge = new FilmJudge(film);
  const picture = judge.picture();
  const share = workedShare(picture, { rim_m: 0.02 });
  const cells = [...share.keys()].filter((i) => share[i]! > 0);
  const points = cells.map((i) => picture.points[i]!);
  const removal_m = um(9);
  const now = new FilmField(film.observations, outline, judge.prior(), { bodyLines });
  const before = now.predict(points);
  const margin = points.map((_, i) => {
    const bite = share[cells[i]!]!;
    return (before.mean_m[i]! - bite * removal_m - floor_m) / Math.hypot(before.sd_m[i]!, bite * 0.15 * removal_m, 0.15 * bite * removal_m);
  });
  const weight = margin.map((z) => Math.exp(-0.5 * z * z));
  const doubtAfter = (at: Point) => {
    const expected: FilmObservation = { at, layer: "after", total_m: now.expectedReading(at), n: 3 };
    const { sd_m } = new FilmField([...film.observations, expected], outline, judge.prior(), { assumed: 1, bodyLines }).predict(points);
    return sd_m.reduce((a, s, i) => a + weight[i]! * s * s, 0);
  };
  const work = { panel: { removal_m, u_m: 0.15 * removal_m, rim_m: 0.02 }, local: [], floor_m };
  const best = planReadings(judge, work, 1)[0]!.at;
  const riskiest = points[margin.indexOf(Math.min(...margin))]!;
  expect(doubtAfter(best)).toBeLessThan(doubtAfter(riskiest));
  expect(edgeDistance(best, outline)).toBeGreaterThanOrEqual(0.015);
});

test("the order of readings does not matter with body lines either", () => {
  fc.assert(
    fc.property(fc.shuffledSubarray([...Array(12).keys()], { minLength: 12 }), (order) => {
      const observations = observe(6);
      const a = new FilmField(observations, outline, {}, { bodyLines }).predict([[0.7, 0.5]]);
      const b = new FilmField(
        order.map((i) => observations[i]!),
        outline,
        {},
        { bodyLines },
      ).predict([[0.7, 0.5]]);
      expect(b.mean_m[0]! / a.mean_m[0]!).toBeCloseTo(1, 9);
      expect(b.sd_m[0]! / a.sd_m[0]!).toBeCloseTo(1, 9);
    }),
    { numRuns: 20 },
  );
});

/** A panel drawn from the field's own beliefs, read at some spots: what the 90 % intervals must hold against. */
function drawnPanel(normal: () => number, spots: number, points: readonly Point[]) {
  const p = DEFAULT_FIELD;
  const spread = (median: number, logSd: number) => median * Math.exp(logSd * normal());
  const length_m = spread(p.length_m, 0.5);
  const places = suggestSpots(outline, spots, { bodyLines });
  const all = [...places, ...points];
  const n = all.length;
  const k = new Float64Array(n * n);
  all.forEach((a, i) =>
    all.forEach((b, j) => (k[i * n + j] = matern52(Math.hypot(a[0] - b[0], a[1] - b[1]), length_m) + (i === j ? 1e-9 : 0))),
  );
  const factor = choleskyFactor(k, n);
  const wave = (sd: number) => {
    const z = Array.from({ length: n }, normal);
    return all.map((_, i) => sd * z.reduce((sum, v, j) => (j <= i ? sum + factor[i * n + j]! * v : sum), 0));
  };
  const sdUnder = spread(p.sdUnder_m, 0.5);
  const micro = spread(p.micro_m, 0.4);
  const [under, clear] = [wave(sdUnder), wave(spread(p.sdClear_m, 0.5))];
  const [flat, edge, line] = [p.clear_m + p.uClear_m * normal(), p.edge_m + p.uEdge_m * normal(), p.line_m + p.uLine_m * normal()];
  const mu = p.under_m + p.uUnder_m * normal();
  const edges = edgeDistances(all, outline);
  const lines = lineDistances(all, bodyLines);
  const film = all.map((_, i) => ({
    under: mu + under[i]!,
    clear: flat + edge * Math.exp(-edges[i]! / p.edgeLength_m) + line * Math.exp(-lines[i]! / p.lineLength_m) + clear[i]!,
  }));
  const gauge = (1e-6 + 0.02 * (mu + flat)) / Math.sqrt(3);
  const common = normal();
  const error = () => gauge * (Math.sqrt(0.8) * common + Math.sqrt(0.2) * normal());
  const [gBefore, gAfter] = [error(), error()];
  const moved = Math.sqrt(2 * (1 - matern52(p.relocation_m, length_m))) * sdUnder;
  const noise = () => Math.hypot(p.repeatability_m / Math.sqrt(3), micro) * normal();
  const observations = places.flatMap((at, i): FilmObservation[] => [
    { at, layer: "before", total_m: Math.max(0, film[i]!.under + gBefore + noise()), n: 3 },
    { at, layer: "after", total_m: Math.max(0, film[i]!.under + film[i]!.clear + gAfter + noise() + moved * normal()), n: 3 },
  ]);
  return { observations, truth_m: film.slice(places.length).map((f) => f.clear) };
}

test("coverage: of places of panels drawn from the field's own beliefs, 85 to 97 % lie in their 90 % interval", () => {
  const random = seededRandom(2024);
  const normal = normals(random);
  let inside = 0;
  let all = 0;
  for (let k = 0; k < 60; k++) {
    const points = Array.from({ length: 20 }, (): Point => [0.15 + 1.1 * random(), 0.15 + 0.8 * random()]);
    const { observations, truth_m } = drawnPanel(normal, k % 2 ? 14 : 7, points);
    const [world] = stackHypotheses(inputOf(observations).film);
    const { mean_m, sd_m } = new FilmField(observations, outline, world!.prior, { bodyLines }).predict(points);
    truth_m.forEach((t, i) => {
      all++;
      if (Math.abs(t - mean_m[i]!) <= 1.645 * sd_m[i]!) inside++;
    });
  }
  expect(inside / all).toBeGreaterThan(0.85);
  expect(inside / all).toBeLessThan(0.97);
});

test("a gauge check tells a set-up that is off, drift since the last one, and a foil that does not suit", () => {
  const good = { zero_m: [0, um(1), 0], onFoil_m: [um(148), um(149), um(147)], foil_m: um(148), uFoil_m: um(1) };
  expect(gaugeCheck(good)).toMatchObject({ within: true, drift: null });
  expect(gaugeCheck({ ...good, zero_m: [um(9), um(9), um(9)] }).within).toBe(false);
  expect(gaugeCheck({ ...good, onFoil_m: [um(165), um(165), um(165)] }).within).toBe(false);
  expect(gaugeCheck({ ...good, previous: good }).drift).toMatchObject({ drifted: false });
  expect(gaugeCheck({ ...good, zero_m: [um(6), um(6), um(6)], previous: good }).drift).toMatchObject({ drifted: true });
  expect(() => gaugeCheck({ ...good, onFoil_m: [0] })).toThrow("onFoil_m");
  expect(() => gaugeCheck({ ...good, zero_m: [] })).toThrow("zero_m");
  const check = gaugeCheck(good);
  expect(setupUncertainty(check, good, um(148))).toBeLessThan(setupUncertainty(check, good, um(400)));
  expect([foilSuits(um(148), um(150)), foilSuits(um(25), um(150)), foilSuits(um(500), um(150))]).toEqual([true, false, false]);
});
