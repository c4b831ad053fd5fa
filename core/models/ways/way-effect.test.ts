import { chanceWord } from "../flow/run-chance";
import { panelShape } from "../../kernel/geometry/shapes";
import { flowConditions } from "../../coat/setting";
import { TEST_SHEET } from "../../panel/testing/test-ledger";
import { HOUSE_WAYS, houseWay } from "./house-ways";
import type { HouseWay } from "./way";
import { type WaySetting, wayEffect } from "./way-effect";

const setting: WaySetting = {
  sheet: TEST_SHEET,
  outline: panelShape("door", { width_m: 1.1, height_m: 0.7 }).outline,
  conditions: flowConditions(TEST_SHEET, { air_K: 293.15, material_K: null, reducer: 0, tilt_rad: Math.PI / 2 }),
};
const effect = (id: string, over: Partial<HouseWay> = {}) => wayEffect({ ...houseWay(id), ...over }, setting);

test("every way of the trade is within the model on an upright door, and none of them runs there as it stands", () => {
  for (const w of HOUSE_WAYS) {
    const e = effect(w.id);
    expect({ way: w.id, run: chanceWord(e.runChance) === "likely" }).toEqual({ way: w.id, run: false });
    expect(e.clear_m).toBeGreaterThan(20e-6);
    expect(e.worked_s).toBeGreaterThan(e.sprayed_s);
  }
});

test("what a change does to film, time, litres and the danger of a run", () => {
  const usual = effect("two-full");
  const { coats } = houseWay("two-full");
  const slower = effect("two-full", { coats: coats.map((c) => ({ ...c, speedFactor: 0.45 })) });
  expect(slower.clear_m / usual.clear_m).toBeCloseTo(1 / 0.45, 6);
  expect(chanceWord(slower.runChance)).toBe("likely");
  expect(usual.runChance).toBeLessThan(slower.runChance);
  const held = effect("two-full", { trigger: "held" });
  expect(held.volume_m3).toBeGreaterThan(1.05 * usual.volume_m3);
  expect(held.clear_m).toBe(usual.clear_m);
  expect(effect("long-flash").sprayed_s).toBeGreaterThan(usual.sprayed_s + 20 * 60);
  expect(effect("two-full", { correctAfter_s: 7 * 86_400 }).worked_s).toBeCloseTo(usual.sprayed_s + 7 * 86_400, 6);
});

test("builds: the sanding comes off, a day goes by, and the surface is flatter for it", () => {
  const built = effect("three-sand-three");
  expect(built.visits).toBe(2);
  expect(built.sprayed_s).toBeGreaterThan(TEST_SHEET.sandAfter_s);
  expect(built.texture).toBeLessThan(effect("three-flat").texture);
  const harder = effect("three-sand-three", { flatten: { grit: 1500, by: "hand", removal_m: 20e-6, u_m: 4e-6 } });
  expect(built.clear_m - harder.clear_m).toBeCloseTo(12e-6, 9);
});
