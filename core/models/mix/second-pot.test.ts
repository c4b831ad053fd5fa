import { secondPots } from "./second-pot";

test("the last coat's pot: 100 ml at 10 % made 5 % wetter is 95.65 ml of the mix and 4.35 ml of reducer", () => {
  const [pot, ...rest] = secondPots(
    [
      { number: 1, volume_m3: 1e-4, more: 0 },
      { number: 2, volume_m3: 1e-4, more: 0.05 },
    ],
    0.1,
  );
  // By hand: 100 · 1.1/1.15 and 100 · 0.05/1.15.
  expect(pot!.coats).toEqual([2]);
  expect(pot!.reducer).toBeCloseTo(0.15, 12);
  expect(pot!.ofMix_m3 * 1e6).toBeCloseTo(95.652, 3);
  expect(pot!.more_m3 * 1e6).toBeCloseTo(4.348, 3);
  expect(rest).toEqual([]);
});

test("its reducer is what was asked: volume and reducer both balance", () => {
  for (const r of [0, 0.1, 0.3])
    for (const more of [0.02, 0.075, 0.3]) {
      const [pot] = secondPots([{ number: 3, volume_m3: 3e-4, more }], r);
      expect(pot!.ofMix_m3 + pot!.more_m3).toBeCloseTo(3e-4, 12);
      const activated_m3 = pot!.ofMix_m3 / (1 + r);
      expect((pot!.ofMix_m3 - activated_m3 + pot!.more_m3) / activated_m3).toBeCloseTo(r + more, 9);
    }
});

test("two wetter coats alike share a pot; none is made for coats as mixed or drier", () => {
  const pots = secondPots(
    [
      { number: 1, volume_m3: 1e-4, more: -0.05 },
      { number: 2, volume_m3: 1e-4, more: 0.05 },
      { number: 3, volume_m3: 1e-4, more: 0.05 },
    ],
    0.05,
  );
  expect(pots.map((p) => p.coats)).toEqual([[2, 3]]);
  expect(() => secondPots([{ number: 1, volume_m3: Number.NaN, more: 0 }], 0)).toThrow(RangeError);
});
