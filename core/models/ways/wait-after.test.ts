import { flowConditions } from "../../coat/setting";
import { TEST_SHEET } from "../../panel/testing/test-ledger";
import { toSi } from "../../kernel/units/convert";
import type { ProductSheet } from "../product/sheet";
import { USUAL_GUN } from "../spray/usual-gun";
import { SCUFF_AFTER_S, type WaitInput, atConstantAir, waitAfter } from "./wait-after";

const C20 = 293.15;
const gun = { ...USUAL_GUN, pressure_Pa: toSi("pressure", 28, "psi") };
const conditions = flowConditions(
  { speed: "medium", volumeSolids: 0.475 },
  { air_K: C20, material_K: null, reducer: 0, tilt_rad: Math.PI / 2 },
);
const full = { role: "full wet", flashFactor: 1, sandAfter: false };
const tack = { role: "tack", flashFactor: 0.5, sandAfter: false };
const tackGun = { ...gun, handSpeed_m_s: gun.handSpeed_m_s * 2.4 };
const wait = (over: Partial<Omit<WaitInput, "sheet">> & { sheet?: Partial<ProductSheet>; air_K?: number } = {}) => {
  const { sheet, air_K = C20, ...rest } = over;
  return waitAfter({
    planned: full,
    through: atConstantAir(air_K),
    build: [{ gun, flash_s: 0 }],
    conditions: { ...conditions, air_K },
    next: { gun },
    ...rest,
    sheet: { ...TEST_SHEET, ...sheet },
  });
};

test("a sheet that says 8 to 10 min: minute 11 is not too late; clear is scuffed when it is a day old at 20 °C", () => {
  const w = wait({ sheet: { flashMin_s: 480, flashMax_s: 600 } });
  expect([w.least_s, w.best_s]).toEqual([480, 600]);
  expect(w).toMatchObject({ by: "sheet", late: "scuff" });
  expect(w.latest_s).toBeCloseTo(SCUFF_AFTER_S, 6);
  expect(wait({ air_K: C20 + 10 }).latest_s).toBeLessThan(0.5 * SCUFF_AFTER_S);
});

test("the day's temperature moves a sheet of one figure: longer in the cold, never shorter in the warmth", () => {
  expect(wait({ air_K: C20 - 8 }).least_s).toBeGreaterThan(1.4 * 600);
  expect(wait({ air_K: C20 + 10 }).least_s).toBe(600);
});

test("a way may wait longer than the sheet's least, never shorter", () => {
  expect(wait({ planned: { ...full, flashFactor: 3 } })).toMatchObject({ least_s: 1800, by: "way" });
  expect(wait({ planned: { ...full, flashFactor: 0.6 } })).toMatchObject({ least_s: 600, by: "sheet" });
});

test("a next coat that may run opens the window later, as long as waiting helps; one that is likely to at any wait is said to", () => {
  const short = { flashMin_s: 10, flashMax_s: 2700 };
  const runs = wait({ sheet: short });
  expect(runs.by).toBe("run");
  expect(runs.least_s).toBe(runs.runsBefore_s);
  expect(wait({ sheet: short, conditions: { ...conditions, tilt_rad: 0.09 } })).toMatchObject({
    by: "sheet",
    least_s: 10,
    runsBefore_s: 0,
  });
  expect(wait({ next: { gun: { ...gun, handSpeed_m_s: 0.12 } } }).runsBefore_s).toBeNull();
});

test("a grip coat's window opens when it pulls no strings and closes when it takes no print; a sheet whose least is later leaves no grip, and that is said", () => {
  const on = { planned: tack, build: [{ gun: tackGun, flash_s: 0 }] };
  const open = wait({ ...on, sheet: { flashMin_s: 60 } });
  expect(open).toMatchObject({ late: "grip", setsFirst: false });
  expect(open.latest_s).toBe(open.locks_s);
  // A thin coat at 20 °C: 8 to 15 min, common practice.
  expect(open.locks_s).toBeGreaterThan(8 * 60);
  expect(open.locks_s).toBeLessThan(20 * 60);
  expect(open).toMatchObject({ by: "grip" });
  expect(open.least_s).toBeGreaterThan(3 * 60);
  // The sheet's 10 min lie within it.
  expect(wait(on)).toMatchObject({ setsFirst: false, late: "grip", by: "sheet", least_s: 600 });
  const shut = wait({ ...on, sheet: { flashMin_s: 1200 } });
  expect(shut).toMatchObject({ setsFirst: true, late: "scuff", least_s: 1200 });
});

test("windows never cross, whatever the sheet, the way and the day", () => {
  for (const air of [-5, 0, 8])
    for (const flashMin_s of [30, 480, 1800])
      for (const most of [1, 1.25, 5])
        for (const planned of [full, tack, { ...full, flashFactor: 3 }])
          for (const handSpeed_m_s of [0.2, 0.34, 0.8]) {
            const w = wait({
              air_K: C20 + air,
              planned,
              sheet: { flashMin_s, flashMax_s: flashMin_s * most },
              next: { gun: { ...gun, handSpeed_m_s } },
            });
            expect(w.least_s).toBeGreaterThanOrEqual(w.sheet.least_s);
            expect(w.best_s).toBeGreaterThanOrEqual(w.least_s);
            expect(w.latest_s).toBeGreaterThanOrEqual(w.best_s);
          }
});

test("settings outside the model leave the sheet's window; no coat at all is refused", () => {
  expect(wait({ build: [{ gun: { ...gun, distance_m: 2 }, flash_s: 0 }] })).toMatchObject({ least_s: 600, runsBefore_s: undefined });
  expect(() => wait({ build: [] })).toThrow(RangeError);
});
