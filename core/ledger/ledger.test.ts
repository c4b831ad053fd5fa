import { clockState, type Clock } from "#core/clock/clock-state";
import { correctionInput, textureOf } from "#core/correction/correction-input";
import { compareRunSchools } from "#core/correction/zone-plan";
import { clearSummary, removedAtSpots } from "#core/ledger/clear-summary";
import { derivePanel, measuredRuns } from "#core/ledger/derive-panel";
import { livingEntries } from "#core/ledger/entry";
import { stationOf, type PanelCounts } from "#core/ledger/station";
import { panelShape, suggestSpots } from "#core/panel/shapes";
import { TEST_SHEET as sheet, testLedger } from "#core/testing/test-ledger";
import { HOUSE_WAYS, houseWay, plannedCoat } from "#core/ways/house-ways";
import { planFigures } from "#core/ways/plan-figures";

const um = (x: number) => x * 1e-6;
const shape = panelShape("bonnet", { width_m: 1.4, height_m: 1.2 });
const brief = { shape, substrate: "refinish" as const, tilt_rad: 0, coatsPlanned: 2 };
const places = suggestSpots(shape.outline, 6);

const ledger = () => testLedger({ places });
const BEFORE = [92, 90, 94, 91, 93, 90];
const AFTER = [151, 146, 154, 149, 150, 143];

describe("the ledger", () => {
  test("a correction replaces, a strike removes, striking the strike brings it back; nothing is lost", () => {
    const { entries, add } = ledger();
    const first = add("note", { text: "one" });
    const second = add("note", { text: "two" }, { supersedes: first });
    expect(livingEntries(entries).map((e) => e.id)).toEqual([second]);
    const strike = add("strike", { reason: "undo" }, { supersedes: second });
    expect(livingEntries(entries).map((e) => e.id)).toEqual([first]);
    add("strike", { reason: "undo" }, { supersedes: strike });
    expect(livingEntries(entries).map((e) => e.id)).toEqual([second]);
    expect(entries).toHaveLength(4);
  });
});

describe("a panel derived from its ledger", () => {
  test("clear is after less before, spot by spot, measured", () => {
    const l = ledger();
    l.read("before", BEFORE);
    l.coat(1);
    l.coat(2);
    l.read("after", AFTER);
    const state = derivePanel(brief, sheet, l.entries);
    expect(state.spots.map((s) => Math.round(s.clear!.clear_m * 1e6))).toEqual([59, 56, 60, 58, 57, 53]);
    expect(state.spots.every((s) => s.clear!.how === "measured")).toBe(true);
    expect(state.observations).toHaveLength(12);
    expect(state.spots[0]!.films.before!.readings_m).toHaveLength(3);
    const summary = clearSummary(state)!;
    expect(summary).toMatchObject({ count: 6, inferred: false });
    expect(summary.thinnest.name).toBe("6");
    const clearLayers = state.layers.filter((x) => x.tone === "clear");
    expect(clearLayers.map((x) => x.how)).toEqual(["measured", "measured"]);
    expect(clearLayers.reduce((a, x) => a + x.thickness_m, 0)).toBeCloseTo(summary.mean_m, 12);
  });

  test("without before-readings clear is inferred and said so", () => {
    const l = ledger();
    l.read("after", AFTER);
    const state = derivePanel(brief, sheet, l.entries);
    expect(state.spots.every((s) => s.clear!.how === "inferred")).toBe(true);
    expect(clearSummary(state)!.inferred).toBe(true);
    expect(state.layers.at(-1)!.how).toBe("inferred");
  });

  test("coats alone give a predicted film; two coats 50–60 µm, known to about a third", () => {
    const l = ledger();
    l.coat(1);
    l.coat(2);
    const { predictedClear, layers } = derivePanel(brief, sheet, l.entries);
    expect(predictedClear!.clear_m).toBeGreaterThan(um(50));
    expect(predictedClear!.u_m / predictedClear!.clear_m).toBeCloseTo(Math.hypot(0.3, 0.1 / Math.SQRT2), 6);
    expect(layers.at(-1)!.how).toBe("predicted");
  });

  test("a step takes its forecast off the film until it is measured again; then the readings count", () => {
    const l = ledger();
    l.read("before", BEFORE);
    l.read("after", AFTER);
    const untouched = clearSummary(derivePanel(brief, sheet, l.entries))!;
    l.add("step", { planId: "x", index: 0, name: "P1500 medium", removal_m: um(6), u_m: um(1), note: "", extra: false });
    const sanded = derivePanel(brief, sheet, l.entries);
    expect(clearSummary(sanded)!.mean_m).toBeCloseTo(untouched.mean_m - um(6), 12);
    expect(sanded.spots[0]!.clear!.how).toBe("measured less removal");
    expect(sanded.spots[0]!.clear!.u_m).toBeGreaterThan(derivePanel(brief, sheet, l.entries.slice(0, 12)).spots[0]!.clear!.u_m);
    l.read(
      "recheck",
      AFTER.map((v) => v - 7),
    );
    const again = derivePanel(brief, sheet, l.entries);
    expect(clearSummary(again)!.mean_m).toBeCloseTo(untouched.mean_m - um(7), 10);
    expect(removedAtSpots(again)[0]!.removal_m).toBeCloseTo(um(7), 10);
    expect(again.removedSince.removal_m).toBe(0);
  });

  test("a recheck that later sanding has made old no longer counts", () => {
    const l = ledger();
    l.read("before", BEFORE);
    l.read("after", AFTER);
    const step = () => l.add("step", { planId: "x", index: 0, name: "P1500", removal_m: um(3), u_m: um(1), note: "", extra: false });
    step();
    l.read(
      "recheck",
      AFTER.map((v) => v - 3),
    );
    step();
    l.read(
      "recheck",
      AFTER.map((v) => v - 6),
    );
    expect(removedAtSpots(derivePanel(brief, sheet, l.entries))[0]!.removal_m).toBeCloseTo(um(6), 10);
  });
});

