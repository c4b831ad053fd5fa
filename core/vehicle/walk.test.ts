import fc from "fast-check";
import { seededRandom } from "../kernel/stats/random";
import { type WalkAsked, bestWalk, isBetter, shorterWalk, twoHands, walkIn } from "./walk";

function orders(n: number): number[][] {
  if (n === 0) return [[]];
  return orders(n - 1).flatMap((o) => Array.from({ length: n }, (_, k) => [...o.slice(0, k), n - 1, ...o.slice(k)]));
}

/** Some vehicle: parts in a ring with a few more borders. */
function someWalk(random: () => number, n: number): WalkAsked {
  const from = (low: number, high: number) => low + (high - low) * random();
  const ring = Array.from({ length: n }, (_, a) => ({ a, b: (a + 1) % n })).filter(({ a, b }) => a !== b && (n > 2 || a < b));
  const more = Array.from({ length: Math.floor(n / 3) }, () => ({ a: Math.floor(n * random()), b: Math.floor(n * random()) })).filter(
    ({ a, b }) => a !== b,
  );
  return {
    parts: Array.from({ length: n }, () => ({ spray_s: from(20, 120), volume_m3: from(50e-6, 400e-6), open_s: from(100, 500) })),
    borders: [...ring, ...more].map((b) => ({ ...b, lies: random() < 0.6 ? "beside" : "above", weight: random() < 0.5 ? 1 : 0.4 })),
    between_s: from(0, 15),
    cup_m3: from(300e-6, 700e-6),
    refill_s: from(0, 90),
    // Every third knows how far its parts lie from each other.
    ...(random() < 0.33 ? { way_s: Array.from({ length: n }, () => Array.from({ length: n }, () => from(0, 20))) } : {}),
  };
}

test("of sixty small vehicles the best walk is the best of all orders", () => {
  const random = seededRandom(60);
  for (let n = 0; n < 60; n++) {
    const asked = someWalk(random, 2 + (n % 5));
    const all = orders(asked.parts.length).map((order) => walkIn(asked, order));
    const least = all.reduce((a, b) => (isBetter(b, a) ? b : a));
    const best = bestWalk(asked);
    for (const figure of ["dry", "worst", "total_s"] as const) expect(best[figure]).toBeCloseTo(least[figure], 6);
    // Begun where it is wanted, it is the best of those that begin there.
    const there = all.filter((w) => w.order[0] === 1).reduce((a, b) => (isBetter(b, a) ? b : a));
    const begun = bestWalk(asked, { starts: 1 });
    expect(begun.order[0]).toBe(1);
    expect(begun.worst).toBeCloseTo(there.worst, 6);
    expect(begun.dry).toBeCloseTo(there.dry, 9);
  }
});

test("a walk takes all its parts, its steps and its refills; what was sprayed before is the older the later its neighbour comes", () => {
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 1e6 }), fc.integer({ min: 2, max: 9 }), (seed, n) => {
      const random = seededRandom(seed);
      const asked = someWalk(random, n);
      const order = asked.parts.map((_, part) => part).sort(() => random() - 0.5);
      const walk = walkIn(asked, order);
      const fills = walk.refills.reduce((sum, r) => sum + r.times, 0);
      const sprayed = asked.parts.reduce((sum, p) => sum + p.spray_s, 0);
      const ways = order.slice(1).reduce((sum, part, k) => sum + (asked.way_s?.[order[k]!]![part] ?? 0), 0);
      expect(walk.total_s).toBeCloseTo(sprayed + (n - 1) * asked.between_s + ways + fills * asked.refill_s, 6);
      const used = asked.parts.reduce((sum, p) => sum + p.volume_m3, 0);
      expect((fills + 1) * asked.cup_m3).toBeGreaterThanOrEqual(used - 1e-12);
      for (const { age_s } of walk.borders) expect(age_s).toBeGreaterThanOrEqual(-1e-9);
      // A longer way between the parts makes no border younger.
      const slower = walkIn({ ...asked, between_s: asked.between_s + 10 }, order);
      slower.borders.forEach((b, k) => expect(b.age_s).toBeGreaterThanOrEqual(walk.borders[k]!.age_s - 1e-9));
    }),
  );
});

