import { pressureAtGun, pressureRead } from "#core/models/spray/pressure-at";
import { readFileSync } from "node:fs";
import fc from "fast-check";
import type { ActivatorSpeed } from "#core/models/spray/constants";
import { type GunSettings, type SprayConditions, deposit } from "#core/models/spray/deposit";
import { fluidFromTurns } from "#core/models/spray/fluid-from-turns";
import { patternRipple } from "#core/models/spray/pattern-ripple";
import { fromSi, toSi } from "#core/kernel/units/convert";

interface Scenario {
  input: {
    env: { phi_s: number; eta_mPas: number | null; reducer: number; T_mat: number | null; T_C: number; speed: ActivatorSpeed };
    coats: { Q_mLmin: number; v: number; d_cm: number; overlap: number; psi: number }[];
  };
  output: {
    coats: Record<"wet_applied_um" | "wet_landed_um" | "solids_um" | "D32_um" | "TE" | "flight_loss" | "ripple_cv" | "peak", number>[];
  };
}
const { scenarios } = JSON.parse(readFileSync("core/compute/checks/flow-reference.json", "utf8")) as {
  scenarios: Record<string, Scenario>;
};

const gun: GunSettings = {
  fluidRate_m3_s: toSi("fluidRate", 230, "ml/min"),
  pressure_Pa: toSi("pressure", 28, "psi"),
  distance_m: 0.175,
  overlap: 0.5,
  handSpeed_m_s: 0.34,
};
const booth: SprayConditions = { air_K: 295.15, speed: "medium", volumeSolids: 0.475, reducer: 0 };

test.each(Object.entries(scenarios))("%s: every coat lays what the reference program lays", (_name, { input: { env, coats }, output }) => {
  expect(coats.length).toBe(output.coats.length);
  coats.forEach((c, i) => {
    const d = deposit(
      {
        fluidRate_m3_s: toSi("fluidRate", c.Q_mLmin, "ml/min"),
        pressure_Pa: toSi("pressure", c.psi, "psi"),
        distance_m: c.d_cm / 100,
        overlap: c.overlap,
        handSpeed_m_s: c.v,
      },
      {
        air_K: env.T_C + 273.15,
        material_K: env.T_mat === null ? null : env.T_mat + 273.15,
        speed: env.speed,
        volumeSolids: env.phi_s,
        reducer: env.reducer,
        viscosity22C_Pa_s: env.eta_mPas === null ? null : env.eta_mPas / 1000,
      },
    );
    const want = output.coats[i]!;
    const near = (got: number, wanted: number) => expect(Math.abs(got / wanted - 1)).toBeLessThan(1e-4);
    near(d.applied_m * 1e6, want.wet_applied_um);
    near(d.wet_m * 1e6, want.wet_landed_um);
    near(d.dry_m * 1e6, want.solids_um);
    near(d.drop_m * 1e6, want.D32_um);
    near(d.transfer, want.TE);
    near(d.flightLoss, want.flight_loss);
    near(d.rippleCv, want.ripple_cv);
    near(d.ripplePeak, want.peak);
  });
});

test("what is laid on an area is what left the gun, times transfer and solids (mass balance)", () => {
  fc.assert(
    fc.property(
      fc.double({ min: 60, max: 600, noNaN: true }),
      fc.double({ min: 0.1, max: 1.2, noNaN: true }),
      fc.double({ min: 0, max: 0.8, noNaN: true }),
      (rate, handSpeed_m_s, overlap) => {
        const settings = { ...gun, fluidRate_m3_s: toSi("fluidRate", rate, "ml/min"), handSpeed_m_s, overlap };
        const d = deposit(settings, booth);
        const areaPerSecond_m2 = handSpeed_m_s * d.fan_m * (1 - overlap);
        expect(d.dry_m * areaPerSecond_m2).toBeCloseTo(settings.fluidRate_m3_s * d.transfer * booth.volumeSolids, 15);
      },
    ),
  );
});

test("half the hand speed lays twice the film; a measured fan goes before the model's", () => {
  expect(deposit({ ...gun, handSpeed_m_s: 0.17 }, booth).dry_m / deposit(gun, booth).dry_m).toBeCloseTo(2, 12);
  expect(deposit({ ...gun, fan_m: 0.125 }, booth).dry_m / deposit(gun, booth).dry_m).toBeCloseTo(2, 12);
});

test("two usual coats give 50–60 µm (common practice)", () => {
  const twoCoats_m = 2 * deposit(gun, booth).dry_m;
  expect(twoCoats_m).toBeGreaterThan(50e-6);
  expect(twoCoats_m).toBeLessThan(60e-6);
});

test("until the shop's own readings tune it, a coat is known to a third", () => {
  const { dry_m, u_dry_m } = deposit(gun, booth);
  expect(u_dry_m / dry_m).toBeCloseTo(0.316, 3);
});

test.each([
  ["fluidRate_m3_s", NaN],
  ["pressure_Pa", 0],
  ["distance_m", 2],
  ["overlap", 1],
  ["handSpeed_m_s", 0],
] as const)("%s of %p is refused by name", (name, value) => {
  expect(() => deposit({ ...gun, [name]: value }, booth)).toThrow(name);
});

test("ripple: 1/(√5·M²) for 1/(1 − overlap) = M whole, and 1.125 at the crest for 50 %", () => {
  for (const m of [2, 3, 4]) expect(patternRipple(1 - 1 / m).cv).toBeCloseTo(1 / (Math.sqrt(5) * m * m), 4);
  expect(patternRipple(0.5).peak).toBeCloseTo(1.125, 3);
  expect(() => patternRipple(1)).toThrow(RangeError);
});

test("a pressure read at the hose is about twice the gun's, there and back", () => {
  // 50 to 60 psi at the hose of a gun that wants 26 to 31: common practice.
  for (const psi of [50, 60]) {
    const at = fromSi("pressure", pressureAtGun(toSi("pressure", psi, "psi"), "hose"), "psi");
    expect(at).toBeGreaterThan(25);
    expect(at).toBeLessThan(32);
  }
  for (const at of ["gun", "hose"] as const) expect(pressureAtGun(pressureRead(1.9e5, at), at)).toBeCloseTo(1.9e5, 6);
  expect(() => pressureAtGun(0, "hose")).toThrow(RangeError);
});

test("turns are a guess with a quarter's doubt, flat beyond four", () => {
  const { fluidRate_m3_s, u_m3_s } = fluidFromTurns(2.25);
  expect(fluidRate_m3_s).toBeCloseTo(toSi("fluidRate", 229.5, "ml/min"), 12);
  expect(u_m3_s / fluidRate_m3_s).toBeCloseTo(0.25, 12);
  expect(fluidFromTurns(9)).toEqual(fluidFromTurns(4));
  expect(() => fluidFromTurns(0)).toThrow("turns");
});
