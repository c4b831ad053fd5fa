import { polygonArea } from "#core/kernel/geometry/geometry";
import { panelShape } from "#core/kernel/geometry/shapes";
import type { BodyInputOf } from "#core/record/bodies";
import { derivePanel } from "#core/panel/derive-panel";
import { TEST_SHEET, testLedger } from "#core/panel/testing/test-ledger";
import { openMarks } from "../panel/open-marks";
import { sandOutOf } from "./sand-out";

const shape = panelShape("door", { width_m: 1.1, height_m: 0.9 });
const brief = { shape, substrate: "refinish" as const, tilt_rad: Math.PI / 2, coatsPlanned: 2 };
const mark = (own: Partial<BodyInputOf<"defect">>): BodyInputOf<"defect"> => ({
  kind: "peeling",
  at: { x_m: 0.5, y_m: 0.5 },
  length_m: null,
  width_m: null,
  height_m: null,
  measured: false,
  ...own,
});
function takenBack(defects: readonly BodyInputOf<"defect">[]) {
  const l = testLedger({ places: [] });
  for (const d of defects) l.add("defect", d);
  return sandOutOf(brief, openMarks(derivePanel(brief, TEST_SHEET, l.entries)));
}

test("a flake of 2 by 4 cm is taken back 150 mm beyond on every side: its rectangle, four strips and four quarter circles", () => {
  const { area_m2, region } = takenBack([mark({ length_m: 0.04, width_m: 0.02 })]);
  const r = 0.15;
  expect(polygonArea(region[0]!)).toBeCloseTo(0.04 * 0.02 + 2 * r * (0.04 + 0.02) + Math.PI * r * r, 2);
  // It lies well inside the door: all of it is the panel's.
  expect(area_m2).toBeCloseTo(polygonArea(region[0]!), 2);
});

test("what was drawn is taken back by what was drawn; what nobody drew or sized by a hand's breadth", () => {
  const drawn = mark({
    trace: {
      as: "line",
      at: [
        { x_m: 0.3, y_m: 0.5 },
        { x_m: 0.7, y_m: 0.5 },
      ],
    },
  });
  expect(polygonArea(takenBack([drawn]).region[0]!)).toBeCloseTo(0.4 * 0.3 + Math.PI * 0.15 ** 2, 2);
  expect(polygonArea(takenBack([mark({})]).region[0]!)).toBeCloseTo(0.14 ** 2 + 4 * 0.14 * 0.15 + Math.PI * 0.15 ** 2, 2);
});

test("only the part of it that lies on the panel counts, and two places that overlap count once", () => {
  const corner = takenBack([mark({ at: { x_m: 0.02, y_m: 0.85 } })]);
  expect(corner.area_m2).toBeLessThan(0.75 * polygonArea(corner.region[0]!));
  const one = takenBack([mark({})]).area_m2;
  const twice = takenBack([mark({}), mark({ kind: "edgeLift", at: { x_m: 0.52, y_m: 0.5 } })]).area_m2;
  expect(twice).toBeGreaterThan(one);
  expect(twice).toBeLessThan(1.2 * one);
});

test("faults that nothing is sanded out for take nothing back", () => {
  expect(takenBack([mark({ kind: "haze" }), mark({ kind: "nib" })])).toEqual({ region: [], area_m2: 0 });
});
