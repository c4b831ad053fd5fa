import fc from "fast-check";
import { SPRAY } from "../models/spray/constants";
import {
  LOOK_OF,
  MENDED_BY,
  MENDS,
  PAPER,
  PATTERN_FAULTS,
  PATTERN_LOOKS,
  type PaperAsked,
  burst,
  burstFigures,
  gunByChance,
  lookOfBurst,
} from "./pattern";

const usual = { fluidRate_m3_s: SPRAY.fluidRateRef_m3_s, pressure_Pa: SPRAY.pressureRef_Pa, turned: false, seed: 5, degree: 1 } as const;
const of = (o: Partial<PaperAsked>) => burst({ ...usual, fault: "even", ...o });
const fault = fc.constantFrom(...PATTERN_FAULTS);
const degree = fc.double({ min: 0.6, max: 1, noNaN: true });
const seed = fc.integer({ min: 1, max: 2 ** 30 });

test("each fault looks like what it is called, however far gone and however the cap stands; all that comes out is on the paper", () => {
  fc.assert(
    fc.property(fault, degree, seed, fc.boolean(), (f, d, s, turned) => {
      const film = of({ fault: f, degree: d, seed: s, turned });
      expect(lookOfBurst(film)).toBe(LOOK_OF[f]);
      expect(film.reduce((a, b) => a + b, 0) / film.length).toBeCloseTo(1, 9);
      expect(film.every((v) => v >= 0)).toBe(true);
    }),
    { numRuns: 150 },
  );
});

test("what is of the cap turns with it, what is of the tip stays: so a heavy end is told", () => {
  for (const [f, way] of [
    ["cap", -1],
    ["tip", 1],
  ] as const) {
    const [straight, turned] = [false, true].map((t) => burstFigures(of({ fault: f, turned: t })).end);
    expect(turned! / straight!).toBeCloseTo(way, 6);
  }
  expect(burstFigures(of({ fault: "horn", turned: true })).bow).toBeCloseTo(-burstFigures(of({ fault: "horn" })).bow, 6);
});

test("an even burst is Beta(2, 2) along the fan and alike to all sides; twice the fluid is twice the material", () => {
  const even = of({});
  const { columns } = PAPER;
  const off = (mirrored: (n: number) => number) => Math.max(...even.map((v, n) => Math.abs(v - even[mirrored(n)]!)));
  expect(off((n) => even.length - 1 - n)).toBeLessThan(1e-9); // upside down and to the other side
  expect(off((n) => n - (n % columns) + columns - 1 - (n % columns))).toBeLessThan(1e-9);
  expect(burstFigures(even).middle).toBeCloseTo(1, 1);
  const twice = of({ fluidRate_m3_s: 2 * usual.fluidRate_m3_s });
  expect(twice.reduce((a, b) => a + b, 0) / even.reduce((a, b) => a + b, 0)).toBeCloseTo(2, 9);
});

test("more air drives a burst apart, more fluid draws it to the middle", () => {
  const middle = (o: Partial<PaperAsked>) => burstFigures(of(o)).middle;
  const by = [0.6, 0.8, 1, 1.3, 1.8];
  const air = by.map((m) => middle({ pressure_Pa: m * usual.pressure_Pa }));
  const fluid = by.map((m) => middle({ fluidRate_m3_s: m * usual.fluidRate_m3_s }));
  expect(air).toEqual([...air].sort((a, b) => b - a));
  expect(fluid).toEqual([...fluid].sort((a, b) => a - b));
  expect(lookOfBurst(of({ pressure_Pa: 2 * usual.pressure_Pa }))).toBe("split");
});

test("guns by chance: the same name is the same gun; each fault comes; each look and each mend is of some fault", () => {
  const guns = Array.from({ length: 300 }, (_, n) => gunByChance(`gun ${n}`));
  expect(gunByChance("gun 7")).toEqual(guns[7]);
  expect(new Set(guns.map((g) => g.fault))).toEqual(new Set(PATTERN_FAULTS));
  for (const g of guns) expect(lookOfBurst(burst({ ...usual, ...g }))).toBe(LOOK_OF[g.fault]);
  expect(new Set(Object.values(LOOK_OF))).toEqual(new Set(PATTERN_LOOKS));
  expect(new Set(Object.values(MENDED_BY))).toEqual(new Set(MENDS));
});

test("what is out of range is refused", () => {
  expect(() => of({ degree: 2 })).toThrow(RangeError);
  expect(() => of({ fluidRate_m3_s: 0 })).toThrow(RangeError);
  expect(() => of({ pressure_Pa: NaN })).toThrow(RangeError);
  expect(() => burstFigures(new Float64Array(PAPER.columns * PAPER.rows))).toThrow(RangeError);
});
