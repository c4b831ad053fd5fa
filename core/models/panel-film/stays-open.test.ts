import { USUAL_GUN } from "../spray/usual-gun";
import { coatStaysOpen_s, filmStaysOpen_s } from "./stays-open";

const air = (C: number) => 273.15 + C;
const under = (C: number, speed: "fast" | "medium" | "slow") => ({
  air_K: air(C),
  speed,
  volumeSolids: 0.475,
  reducer: 0,
  airSpeed_m_s: 0.3,
  tilt_rad: Math.PI / 2,
});
const minutes = (C: number, speed: "fast" | "medium" | "slow", handSpeed_m_s: number = USUAL_GUN.handSpeed_m_s) =>
  coatStaysOpen_s({ ...USUAL_GUN, handSpeed_m_s }, under(C, speed)) / 60;

// The project's own science notes, "A coat sprayed on a panel": no published source.
test.each([
  ["22 °C, medium, one full coat", minutes(22, "medium"), 5],
  ["slow", minutes(22, "slow"), 8.5],
  ["28 °C, medium", minutes(28, "medium"), 3.8],
  ["32 °C, fast", minutes(32, "fast"), 1],
  ["a thin coat, 0.6 m/s", minutes(22, "medium", 0.6), 3],
  ["15 °C", minutes(15, "medium"), 7],
])("a border stays open: %s", (_, got, wanted) => {
  expect(Math.abs(got / wanted - 1)).toBeLessThan(0.12);
});

test("thicker, wetter, cooler and slower stays open longer; what lands dry is never open", () => {
  const of = (solids_m: number, u0: number) => filmStaysOpen_s(solids_m, u0, under(22, "medium"));
  expect(of(40e-6, 1)).toBeGreaterThan(of(20e-6, 1));
  expect(of(20e-6, 1)).toBeGreaterThan(of(20e-6, 0.7));
  expect(of(20e-6, 0.02)).toBe(0);
  expect(() => of(0, 1)).toThrow(RangeError);
  expect(() => of(20e-6, Number.NaN)).toThrow(RangeError);
});
