import { CHANCE_WORDS } from "../flow/run-chance";
import { flowConditions } from "../../coat/setting";
import { TEST_SHEET } from "../../panel/testing/test-ledger";
import { USUAL_GUN } from "../spray/usual-gun";
import { FLOW_COAT } from "./flow-coat";
import { flowStage, withFlowCoats } from "./flow-stage";
import { houseWay, usualCoat } from "./house-ways";
import { houseWayBody } from "./way-body";

const um = (x: number) => x * 1e-6;
const upright = flowConditions(TEST_SHEET, { air_K: 293.15, material_K: null, reducer: 0.05, tilt_rad: Math.PI / 2 });
const stage = (over: Partial<Parameters<typeof flowStage>[0]> = {}) =>
  flowStage({
    flash_s: TEST_SHEET.flashMin_s,
    conditions: upright,
    gun: USUAL_GUN,
    left: { clear_m: um(70), u_m: um(4) },
    under_m: um(100),
    ...over,
  });

test("two coats over a flatted build: safe by the flow model, film added up with its doubt, flatter than over peel", () => {
  const s = stage();
  expect(s.against).toBeNull();
  expect(s.runChance!).toBeLessThan(CHANCE_WORDS.may);
  expect(s.clear_m).toBeCloseTo(um(70) + s.adds_m, 12);
  expect(s.u_clear_m).toBeGreaterThan(um(4));
  expect(s.total_m).toBeCloseTo(s.clear_m + um(100), 12);
  expect(s.texture).toBeLessThan(3);
  expect(s.coat).toMatchObject({ role: "flow", reducerShift: FLOW_COAT.reducerShift });
});

test("the hand is no slower than it may be: where a slow one may run, the pace is found at which that is unlikely at an edge", () => {
  const heavy = { ...USUAL_GUN, fluidRate_m3_s: 1.6 * USUAL_GUN.fluidRate_m3_s };
  const solved = stage({ gun: heavy });
  expect(solved.coat!.speedFactor).toBeGreaterThan(FLOW_COAT.speedFactor);
  expect(solved.runChance!).toBeLessThan(CHANCE_WORDS.may);
  expect(solved.runChance!).toBeGreaterThan(0.9 * CHANCE_WORDS.may);
  // Lying flat nothing slides: as slow as a flow coat is meant.
  expect(stage({ gun: heavy, conditions: { ...upright, tilt_rad: 0 } }).coat!.speedFactor).toBe(FLOW_COAT.speedFactor);
});

test("no pace is safe, too much clear, too much in all: each is said, in the order of its weight", () => {
  const flood = { ...USUAL_GUN, fluidRate_m3_s: 5e-6 * 3, handSpeed_m_s: 0.1 };
  expect(stage({ gun: flood })).toMatchObject({ against: "runs", coat: null, adds_m: 0 });
  expect(stage({ left: { clear_m: um(130), u_m: um(4) } }).against).toBe("clear build");
  expect(stage({ under_m: um(220) }).against).toBe("total build");
  expect(() => stage({ coats: 0 })).toThrow(RangeError);
});

test("a way goes on with a flow coat from what is on: sanded after that coat, then the flow coats; and again from there", () => {
  const coat = { ...usualCoat(), role: "flow", speedFactor: 0.9, reducerShift: 0.075 };
  const once = withFlowCoats(houseWay("three-flat"), 3, { coat, coats: 2 });
  expect(once.coats.map((c) => [c.role, c.sandAfter])).toEqual([
    ["full wet", false],
    ["full wet", false],
    ["full wet", true],
    ["flow", false],
    ["flow", false],
  ]);
  expect(houseWayBody.parse(once)).toMatchObject({ name: "Three and flat, then flow coat" });
  const twice = withFlowCoats(once, 5, { coat, coats: 2 });
  expect(twice).toMatchObject({ id: once.id, name: once.name });
  expect(twice.coats.map((c) => c.sandAfter)).toEqual([false, false, true, false, true, false, false]);
});
