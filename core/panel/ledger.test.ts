import { clockState, type Clock } from "#core/models/clock/clock-state";
import { TEST_SHEET as sheet } from "#core/panel/testing/test-ledger";
import { plannedCoat } from "#core/models/ways/way";
import { HOUSE_WAYS, houseWay } from "#core/models/ways/house-ways";
import { type GunSettings, deposit } from "#core/models/spray/deposit";
import { USUAL_GUN } from "#core/models/spray/usual-gun";
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
  describe("what a way promises", () => {
    const outline = [
      [0, 0],
      [1.5, 0],
      [1.5, 1],
      [0, 1],
    ] as const;
    const of = (id: string) => {
      const way = houseWay(id);
      return planFigures({ sheet, way, coats: way.coats.length, outline, gun: USUAL_GUN, floor_m: um(35) });
    };
    test("by area as before: 1.5 m² × 55 µm ÷ 0.48 ÷ 0.65 is 264 ml; by strokes 9 of 1.7 m at 0.34 m/s and 230 ml/min, twice", () => {
      const f = of("two-full");
      expect(f.byArea_m3 * 1e6).toBeCloseTo((1.5 * 55) / 0.48 / 0.65, 6);
      expect(f.volume_m3 * 1e6).toBeCloseTo((2 * 9 * 1.7 * 230) / 0.34 / 60, 6);
      expect(f.spare_m).toBeCloseTo(um(15), 12);
    });
    test("many thin coats promise what they lay: five with a faster hand, less fluid and nearer, not five full ones", () => {
      const f = of("many-thin");
      const laid = (over: Partial<GunSettings>) =>
        deposit({ ...USUAL_GUN, ...over }, { air_K: 293.15, speed: "medium", volumeSolids: 0.5, reducer: 0 }).dry_m;
      const { handSpeed_m_s, fluidRate_m3_s, distance_m } = USUAL_GUN;
      const thin = laid({ handSpeed_m_s: 1.7 * handSpeed_m_s, fluidRate_m3_s: 0.7 * fluidRate_m3_s, distance_m: 0.65 * distance_m });
      expect(f.fullCoats).toBeCloseTo((5 * thin) / laid({}), 6);
      expect(f.fullCoats).toBeLessThan(4);
      expect(f.dryMin_m).toBeCloseTo(um(f.fullCoats * 25), 12);
    });
    test("a coat on spots adds no film to the panel, flatting takes some off again", () => {
      expect(of("patch-first").dryMin_m).toBeCloseTo(um(50), 12);
      expect(of("three-sand-three").dryMin_m).toBeCloseTo(um(6 * 25 - 8), 12);
    });
    test("no coats are refused", () => {
      expect(() => planFigures({ sheet, way: houseWay("two-full"), coats: 0, outline, gun: USUAL_GUN, floor_m: 0 })).toThrow("coats");
    });
  });
});