test("a shorter walk leaves no more dry and none older than is well met; it begins where it is wanted", () => {
  const random = seededRandom(7);
  let shorter = 0;
  for (let n = 0; n < 40; n++) {
    const some = someWalk(random, 3 + (n % 5));
    const asked = { ...some, parts: some.parts.map((p) => ({ ...p, open_s: 5 * p.open_s })) };
    const best = bestWalk(asked, { starts: 0 });
    const found = shorterWalk(asked, best, 0);
    expect(found.order[0]).toBe(0);
    expect(found).toEqual(walkIn(asked, found.order));
    expect(found.dry).toBeLessThanOrEqual(best.dry + 1e-9);
    expect(found.worst).toBeLessThanOrEqual(Math.max(0.6, best.worst) + 1e-9);
    expect(found.total_s).toBeLessThanOrEqual(best.total_s + 1e-9);
    if (found.total_s < best.total_s - 1e-9) shorter++;
  }
  expect(shorter).toBeGreaterThan(3);
});

test("worked by hand: three parts in a row, the middle one last leaves two borders; from end to end each is young", () => {
  const part = { spray_s: 60, volume_m3: 100e-6, open_s: 150 };
  const asked: WalkAsked = {
    parts: [part, part, part],
    borders: [
      { a: 0, b: 1, lies: "beside", weight: 1 },
      { a: 1, b: 2, lies: "beside", weight: 1 },
    ],
    between_s: 10,
    cup_m3: 250e-6,
    refill_s: 30,
  };
  // 0 from 0 to 60, 2 from 70 to 130; the cup has 50 ml left, 1 from 170 to 230: its borders are 170 and 100 s old.
  const middleLast = walkIn(asked, [0, 2, 1]);
  expect(middleLast.refills).toEqual([{ before: 1, times: 1 }]);
  expect(middleLast.borders.map((b) => b.age_s)).toEqual([170, 100]);
  expect(middleLast.dry).toBe(1);
  const best = bestWalk(asked);
  expect(best.dry).toBe(0);
  expect([best.order[0], best.order[2]].sort()).toEqual([0, 2]);
  expect(best.borders.map((b) => b.age_s).sort((a, b) => a - b)).toEqual([70, 100]);
});

test("what is no walk is refused", () => {
  const asked = someWalk(seededRandom(1), 4);
  expect(() => walkIn(asked, [0, 1, 2])).toThrow(RangeError);
  expect(() => walkIn(asked, [0, 1, 2, 2])).toThrow(RangeError);
  expect(() => walkIn({ ...asked, cup_m3: 0 }, [0, 1, 2, 3])).toThrow("cup_m3");
  expect(() => walkIn({ ...asked, borders: [{ a: 0, b: 0, lies: "beside", weight: 1 }] }, [0, 1, 2, 3])).toThrow("two parts");
  expect(() => bestWalk(someWalk(seededRandom(2), 15))).toThrow("parts");
  expect(() => bestWalk(asked, { starts: 9 })).toThrow("starts");
});

test("what must be on first is on first: of small vehicles with shuts the best walk is the best of all orders that keep them before their parts", () => {
  const random = seededRandom(61);
  for (let n = 0; n < 40; n++) {
    const parts = 3 + (n % 4);
    const asked = {
      ...someWalk(random, parts),
      before: [{ first: parts - 1, later: 0 }, ...(n % 2 ? [{ first: parts - 2, later: 1 }] : [])],
    };
    const least = orders(parts)
      .map((order) => walkIn(asked, order))
      .reduce((a, b) => (isBetter(b, a) ? b : a));
    const best = bestWalk(asked);
    expect([least.late, best.late, shorterWalk(asked, best).late]).toEqual([0, 0, 0]);
    for (const figure of ["dry", "worst", "total_s"] as const) expect(best[figure]).toBeCloseTo(least[figure], 6);
    for (const { first, later } of asked.before) expect(best.order.indexOf(first)).toBeLessThan(best.order.indexOf(later));
    expect(twoHands(asked, best).walk.late).toBe(0);
    // Whoever begins with a part that should wait begins with it, and it is said.
    expect(bestWalk(asked, { starts: 0 })).toMatchObject({ late: 1 });
  }
  const circle = { ...someWalk(random, 3), before: [0, 1, 2].map((first) => ({ first, later: (first + 1) % 3 })) };
  expect(() => bestWalk(circle)).toThrow(RangeError);
  expect(() => walkIn({ ...circle, before: [{ first: 0, later: 3 }] }, [0, 1, 2])).toThrow(RangeError);
});
