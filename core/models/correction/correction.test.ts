import fc from "fast-check";
import { GRAIN_M, scratchDepth } from "#core/models/correction/abrasives";
import { prestonRemoval, prestonTime } from "#core/models/correction/preston";
import { peakToValleyFromRms, planRemoval } from "#core/models/correction/removal-plan";
import { RUN_SCHOOLS, type RunSchool, forecastRunWork, lossBesideRun, runVolume } from "#core/models/correction/run-work";
import { CORRECTION_SCHOOLS, correctionSchool, stepName } from "#core/models/correction/schools";

const um = (x: number) => x * 1e-6;

describe("grain sizes", () => {
  /** FEPA 43-1 / ISO 6344 microgrit d50 in µm, from memory. */
  test.each([
    ["P240", 58.5],
    ["P400", 35],
    ["P600", 25.8],
    ["P800", 21.8],
    ["P1000", 18.3],
    ["P1200", 15.3],
    ["P1500", 12.6],
    ["P2000", 10.3],
    ["P2500", 8.4],
  ] as const)("%s is %p µm", (grit, d50) => {
    expect(GRAIN_M[grit][0]).toBeCloseTo(um(d50), 12);
  });
  test("a higher number is a finer grain, and a softer backing a shallower scratch", () => {
    const sizes = Object.values(GRAIN_M).map(([d]) => d);
    expect([...sizes].sort((a, b) => b - a)).toEqual(sizes);
    expect(scratchDepth("P1500", "soft").depth_m).toBeLessThan(scratchDepth("P1500", "hard").depth_m);
  });
});

describe("removal of a plan", () => {
  test("levelling and polishing takes 5–13 µm (common practice)", () => {
    const { total } = planRemoval(
      correctionSchool("short").steps.map((s) => s.use),
      { peakToValley_m: um(3), u_m: um(0.4) },
    );
    expect(total.removal_m).toBeCloseTo(um(8.8875), 10);
    expect(total.u_m).toBeCloseTo(um(1.3177957), 10);
  });
  test("only the first sanding step charges the texture, and only what is to go", () => {
    const steps = [{ grit: "P1500", backing: "medium" } as const, { grit: "P2000", backing: "medium" } as const];
    const flat = planRemoval(steps, { peakToValley_m: um(9), u_m: um(1) });
    const bare = planRemoval(steps);
    expect(flat.steps[0]!.removal_m - bare.steps[0]!.removal_m).toBeCloseTo(um(9), 12);
    expect(flat.steps[1]).toEqual(bare.steps[1]);
    const matched = planRemoval(steps, { peakToValley_m: um(9), u_m: um(1), wanted_m: um(3) });
    expect(matched.steps[0]!.removal_m - bare.steps[0]!.removal_m).toBeCloseTo(um(6), 12);
    expect(planRemoval(steps, { peakToValley_m: um(3), u_m: 0, wanted_m: um(9) }).total.removal_m).toBeCloseTo(bare.total.removal_m, 15);
  });
  test("polish alone levels nothing; peak to valley is five times the rms", () => {
    expect(planRemoval([{ polish: "compound" }], { peakToValley_m: um(9), u_m: 0 }).total.removal_m).toBeCloseTo(um(1.2), 12);
    expect(peakToValleyFromRms(um(0.6)).peakToValley_m).toBeCloseTo(um(3), 12);
  });
  test.each([-1e-6, NaN])("a texture of %p is refused", (peakToValley_m) => {
    expect(() => planRemoval([], { peakToValley_m, u_m: 0 })).toThrow("peakToValley_m");
  });
});

describe("schools", () => {
  test("ids are unique, each has steps, ends finer than it starts, and every sanding step is cleared by a later one", () => {
    expect(new Set(CORRECTION_SCHOOLS.map((s) => s.id)).size).toBe(CORRECTION_SCHOOLS.length);
    for (const school of CORRECTION_SCHOOLS) {
      const grains = school.steps.flatMap(({ use }) => ("grit" in use ? [GRAIN_M[use.grit][0]] : []));
      expect([...grains].sort((a, b) => b - a)).toEqual(grains);
      expect("polish" in school.steps.at(-1)!.use).toBe(true);
      expect(school.steps.every((s) => stepName(s.use).length > 0)).toBe(true);
    }
  });
  test("an unknown school is refused by name", () => {
    expect(() => correctionSchool("magic")).toThrow("school must be one of");
  });
});

describe("runs", () => {
  const run = { height_m: um(60), width_m: 0.01, length_m: 0.06 };
  test("volume of a parabolic run, by hand: ⅔·0.06·10·(60 − 5) mm³", () => {
    expect(runVolume(run) * 1e9).toBeCloseTo((2 / 3) * 0.06 * 10 * 55, 9);
  });
  test("a soft backing costs far more beside it than a block", () => {
    const beside = (compliance_m: number) => lossBesideRun({ height_m: um(80), compliance_m, residual_m: um(1.5) });
    expect(beside(um(20))).toBeGreaterThan(3 * beside(um(8)));
    expect(lossBesideRun({ height_m: um(1), compliance_m: um(8), residual_m: um(1.5) })).toBe(0);
  });
  test("more clear, less chance; every school gives figures in their range", () => {
    for (const school of Object.keys(RUN_SCHOOLS) as RunSchool[])
      fc.assert(
        fc.property(fc.double({ min: 15, max: 80, noNaN: true }), (clear) => {
          const at = (c: number) => forecastRunWork(school, { ...run, clear_m: um(c), u_clear_m: um(4), floor_m: um(35) });
          expect(at(clear + 5).chanceBelowFloor).toBeLessThanOrEqual(at(clear).chanceBelowFloor);
          expect(at(clear).chanceBelowFloor).toBeGreaterThanOrEqual(0);
          expect(at(clear).loss_m).toBeGreaterThan(0);
          expect(at(clear).crest_m).toBeCloseTo(um(clear) + um(60), 12);
        }),
        { numRuns: 30 },
      );
  });
  test("a run wider than twice its length is no run", () => {
    expect(() => runVolume({ ...run, length_m: 0.004 })).toThrow("length_m");
  });
});

test("Preston: removal and time are each other's inverse, loaded paper does less (Preston 1927, from memory)", () => {
  const a = { coefficient_1_Pa: 1e-10, force_N: 30, speed_m_s: 2.36, area_m2: 0.1 };
  const removal_m = prestonRemoval({ ...a, time_s: 60 });
  expect(removal_m).toBeCloseTo(um(4.248), 12);
  expect(prestonTime({ ...a, removal_m })).toBeCloseTo(60, 9);
  expect(prestonRemoval({ ...a, time_s: 60, loading_s: 90 })).toBeLessThan(removal_m);
  expect(() => prestonRemoval({ ...a, time_s: -1 })).toThrow("time_s");
});
