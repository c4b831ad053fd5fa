import { pictureOf, shrink } from "#core/models/photo/picture";
import { type ReflectionSetup, compareReflections, readReflection, tubeRefused } from "#core/models/photo/reflection-check";
import { TUBE_SETUP, photographTube } from "../../../stand-ins/camera";

const look = (seed: number, slope_rad: number) => {
  const { picture, long_rad } = photographTube({ seed, slope_rad, width: 620 });
  return { answer: readReflection(pictureOf(picture.rgba, picture.width, picture.height), TUBE_SETUP), long_rad };
};

// Forty renderings are looked at by `npm run validate`; a few here keep the test short.
test("the slope read off a rendered tube is within a quarter of the true one", () => {
  for (const [seed, slope] of [
    [104, 0.6e-3],
    [107, 1e-3],
    [112, 1.2e-3],
  ] as const) {
    const { answer, long_rad } = look(seed, slope);
    if (!answer.ok) throw new Error(answer.reason);
    expect(Math.abs(answer.reading.long_rad / long_rad - 1)).toBeLessThan(0.25);
    expect(answer.reading.length_m).toBeGreaterThan(0.12);
  }
});

test("no tube, a clipped tube, too little panel and a broken-up edge are refused with the reason", () => {
  const even = (v: number, width = 300, height = 200) => pictureOf(new Uint8Array(4 * width * height).fill(v), width, height);
  const reason = (p: ReturnType<typeof even>, setup: ReflectionSetup = TUBE_SETUP) => {
    const a = readReflection(p, setup);
    return a.ok ? "" : a.reason;
  };
  expect(reason(even(90))).toContain("No bright tube");
  expect(reason(even(255))).toContain("clipped");
  expect(reason(even(90, 100, 100))).toContain("too small");
  const { picture } = photographTube({ seed: 3, slope_rad: 0.3e-3, width: 620 });
  const seen = pictureOf(picture.rgba, picture.width, picture.height);
  const wide = photographTube({ seed: 3, slope_rad: 0.3e-3, width: 960 }).picture;
  const small = shrink(pictureOf(wide.rgba, wide.width, wide.height), 2); // a small frame shows the tube as well
  expect([tubeRefused(seen), tubeRefused(small)]).toEqual([null, null]);
  expect(tubeRefused(even(90))).toContain("No bright tube");
  expect(reason(seen, { ...TUBE_SETUP, tube_m: 0.01 })).toContain("at least 120 mm");
  expect(() => readReflection(seen, { ...TUBE_SETUP, light_m: NaN })).toThrow("light_m");
});

test("two panels: a third more is no difference from one picture each, twice as much is; more pictures narrow it; it turns round", () => {
  expect(compareReflections([1.2], [1]).differs).toBe(false);
  const twice = compareReflections([2], [1]);
  expect(twice.differs).toBe(true);
  expect(twice.low).toBeLessThan(2);
  expect(twice.high).toBeGreaterThan(2);
  expect(compareReflections([1], [2]).ratio).toBeCloseTo(0.5, 12);
  const four = compareReflections([2, 2, 2, 2], [1, 1, 1, 1]);
  expect(four.high - four.low).toBeLessThan(twice.high - twice.low);
  expect(() => compareReflections([], [1])).toThrow("own");
  expect(() => compareReflections([0], [1])).toThrow("own[0]");
});
