import fc from "fast-check";
import { DEFAULT_FIELD, FilmField, type FilmObservation } from "#core/models/film/film-field";
import { type Point, type Polygon, gridInside } from "#core/kernel/geometry/geometry";

const outline: Polygon = [
  [0, 0],
  [1.2, 0],
  [1.2, 0.8],
  [1, 1],
  [0, 1],
];
const um = (x: number) => x * 1e-6;
const at = (x: number, y: number, after: number, before: number | null = 90, n = 3): FilmObservation[] => [
  ...(before === null ? [] : [{ at: [x, y] as Point, layer: "before" as const, total_m: um(before), n }]),
  { at: [x, y], layer: "after", total_m: um(after), n },
];
const six = [
  ...at(0.2, 0.3, 152),
  ...at(0.9, 0.6, 144),
  ...at(0.6, 0.2, 150),
  ...at(0.85, 0.16, 147),
  ...at(0.5, 0.5, 149),
  ...at(0.8, 0.9, 141),
];
const query: Point[] = [
  [0.6, 0.5],
  [0.1, 0.1],
  [1.1, 0.1],
];

test("one pair in the middle, by hand: prior 55 ± 20 and field 6 against a difference of 60", () => {
  // At its own spot: gain = (prior + field) / (prior + field + what the difference adds).
  const field = new FilmField(at(0.6, 0.5, 150, 90), outline, { uUnder_m: 1, uEdge_m: 1e-12 });
  const { mean_m } = field.predict([[0.6, 0.5]]);
  const g = (x: number) => (1e-6 + 0.02 * um(x)) / Math.sqrt(3);
  const moved = 2 * DEFAULT_FIELD.sdUnder_m ** 2 * (1 - 0.9941);
  const noise = 2 * (um(2) ** 2 / 3 + um(1.5) ** 2) + g(150) ** 2 + g(90) ** 2 - 1.6 * g(150) * g(90) + moved;
  const signal = um(20) ** 2 + um(6) ** 2;
  const byHand = 55e-6 + (signal / (signal + noise)) * um(5);
  expect(mean_m[0]! / byHand).toBeCloseTo(1, 2);
});

test("the order of readings and a mirrored panel change nothing", () => {
  const there = new FilmField(six, outline).predict(query);
  const shuffled = new FilmField([...six].reverse(), outline).predict(query);
  const flip = ([x, y]: Point): Point => [1.2 - x, y];
  const mirrored = new FilmField(
    six.map((o) => ({ ...o, at: flip(o.at) })),
    outline.map(flip),
  ).predict(query.map(flip));
  query.forEach((_, i) => {
    for (const other of [shuffled, mirrored]) {
      expect(other.mean_m[i]! / there.mean_m[i]!).toBeCloseTo(1, 9);
      expect(other.sd_m[i]! / there.sd_m[i]!).toBeCloseTo(1, 9);
    }
  });
});

test("a reading that says what was expected leaves the mean and narrows the doubt", () => {
  fc.assert(
    fc.property(fc.double({ min: 0.1, max: 0.9, noNaN: true }), fc.double({ min: 0.1, max: 0.75, noNaN: true }), (x, y) => {
      const before = new FilmField(six, outline);
      const expected: FilmObservation = { at: [x, y], layer: "after", total_m: before.expectedReading([x, y]), n: 3 };
      const after = new FilmField([...six, expected], outline, {}, { assumed: 1 });
      const [a, b] = [before.predict(query), after.predict(query)];
      query.forEach((_, i) => {
        expect(Math.abs(a.mean_m[i]! - b.mean_m[i]!)).toBeLessThan(0.02e-6);
        expect(b.sd_m[i]!).toBeLessThanOrEqual(a.sd_m[i]! * (1 + 1e-9));
      });
    }),
    { numRuns: 25 },
  );
});

test("without before-readings the doubt is greater", () => {
  const withBefore = new FilmField(six, outline).predict(query);
  const without = new FilmField(
    six.filter((o) => o.layer === "after"),
    outline,
  ).predict(query);
  query.forEach((_, i) => expect(without.sd_m[i]!).toBeGreaterThan(withBefore.sd_m[i]!));
});

test("very many readings on a spot pull the field to them", () => {
  const field = new FilmField([...six, ...at(0.3, 0.7, 160, 90, 1000)], outline, { relocation_m: 0, micro_m: 1e-9, repeatability_m: 1e-9 });
  expect(Math.abs(field.predict([[0.3, 0.7]]).mean_m[0]! - um(70))).toBeLessThan(um(1));
});

test("two readings on one spot, zero film and 5 mm are worked; outside that is refused by name", () => {
  expect(new FilmField([...six, ...six.slice(0, 2)], outline).predict(query).sd_m.every((s) => s > 0)).toBe(true);
  for (const film of [0, 5000])
    expect(Number.isFinite(new FilmField([...six, ...at(0.3, 0.3, film)], outline).predict(query).mean_m[0]!)).toBe(true);
  expect(() => new FilmField(at(0.3, 0.3, 5001), outline)).toThrow("observations[1].total_m");
  expect(() => new FilmField([six[0]!], outline)).toThrow("at least 1 reading after clear");
  expect(() => new FilmField(six, outline.slice(0, 2))).toThrow("at least 3 corners");
});

test("the mean of the panel is better known than any place of it", () => {
  const field = new FilmField(six, outline);
  const { mean_m, u_m } = field.meanOverPanel();
  expect(mean_m).toBeGreaterThan(um(50));
  expect(u_m).toBeLessThan(Math.min(...field.predict(query).sd_m));
  // By its definition: covariances of all pairs of places, each by itself.
  const points = gridInside(outline, { nx: 16, ny: 13 }).map((c) => c.point);
  const predicted = field.predict(points);
  const places = [...points.keys()];
  const variance = places.flatMap((i) => [...field.covariances(points, predicted, places, i)]).reduce((a, c) => a + c, 0);
  expect(u_m).toBeCloseTo(Math.sqrt(variance) / points.length, 12);
  expect(mean_m).toBeCloseTo(predicted.mean_m.reduce((a, x) => a + x, 0) / points.length, 15);
});