describe("correction of a panel", () => {
  const withLocal = () => {
    const l = ledger();
    l.read("before", BEFORE);
    l.coat(1);
    l.coat(2);
    l.read("after", AFTER);
    l.add("defect", {
      kind: "run",
      at: { x_m: 0.7, y_m: 0.6 },
      length_m: 0.06,
      width_m: 0.01,
      height_m: um(60),
      measured: true,
      count: 1,
      photoId: null,
      note: "",
    });
    return derivePanel(brief, sheet, l.entries);
  };
  const choice = {
    schoolId: "short",
    runSchool: "block" as const,
    texture: { peakToValley_m: um(3), u_m: um(0.4) },
    tape_m: 0.02,
    floor_m: um(35),
  };

  test("a 60 µm run: its own step comes first, four schools stand side by side, its chance joins the panel's", () => {
    const state = withLocal();
    expect(measuredRuns(state)).toHaveLength(1);
    const c = correctionInput(brief, state, choice);
    expect(c.plan.steps.map((s) => s.name)).toEqual([
      "Run: P800 hard",
      "Run: P1000 hard",
      "Run: P1500 medium",
      "P1500 medium",
      "By hand: P2000 soft",
      "P3000 soft",
      "Compound",
      "Polish",
    ]);
    expect(c.plan.total.removal_m).toBeCloseTo(um(11.1625), 10); // P3000 goes over it three times until the P1500 marks are gone
    expect(c.plan.runs!.schools.map((s) => s.school)).toEqual(["block", "blade", "guard", "file"]);
    expect(c.assess.localCutChance).toBeCloseTo(c.plan.runs!.schools[0]!.cutChance, 12);
    expect(correctionInput(brief, state, { ...choice, runSchool: null }).assess.localCutChance).toBe(0);
  });

  test("no run, no run step; no reading, no run forecast", () => {
    const l = ledger();
    l.add("defect", {
      kind: "run",
      at: { x_m: 0.7, y_m: 0.6 },
      length_m: 0.06,
      width_m: 0.01,
      height_m: um(60),
      measured: true,
      count: 1,
      photoId: null,
      note: "",
    });
    expect(compareRunSchools(brief, derivePanel(brief, sheet, l.entries), um(35))).toBeNull();
  });

  test("texture: measured peel goes before the usual one, and the worst counts", () => {
    const l = ledger();
    expect(textureOf(derivePanel(brief, sheet, l.entries)).from).toBe("usual");
    for (const height_m of [um(4), um(9)])
      l.add("defect", {
        kind: "peel",
        at: { x_m: 0.7, y_m: 0.6 },
        length_m: null,
        width_m: null,
        height_m,
        measured: true,
        count: 1,
        photoId: null,
        note: "",
      });
    expect(textureOf(derivePanel(brief, sheet, l.entries))).toMatchObject({ from: "measured", texture: { peakToValley_m: um(9) } });
  });
});

