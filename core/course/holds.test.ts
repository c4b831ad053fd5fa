import { DEFECT_IDS } from "../models/defects/kinds";
import { holdOf } from "../models/defects/holds";
import { panelShape } from "../kernel/geometry/shapes";
import { houseWay } from "../models/ways/house-ways";
import { derivePanel } from "../panel/derive-panel";
import { TEST_GUN, TEST_SHEET, testLedger } from "../panel/testing/test-ledger";
import { courseOf } from "./course";
import { isNo } from "./step-hold";
import { standingOf } from "./standing";
import { nextAction } from "./steps";

const shape = panelShape("door", { width_m: 1, height_m: 0.8 });
const brief = { shape, substrate: "refinish" as const, tilt_rad: Math.PI / 2, coatsPlanned: 2 };
type Ledger = ReturnType<typeof testLedger>;
/** A door between its coats, an hour later, with what a test adds. */
function between(add: (l: Ledger) => unknown, { after_min = 60, sheet = TEST_SHEET } = {}) {
  const l = testLedger();
  l.read("before", [90, 92]);
  l.coat(1);
  add(l);
  const facts = derivePanel(brief, sheet, l.entries);
  const now_ms = l.entries.at(-1)!.at_ms + after_min * 60_000;
  const asked = { brief, sheet, way: houseWay("two-full"), finish: "match" as const, facts, now_ms };
  return { action: nextAction(courseOf(asked)), standing: standingOf(asked) };
}
const climate =
  (air_K: number, relativeHumidity: number, part_K: number | null = null) =>
  (l: Ledger) =>
    l.add("climate", { air_K, part_K, relativeHumidity });

test("every kind of fault that holds more clear back holds the next coat, on the course and in every list, with its reason", () => {
  for (const kind of DEFECT_IDS) {
    const mark = { kind, at: { x_m: 0.5, y_m: 0.4 }, length_m: null, width_m: null, height_m: null, measured: true };
    const { action, standing } = between((l) => l.add("defect", mark));
    const hold = holdOf(kind);
    const holds = hold !== null && (hold.holds as readonly string[]).includes("clear");
    if (action?.kind !== "coat") continue; // seen only in finished clear: no coat is to come
    expect({ kind, holds: action.holds.length > 0 }).toEqual({ kind, holds });
    if (holds && hold.level === "stop") expect(standing.attention).toBe(true);
    expect(standing.action!.holds).toEqual(action.holds);
  }
});

test("a climate that says stop reaches the next coat for as long as it counts: cold, damp, a cold part", () => {
  const said = (add: (l: Ledger) => unknown, after_min = 5) =>
    between(add, { after_min }).action!.holds.map((h) => h.by === "climate" && h.check.id);
  expect(said(climate(293.15, 0.5))).toEqual([]);
  expect(said(climate(285.15, 0.5))).toEqual(["air"]);
  expect(said(climate(293.15, 0.5, 278.15))).toEqual(["dew", "part"]);
  expect(said(climate(293.15, 0.92, 290.15))).toEqual(["dew"]);
  expect(said(climate(285.15, 0.5), 60 * 24)).toEqual([]);
});

test("a pot that is over holds the coat out of it; a fresh one does not", () => {
  const mixed = (potLife_s: number) => between((l) => l.add("mix", { volume_m3: 3e-4, reducer: 0, potLife_s })).action!.holds;
  expect(mixed(1800)).toMatchObject([{ by: "pot" }]);
  expect(mixed(3 * 3600)).toEqual([]);
  expect(mixed(1800).every(isNo)).toBe(true);
});

test("a matte part without a tape time is turned when it is hard, as its clock says, not after an hour", () => {
  const sheet = { ...TEST_SHEET, kind: "matte clear" as const, tape_s: null, dustFree_s: null, sandAfter_s: 36 * 3600 };
  const l = testLedger();
  l.add("coat", { number: 1, role: "full wet", reducer: 0, wetReading_m: null, side: "back", settings: TEST_GUN });
  const twoFaces = { ...brief, coatsPlanned: 1, sides: 2 as const };
  const facts = derivePanel(twoFaces, sheet, l.entries);
  const now_ms = l.entries.at(-1)!.at_ms + 2 * 3600e3;
  const steps = courseOf({ brief: twoFaces, sheet, way: houseWay("two-full"), finish: "matte", facts, now_ms });
  const turn = steps.find((s) => s.kind === "turn")!;
  expect((turn.from_ms! - l.entries[0]!.at_ms) / 3600e3).toBeGreaterThan(30);
});
