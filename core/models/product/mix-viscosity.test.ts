import fc from "fast-check";
import { TEST_SHEET } from "../../panel/testing/test-ledger";
import { flowConditions } from "../../coat/setting";
import { deposit } from "../spray/deposit";
import { simulateCoats } from "../flow/simulate-coats";
import { USUAL_GUN } from "../spray/usual-gun";
import { FLOW_CUPS, FLOW_CUP_IDS, cupFromViscosity, cupReading, viscosityFromCup } from "./flow-cup";
import { mixViscosity22C } from "./mix-viscosity";
import { sheetContradictions, sheetRefusals } from "./sheet";

const din4 = (efflux_s: number) => ({ cup: "din4" as const, efflux_s, temperature_K: 293.15 });
const UPRIGHT = { air_K: 293.15, material_K: null, reducer: 0, tilt_rad: Math.PI / 2 };

test("a cup time as shops measure it is read, and says that it lies outside the cup's own range", () => {
  // 4.57 · 18 − 452 / 18 = 57.1 mm²/s, by hand; DIN 53211 from memory.
  expect(cupReading(din4(18))!.nu_m2_s * 1e6).toBeCloseTo(57.15, 2);
  expect(cupReading(din4(18))!.meant).toBe(false);
  for (const cup of FLOW_CUP_IDS) {
    const { from_s } = FLOW_CUPS[cup];
    expect(cupReading({ cup, efflux_s: from_s })).toEqual({ nu_m2_s: viscosityFromCup(cup, from_s), meant: true });
  }
  expect(cupReading({ cup: "iso4", efflux_s: 10 })).toBeNull();
  expect(() => viscosityFromCup("din4", 18)).toThrow(RangeError);
});

test("a cup time that nothing sprayed has is refused at the door, and a stored one says nothing", () => {
  const sheet = { ...TEST_SHEET, viscosity: { cup: "iso4" as const, efflux_s: 10, temperature_K: 293.15 } };
  expect(sheetRefusals(sheet)).toMatchObject([{ field: "viscosity" }]);
  expect(sheetContradictions(sheet)).toEqual([]);
  expect(mixViscosity22C(sheet)).toBeUndefined();
});

test("the model's own viscosity comes back from the cup time that it would have", () => {
  // A mix of 45 mPa·s at 22 °C with no reducer, measured at 22 °C.
  const efflux_s = cupFromViscosity("iso4", 45e-6);
  const sheet = { ...TEST_SHEET, reducerMin: 0, density_kg_m3: 1000, viscosity: { cup: "iso4" as const, efflux_s, temperature_K: 295.15 } };
  expect(mixViscosity22C(sheet)).toBeCloseTo(0.045, 9);
  // Ready to spray with a tenth of reducer the same time means a thicker mix before it.
  expect(mixViscosity22C({ ...sheet, reducerMin: 0.1 })!).toBeGreaterThan(0.06);
});

test("thicker by the cup: coarser drops, less sag, more peel; the dry film is the same", () => {
  const at = (efflux_s: number) => {
    const conditions = flowConditions({ ...TEST_SHEET, density_kg_m3: 1000, viscosity: din4(efflux_s) }, UPRIGHT);
    const flow = simulateCoats(conditions, [{ gun: USUAL_GUN, flash_s: 0 }]);
    return { drop_m: deposit(USUAL_GUN, conditions).drop_m, sag_m: flow.sagLocal_m, texture: flow.texture, dry_m: flow.dry_m };
  };
  fc.assert(
    fc.property(fc.double({ min: 14, max: 60, noNaN: true }), fc.double({ min: 1.05, max: 1.6, noNaN: true }), (thin_s, times) => {
      const [thin, thick] = [at(thin_s), at(thin_s * times)];
      expect(thick.drop_m).toBeGreaterThanOrEqual(thin.drop_m);
      expect(thick.sag_m).toBeLessThan(thin.sag_m);
      expect(thick.texture).toBeGreaterThan(thin.texture);
      expect(thick.dry_m).toBeCloseTo(thin.dry_m, 12);
    }),
    { numRuns: 60 },
  );
});

test("without a cup time the model's own stands", () => {
  const conditions = flowConditions(TEST_SHEET, UPRIGHT);
  expect(conditions.viscosity22C_Pa_s).toBeUndefined();
  expect(deposit(USUAL_GUN, conditions)).toEqual(deposit(USUAL_GUN, { ...conditions, viscosity22C_Pa_s: 0.045 }));
});
