import { standInGlossMeter } from "#stand-ins/gloss-meter";
import { standInScale } from "#stand-ins/scale";

describe("the stand-in scale", () => {
  const still = { seed: 1, noise_kg: 0, drift_kg_h: 0 };
  const mass = (r: ReturnType<ReturnType<typeof standInScale>["read"]>) => (r.ok ? r.mass_kg : NaN);
  test("what is poured stays; it runs on a little after stop, and settles", () => {
    const s = standInScale(still);
    s.pour(0.05, 0);
    expect(s.read(1000)).toMatchObject({ ok: true, stable: false });
    s.stop(2000);
    expect(mass(s.read(2000))).toBeCloseTo(0.1 + 0.05 * 0.35, 4);
    expect(s.read(4000)).toMatchObject({ stable: true });
    s.tare(4000);
    expect(mass(s.read(4000))).toBe(0);
  });
  test("it drifts after the tare, and the same seed gives the same noise", () => {
    const s = standInScale({ seed: 1, noise_kg: 0, drift_kg_h: 2e-3 });
    s.tare(0);
    expect(mass(s.read(3_600_000))).toBeCloseTo(2e-3, 9);
    const reads = () => {
      const n = standInScale({ seed: 5 });
      return [0, 200, 400].map((t) => mass(n.read(t)));
    };
    expect(reads()).toEqual(reads());
  });
  test("overload is a fault in words", () => {
    const s = standInScale({ ...still, capacity_kg: 1 });
    s.pour(1, 0);
    expect(s.read(2000)).toEqual({ ok: false, fault: "More than 1 kg on the scale. Take something off." });
    s.empty(2000);
    expect(s.read(2000)).toMatchObject({ ok: true, mass_kg: 0 });
  });
});

describe("the stand-in gloss meter", () => {
  const hidden = { roughness_m: 125e-9, patchiness: 0.02, seed: 3 };
  test("reads near the hidden surface, differently from place to place, the same at one place but for noise", () => {
    const meter = standInGlossMeter(hidden, { visitSeed: 1, noise_GU: 0, gain: 1 });
    const at = (place: number) => {
      const r = meter.read(60, place);
      return r.ok ? r.gloss_GU : NaN;
    };
    expect(at(1)).toBe(at(1));
    expect(new Set([at(1), at(2), at(3)]).size).toBeGreaterThan(1);
    expect(Math.abs(at(1) - 11.8)).toBeLessThan(3);
  });
  test("the tile check tells the gain; a meter that does not lie flat says so", () => {
    const check = standInGlossMeter(hidden, { visitSeed: 1, noise_GU: 0, gain: 1.02 }).checkTile(60, 95);
    expect(check).toEqual({ ok: true, offBy_GU: 1.9 });
    expect(standInGlossMeter(hidden, { visitSeed: 1, faultEvery: 1 }).read(60, 1)).toEqual({
      ok: false,
      fault: "The meter does not lie flat. Set it down again.",
    });
  });
});
