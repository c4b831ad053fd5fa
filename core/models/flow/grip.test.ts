import fc from "fast-check";
import { flowConditions } from "#core/coat/setting";
import { USUAL_GUN } from "#core/models/spray/usual-gun";
import type { ActivatorSpeed } from "#core/models/spray/constants";
import { gripTimes } from "./grip";
import { layCoats } from "./simulate-coats";

const MIN = 60;
/** A coat of so much wet film, laid by a faster or slower hand. */
function grip(speed: ActivatorSpeed, { C = 20, wet_um = 24 }: { C?: number; wet_um?: number } = {}) {
  const conditions = flowConditions(
    { speed, volumeSolids: 0.475 },
    { air_K: 273.15 + C, material_K: null, reducer: 0, tilt_rad: Math.PI / 2 },
  );
  const laid = (handSpeed_m_s: number) => layCoats(conditions, [{ gun: { ...USUAL_GUN, handSpeed_m_s }, flash_s: 0 }]).out[0]!;
  const usual = laid(USUAL_GUN.handSpeed_m_s);
  const { film, deposit } = laid((USUAL_GUN.handSpeed_m_s * usual.deposit.wet_m) / (wet_um * 1e-6));
  expect(deposit.wet_m * 1e6).toBeCloseTo(wet_um, 6);
  const { noStrings_s, best_s, lost_s } = gripTimes(film, conditions);
  return [noStrings_s / MIN, best_s / MIN, lost_s / MIN] as const;
}

// The project's science notes, 24 µm wet at 20 °C, after its third independent check.
test.each([
  ["fast", [4.2, 7.1, 12.0]],
  ["medium", [7.0, 11.6, 19.6]],
  ["slow", [10.6, 17.1, 29.0]],
] as const)("a %s tack coat of 24 µm at 20 °C pulls no strings, takes a print, takes none after %j min", (speed, minutes) => {
  grip(speed).forEach((m, i) => expect(Math.abs(m / minutes[i]! - 1)).toBeLessThan(0.12));
});

test("practice: a tack coat is taken after 8 to 15 min at 20 °C with a medium hardener (common practice, no source)", () => {
  const [, best, lost] = grip("medium");
  expect(best).toBeGreaterThan(8);
  expect(best).toBeLessThan(15);
  expect(lost).toBeGreaterThan(15);
});

test("warmer every stage comes sooner, 1.2 to 2 times for 10 K once it no longer moves; slower hardener and more film later", () => {
  fc.assert(
    fc.property(fc.double({ min: 10, max: 22, noNaN: true }), fc.double({ min: 16, max: 34, noNaN: true }), (C, wet_um) => {
      for (const speed of ["fast", "medium", "slow"] as const) {
        const [cold, warm] = [grip(speed, { C, wet_um }), grip(speed, { C: C + 10, wet_um })];
        cold.forEach((m, i) => expect(m).toBeGreaterThan(warm[i]!));
        for (const stage of [1, 2] as const) {
          expect(cold[stage] / warm[stage]).toBeGreaterThan(1.2);
          expect(cold[stage] / warm[stage]).toBeLessThan(2);
        }
      }
      const [fast, medium, slow] = (["fast", "medium", "slow"] as const).map((s) => grip(s, { C, wet_um }));
      medium!.forEach((m, i) => expect(m > fast![i]! && m < slow![i]!).toBe(true));
      grip("medium", { C, wet_um: wet_um + 4 }).forEach((m, i) => expect(m).toBeGreaterThan(medium![i]!));
    }),
    { numRuns: 25 },
  );
});

test("no film is refused", () => {
  const conditions = { air_K: 293, speed: "medium", airSpeed_m_s: 0.3 } as const;
  expect(() => gripTimes({ solids_m: 0, u0: 1, viscosity0_Pa_s: 0.1 }, conditions)).toThrow(RangeError);
});
