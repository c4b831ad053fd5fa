import { panelShape } from "../kernel/geometry/shapes";
import { houseWay } from "../models/ways/house-ways";
import { TEST_SHEET } from "../panel/testing/test-ledger";
import { isInside } from "../kernel/geometry/geometry";
import { sprayAgain, takeBench } from "./bench";
import type { BenchSetting } from "./bench-setting";
import { FIBRE, fibreOn, pitWhereLifted } from "./fibre";
import { coatsInRows } from "./good-rows";

const { outline } = panelShape("door", { width_m: 0.6, height_m: 0.4 });
const setting: BenchSetting = { outline, tilt_rad: Math.PI / 2, sheet: TEST_SHEET, way: houseWay("two-full"), coats: 1, air_K: 294.15 };
const middle = { x_m: 0.3, y_m: 0.2 };
const sprayed = (air_K = setting.air_K) => {
  const here = { ...setting, air_K };
  return sprayAgain(
    here,
    coatsInRows(here).map((coat) => ({ ...coat, flash_s: 0 })),
    { cell_m: 0.02 },
  );
};

test("a fibre falls on every second coat or so, on the part, in the first minutes; a seed says which", () => {
  const all = Array.from({ length: 400 }, (_, seed) => fibreOn(outline, seed));
  const some = all.flatMap((f) => f ?? []);
  expect(Math.abs(some.length / 400 - FIBRE.share)).toBeLessThan(0.1);
  for (const { x_m, y_m, falls_s, height_m } of some) {
    expect(isInside([x_m, y_m], outline)).toBe(true);
    expect([falls_s >= FIBRE.falls_s[0], falls_s <= FIBRE.falls_s[1], height_m > 0]).toEqual([true, true, true]);
  }
  expect(fibreOn(outline, 7)).toEqual(fibreOn(outline, 7));
  expect(() => fibreOn(outline, NaN)).toThrow(RangeError);
});

test("the later it is lifted the deeper its pit; a warm booth leaves less time; on nothing there is none, and never more than what moves is taken", () => {
  const bench = sprayed();
  expect(pitWhereLifted(takeBench(setting, 0.02), middle)).toBe(0);
  const pits: number[] = [];
  for (let n = 0; n < 30; n++) {
    pits.push(pitWhereLifted(bench, middle));
    bench.waits(60);
  }
  pits.reduce((before, now) => {
    expect(now).toBeGreaterThanOrEqual(before - 1e-12);
    return now;
  });
  const film_m = 0.5 * bench.film.solids_m[Math.floor(bench.film.solids_m.length / 2)]!;
  expect(pits[0]).toBeLessThan(2e-6); // it closes, as everybody who does it at once has seen: common practice, no source
  expect(pits.at(-1)).toBeGreaterThan(0.9 * film_m);
  expect(pits.at(-1)).toBeLessThan(1.5 * film_m);
  const [warm, cool] = [sprayed(305), sprayed(290)];
  for (const b of [warm, cool]) b.waits(150);
  expect(pitWhereLifted(warm, middle)).toBeGreaterThan(pitWhereLifted(cool, middle));
});