describe("stations", () => {
  const none: PanelCounts = {
    coatsPlanned: 2,
    coats: 0,
    readings: { before: 0, after: 0, recheck: 0 },
    defects: 0,
    plan: null,
    stepsDone: 0,
    handedOver: false,
  };
  const plan = { steps: 3, verdict: "safe" as const };
  test.each([
    [none, "spray", "Take before-readings"],
    [{ ...none, readings: { before: 6, after: 0, recheck: 0 } }, "spray", "Coat 1 of 2"],
    [{ ...none, coats: 1 }, "spray", "Coat 2 of 2"],
    [{ ...none, coats: 2 }, "inspect", "Read the film after clear"],
    [{ ...none, coats: 2, readings: { before: 6, after: 6, recheck: 0 }, defects: 2 }, "correct", "2 to put right"],
    [{ ...none, coats: 2, plan, stepsDone: 1 }, "correct", "Step 2 of 3"],
    [{ ...none, coats: 2, plan: { ...plan, verdict: "stop" as const } }, "correct", "Plan says stop: choose another way"],
    [{ ...none, coats: 2, plan, stepsDone: 3 }, "correct", "Measure again after the last step"],
    [{ ...none, coats: 2, plan, stepsDone: 3, readings: { before: 6, after: 6, recheck: 2 } }, "hand-over", "Ready to hand over"],
    [{ ...none, handedOver: true }, "hand-over", "Handed over"],
  ])("%#: stands at %s", (counts, station, next) => {
    expect(stationOf(counts)).toMatchObject({ station, next });
  });
});

describe("clocks", () => {
  const flash: Clock = {
    id: "c",
    panelId: "p",
    jobId: "j",
    jobName: "",
    panelName: "",
    kind: "flash",
    label: "coat 1",
    started_ms: 0,
    due_ms: 600_000,
    late_ms: 2_700_000,
    stopped_ms: null,
  };
  test.each([
    [0, "waiting", 600],
    [599_000, "waiting", 1],
    [600_000, "due", 0],
    [2_700_001, "late", -0.001],
  ])("a flash clock at %p ms is %s", (now, phase, left_s) => {
    expect(clockState(flash, now)).toMatchObject({ phase, left_s });
  });
  test("a pot that is over is over at once; a stopped clock says so; no time, no state", () => {
    expect(clockState({ ...flash, kind: "pot", late_ms: null }, 600_001)).toMatchObject({ phase: "late", words: "over: mix again" });
    expect(clockState({ ...flash, stopped_ms: 5 }, 10).phase).toBe("stopped");
    expect(() => clockState(flash, NaN)).toThrow("now_ms");
  });
});

describe("house ways", () => {
  test("ids are unique, coats are planned, the last role repeats, an unknown way is refused", () => {
    expect(new Set(HOUSE_WAYS.map((w) => w.id)).size).toBe(HOUSE_WAYS.length);
    for (const w of HOUSE_WAYS) expect(w.coats.length).toBeGreaterThan(0);
    expect(plannedCoat(houseWay("tack-full"), 1).role).toBe("tack");
    expect(plannedCoat(houseWay("two-full"), 9).role).toBe("full wet");
    expect(() => houseWay("none")).toThrow("house way must be one of");
  });
  test("volume by hand: 1.5 m² × 55 µm ÷ 0.48 ÷ 0.65 is 264 ml", () => {
    const f = planFigures({ sheet, coats: 2, area_m2: 1.5, floor_m: um(35) });
    expect(f.volume_m3 * 1e6).toBeCloseTo((1.5 * 55) / 0.48 / 0.65, 6);
    expect(f.spare_m).toBeCloseTo(um(15), 12);
    expect(() => planFigures({ sheet, coats: 0, area_m2: 1, floor_m: 0 })).toThrow("coats");
  });
});
