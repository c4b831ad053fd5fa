import { coatPlan } from "#core/models/ways/coat-plan";
import { HOUSE_WAYS, houseWay } from "#core/models/ways/house-ways";
import { SUBSTRATE_TEXTURE } from "#core/models/flow/constants";
import { deposit } from "#core/models/spray/deposit";
import { timesAt } from "#core/models/product/sheet";
import { productSheet } from "#core/models/product/sheet-schema";
import { USUAL_GUN } from "#core/models/spray/usual-gun";

const sheet = productSheet.parse({
  name: "Clear T",
  kind: "clear",
  ratio: "2:1",
  volumeSolids: 0.475,
  speed: "medium",
  coats: 2,
  filmPerCoatMin_m: 25e-6,
  filmPerCoatMax_m: 32e-6,
  flashMin_s: 600,
  flashMax_s: 2700,
  flashAt: [{ temperature_K: 303.15, min_s: 300, max_s: 1500 }],
  potLife_s: 5400,
  sandAfter_s: 57600,
  floor_m: null,
});
const conditions = {
  air_K: 293.15,
  speed: "medium" as const,
  volumeSolids: 0.475,
  reducer: 0,
  airSpeed_m_s: 0.3,
  tilt_rad: Math.PI / 2,
  edge: 1,
  below: SUBSTRATE_TEXTURE.basecoat,
};
const gun = { ...USUAL_GUN };
const plan = (id: string, change: Partial<Parameters<typeof coatPlan>[1]> = {}) => {
  const way = houseWay(id);
  return coatPlan(way, { sheet, conditions, gun, coats: way.coats.length, ...change });
};

test("each coat lays what the gun lays at the way's own pace, and the clear adds up", () => {
  const rows = plan("tack-full");
  const tack = deposit({ ...gun, handSpeed_m_s: gun.handSpeed_m_s * 2.4 }, conditions);
  expect(rows[0]!.dry_m).toBeCloseTo(tack.dry_m, 12);
  expect(rows.at(-1)!.clear_m).toBeCloseTo(
    rows.reduce((a, r) => a + r.dry_m, 0),
    12,
  );
  expect(rows[0]!.dry_m).toBeLessThan(rows[1]!.dry_m);
});
test("waits are the sheet's, never shorter by a way, and shorter in the warm where the sheet says so", () => {
  const cool = plan("two-full")[0]!.wait!;
  expect([cool.least_s, cool.best_s]).toEqual([600, 2700]);
  expect(plan("tack-full")[0]!.wait!.least_s).toBe(600);
  const warm = plan("two-full", { conditions: { ...conditions, air_K: 303.15 } })[0]!.wait!;
  expect([warm.least_s, warm.best_s]).toEqual([300, 1500]);
  expect(timesAt(sheet, 298.15).flashMin_s).toBeGreaterThan(300);
  expect(timesAt(sheet, 298.15).flashMin_s).toBeLessThan(600);
});
test("no flash on a vertical runs, lying flat it does not; waiting longer never makes it run", () => {
  const upright = plan("two-full")[0]!.wait!;
  expect(upright.runsBefore_s).toBeGreaterThan(0);
  expect(upright.runsBefore_s).toBeLessThan(600);
  expect(plan("two-full", { conditions: { ...conditions, tilt_rad: 0.09 } })[0]!.wait!.runsBefore_s).toBe(0);
  const flood = plan("two-full", { gun: { ...gun, handSpeed_m_s: 0.16 } });
  expect(flood.some((r) => r.verdict === "run" || r.wait?.runsBefore_s === null)).toBe(true);
});
test("three, sand, three: a day between the builds, the sanding's loss taken off, the second build on a flat surface", () => {
  const rows = plan("three-sand-three");
  expect(rows[2]!.wait).toMatchObject({ sand: true, by: "cure" });
  expect(rows[2]!.wait!.least_s).toBeCloseTo(sheet.sandAfter_s, 6);
  const warm = plan("three-sand-three", { conditions: { ...conditions, air_K: 303.15 } });
  expect(warm[2]!.wait!.least_s).toBeLessThan(0.5 * sheet.sandAfter_s);
  expect(rows[3]!.clear_m).toBeCloseTo(rows[2]!.clear_m - 8e-6 + rows[3]!.dry_m, 12);
  expect(rows[5]!.texture).toBeLessThan(plan("three-flat")[2]!.texture);
});
test("every way can be planned; a learnt film factor scales it and its doubt", () => {
  for (const way of HOUSE_WAYS) expect(plan(way.id)).toHaveLength(way.coats.length);
  const more = plan("two-full", { shop: { film: 1.2, levelling: 1, noise: 1 }, u_filmLog: 0.05 });
  expect(more[0]!.dry_m / plan("two-full")[0]!.dry_m).toBeCloseTo(1.2, 9);
  expect(more[0]!.u_dry_m / more[0]!.dry_m).toBeCloseTo(Math.hypot(0.05, 0.1), 9);
});
test("refuses no coats and impossible guns", () => {
  expect(() => plan("two-full", { coats: 0 })).toThrow(RangeError);
  expect(() => plan("two-full", { gun: { ...gun, distance_m: 2 } })).toThrow(RangeError);
});
