import fc from "fast-check";
import { panelShape, suggestSpots } from "#core/kernel/geometry/shapes";
import { RUN_SCHOOLS, type RunSchool } from "#core/models/correction/run-work";
import { CORRECTION_SCHOOL_IDS } from "#core/models/correction/schools";
import { TEST_SHEET, coatedLedger } from "#core/panel/testing/test-ledger";
import type { BodyInputOf } from "#core/record/bodies";
import { accountPanel } from "./account";
import { FilmJudge } from "./film-judge";
import type { JudgeOf } from "./kept-judge";
import { judgedPlan } from "./plan-for";
import type { ZoneChoice } from "./zone-setting";

const um = (x: number) => x * 1e-6;
const shape = panelShape("door", { width_m: 1.1, height_m: 0.9 });
const brief = { shape, substrate: "refinish" as const, tilt_rad: Math.PI / 2, coatsPlanned: 2 };
const places = suggestSpots(shape.outline, 8);
const RUN: BodyInputOf<"defect"> = {
  kind: "run",
  at: { x_m: 0.6, y_m: 0.4 },
  length_m: 0.06,
  width_m: 0.01,
  height_m: um(60),
  measured: true,
};
const NIB: BodyInputOf<"defect"> = {
  kind: "nib",
  at: { x_m: 0.3, y_m: 0.6 },
  count: 1,
  length_m: null,
  width_m: null,
  height_m: null,
  measured: false,
};
const choice: ZoneChoice = {
  schoolId: "short",
  runSchool: "block",
  texture: { peakToValley_m: um(5), u_m: um(0.5) },
  tape_m: 0.02,
  floor_m: um(35),
};
/** As the page's worker has it, with fewer draws. */
const judged = (clear_um: number, defects: readonly BodyInputOf<"defect">[], other: Partial<ZoneChoice> = {}) => {
  const { entries } = coatedLedger({ places, under_um: [92, 90, 94, 91, 93, 90, 92, 91], clear_um, defects });
  const judgeOf: JudgeOf = (film, o) => new FilmJudge(film, { ...o, draws: 200 });
  const question = { brief, state: accountPanel(brief, TEST_SHEET, entries), choice: { ...choice, ...other }, remedies: false };
  return judgedPlan(question, { judgeOf });
};
const SCHOOLS = Object.keys(RUN_SCHOOLS) as RunSchool[];

test("what a zone and the run's table say is what the verdict has: none of them more, and the school that is chosen the same", () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 15, max: 70 }),
      fc.constantFrom(...SCHOOLS),
      fc.constantFrom(...CORRECTION_SCHOOL_IDS),
      fc.boolean(),
      (clear_um, runSchool, schoolId, nib) => {
        const { plan, assessment, chances } = judged(clear_um, nib ? [RUN, NIB] : [RUN], { runSchool, schoolId });
        const told = chances!.zones.filter((c) => c !== null);
        for (const c of [...told, assessment.cutChance]) expect(c >= 0 && c <= 1).toBe(true);
        // Each is a part of the verdict's own question, and together they are not less than it.
        expect(Math.max(...told)).toBeLessThanOrEqual(assessment.cutChance + 1e-9);
        expect(1 - told.reduce((a, c) => a * (1 - c), 1)).toBeGreaterThan(0.5 * assessment.cutChance - 1e-9);
        const ofRun = chances!.zones[plan.zones.findIndex((z) => z.kind === "run")];
        expect(chances!.schools.find((s) => s.school === runSchool)!.cut).toBe(ofRun);
        expect(chances!.schools.map((s) => s.school)).toEqual(SCHOOLS);
      },
    ),
    { numRuns: 20 },
  );
});

test("a run alone, worked at its own place: zone, table and verdict say one figure", () => {
  const { plan, assessment, chances } = judged(24, [RUN], { schoolId: "spot" });
  expect(plan.zones.map((z) => z.kind)).toEqual(expect.arrayContaining(["run"]));
  expect(assessment.cutChance).toBeGreaterThan(0);
  expect(chances!.zones[0]).toBeCloseTo(assessment.cutChance, 12);
  const [block] = chances!.schools.filter((s) => s.school === "block");
  expect(block!.cut).toBeCloseTo(assessment.cutChance, 12);
  expect(block!.thin).toBeCloseTo(assessment.thinChance, 12);
});

test("where nothing is read nothing is claimed", () => {
  expect(judged(40, []).chances!.schools).toEqual([]);
  const state = accountPanel(brief, TEST_SHEET, []);
  expect(judgedPlan({ brief, state, choice, remedies: false }).chances).toBeNull();
});
