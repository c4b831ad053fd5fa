import { DEFECT_IDS } from "../models/defects/kinds";
import { holdOf } from "../models/defects/holds";
import { panelShape } from "../kernel/geometry/shapes";
import { houseWay } from "../models/ways/house-ways";
import { derivePanel } from "../panel/derive-panel";
import { WHOLE_PANEL, faultsHolding } from "../panel/fault-holds";
import { openMarks } from "../panel/open-marks";
import { TEST_GUN, TEST_SHEET, testLedger } from "../panel/testing/test-ledger";
import { clocksOf } from "./clocks";
import { courseOf } from "./course";
import { holdsAt, isNo } from "./step-hold";
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
  const steps = courseOf(asked);
  return { steps, action: nextAction(steps), standing: standingOf(asked), written_ms: l.entries.at(-1)!.at_ms };
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

test("what a fault waited for is told at its mark: every kind lets the coat and the paper go, a strike of that holds them again", () => {
  for (const kind of DEFECT_IDS) {
    const hold = holdOf(kind);
    if (!hold) continue;
    const mark = { kind, at: { x_m: 0.5, y_m: 0.4 }, length_m: null, width_m: null, height_m: null, measured: true };
    const held = (told: "not" | "told" | "taken back") => {
      const l = testLedger();
      l.coat(1);
      l.coat(2);
      const markId = l.add("defect", mark);
      if (told !== "not") {
        const seen = l.add("seenTo", { markId, as: hold.until });
        if (told === "taken back") l.add("strike", { reason: "", whole: true }, { supersedes: seen });
      }
      const facts = derivePanel(brief, TEST_SHEET, l.entries);
      return [faultsHolding(facts, ["paper", "clear"], WHOLE_PANEL).length, openMarks(facts).length];
    };
    // What only dried out is there still: it is worked as any other.
    expect({ kind, held: (["not", "told", "taken back"] as const).map(held) }).toEqual({
      kind,
      held: [
        [1, 1],
        [0, hold.until === "dry" ? 1 : 0],
        [1, 1],
      ],
    });
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

test("a pot that is over while coats are to come is mixed afresh: the step is open again, and done with the next pot", () => {
  const mix =
    (potLife_s: number, volume_m3 = 3e-4) =>
    (l: Ledger) =>
      l.add("mix", { volume_m3, reducer: 0, potLife_s });
  const state = (...pots: ((l: Ledger) => unknown)[]) => between((l) => pots.forEach((p) => p(l))).steps.find((s) => s.id === "mix")?.state;
  expect(state(mix(3 * 3600))).toBe("done");
  expect(state(mix(600))).toBe("open");
  expect(state(mix(600), mix(3 * 3600))).toBe("done");
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

test("a film marked as soft is hard at no hour: course, list and clock say so until it is told to be hard", () => {
  const l = testLedger();
  l.read("before", [90, 92]);
  l.coat(1);
  l.coat(2);
  const markId = l.add("defect", {
    kind: "softFilm",
    at: { x_m: 0.5, y_m: 0.4 },
    length_m: null,
    width_m: null,
    height_m: null,
    measured: false,
  });
  const now_ms = l.entries.at(-1)!.at_ms + 30 * 24 * 3600e3;
  const asked = () => ({
    brief,
    sheet: TEST_SHEET,
    way: houseWay("two-full"),
    finish: "match" as const,
    facts: derivePanel(brief, TEST_SHEET, l.entries),
    now_ms,
  });
  const steps = courseOf(asked());
  expect(steps.find((s) => s.state === "now")).toMatchObject({ kind: "cure", holds: [{ by: "fault", fault: { kind: "softFilm" } }] });
  expect(standingOf(asked())).toMatchObject({ attention: true, action: { kind: "readAfter", holds: [{ by: "fault" }] } });
  expect(clocksOf(asked()).map((c) => c.kind)).not.toContain("cure");
  l.add("seenTo", { markId, as: "hard" });
  expect(courseOf(asked()).find((s) => s.kind === "cure")).toMatchObject({ state: "done", holds: [] });
  expect(standingOf(asked()).action).toMatchObject({ kind: "readAfter", holds: [] });
});

test("what is kept for the lists says by itself when it counts: a pot that dies later holds then, a climate is forgotten after its stay", () => {
  const held = (add: (l: Ledger) => unknown) => {
    const { standing, written_ms } = between(add, { after_min: 0 });
    return (after_h: number) => holdsAt(standing.action!.holds, written_ms + after_h * 3600e3).map((h) => h.by);
  };
  const pot = held((l) => l.add("mix", { volume_m3: 3e-4, reducer: 0, potLife_s: 2 * 3600 }));
  expect([pot(1), pot(3)]).toEqual([[], ["pot"]]);
  const cold = held(climate(285.15, 0.5));
  expect([cold(1), cold(5)]).toEqual([["climate"], []]);
  const marked = held((l) =>
    l.add("defect", { kind: "peeling", at: { x_m: 0.5, y_m: 0.4 }, length_m: null, width_m: null, height_m: null, measured: false }),
  );
  expect([marked(0), marked(1000)]).toEqual([["fault"], ["fault"]]);
});
