import { clockState, type Clock } from "#core/models/clock/clock-state";
import { TEST_SHEET as sheet } from "#core/panel/testing/test-ledger";
import { HOUSE_WAYS, houseWay, plannedCoat } from "#core/models/ways/house-ways";
import { planFigures } from "#core/models/ways/plan-figures";

const um = (x: number) => x * 1e-6;

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
    expect(clockState({ ...flash, kind: "pot", late_ms: null }, 600_001)).toMatchObject({ phase: "late", share: 1 });
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
