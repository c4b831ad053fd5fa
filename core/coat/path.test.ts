import { panelShape } from "#core/kernel/geometry/shapes";
import { USUAL_ROWS } from "#core/models/spray/row-plan";
import { EVEN_HAND_M_S, bestPath } from "./best-path";
import { coatsAhead } from "./coats-ahead";
import { litresToCome } from "./litres";
import { pathAhead, pathNow } from "./path-ahead";
import { filmOfPath } from "./path-view";
import { type TestLedger, askedOf } from "./testing/asked-of";

const filmOf = (path: NonNullable<ReturnType<typeof pathAhead>>) => filmOfPath(path, { cell_m: 0.03 });

test("the path of a panel has the litres and the middle film that the coats' owner says, however its rows lie; the course's litres follow it", () => {
  const plain = askedOf();
  const litres = [
    USUAL_ROWS,
    { ...USUAL_ROWS, turned: true, even: true },
    { ...USUAL_ROWS, endsFirst: true, staggered: true, overrun_m: 0.2 },
  ].map((rows) => {
    const asked = { ...plain, brief: { ...plain.brief, rows } };
    expect(pathNow(asked).rows).toEqual(rows);
    const path = pathAhead(asked, pathNow(asked))!;
    const ahead = coatsAhead(asked)!;
    const film = filmOf(path);
    expect(film.volume_m3 / ahead.reduce((a, c) => a + c.volume_m3, 0)).toBeCloseTo(1, 3);
    expect(path.middle_m).toBeCloseTo(
      ahead.reduce((a, c) => a + c.dry_m, 0),
      12,
    );
    expect(film.mean_m).toBeLessThan(1.15 * path.middle_m);
    return litresToCome(asked).toMix_m3;
  });
  expect(litres[2]).toBeGreaterThan(1.1 * litres[0]!);
  expect(new Set(litres).size).toBe(3);
});

test("a hand that is tried lays what it would lay: twice as fast half the film, and the coats' owner is asked for it", () => {
  const asked = askedOf();
  const now = pathNow(asked);
  const slow = pathAhead(asked, now)!;
  const fast = pathAhead(asked, { ...now, handSpeed_m_s: 2 * now.handSpeed_m_s })!;
  expect(fast.middle_m / slow.middle_m).toBeCloseTo(0.5, 6);
  expect(pathAhead(asked, now)).toEqual(slow); // nothing of it stays
});

test("coats that lie wet go into the path as they were laid; a part with all coats on has none", () => {
  const coat = (l: TestLedger) => void l.coat(1);
  const half = pathAhead(askedOf(coat), pathNow(askedOf(coat)))!;
  expect(half).toMatchObject({ laid: 1, coats: { length: 2 } });
  const all = askedOf(coat, { coats: 1 });
  expect(pathAhead(all, pathNow(all))).toBeNull();
});

test.each([
  ["door", 1.1, 0.7],
  ["bonnet", 1.4, 1.1],
  ["wing", 0.9, 0.66],
] as const)("%s: the path found is the better one where that counts, and a hand can go it", (kind, width_m, height_m) => {
  const asked = askedOf(() => undefined, { shape: panelShape(kind, { width_m, height_m }) });
  const shares: number[] = [];
  const now = pathNow(asked);
  const found = bestPath(asked, undefined, (share) => shares.push(share))!;
  const [before, after] = [now, found.set].map((set) => filmOf(pathAhead(asked, set)!));
  expect(found.loss).toBeLessThan(0.9 * found.lossBefore);
  expect(after!.least.film_m).toBeGreaterThan(0.98 * before!.least.film_m);
  expect(after!.cv).toBeLessThan(before!.cv);
  expect(after!.run.chance).toBeLessThan(0.5);
  expect(found.set.handSpeed_m_s).toBeGreaterThanOrEqual(EVEN_HAND_M_S.min);
  expect(found.set.handSpeed_m_s).toBeLessThanOrEqual(EVEN_HAND_M_S.max);
  expect(shares.length).toBeGreaterThan(10);
  expect(shares.every((s, i) => s <= 1 && s >= (shares[i - 1] ?? 0))).toBe(true);
});

test("where nothing is better the path stays as it is", () => {
  const asked = askedOf(() => undefined, { shape: panelShape("mirrorCap", { width_m: 0.22, height_m: 0.15 }) });
  const found = bestPath(asked)!;
  expect(bestPath({ ...asked, brief: { ...asked.brief, rows: found.set.rows } }, found.set)).toMatchObject({
    set: found.set,
    loss: found.loss,
  });
});
