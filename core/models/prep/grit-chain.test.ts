import { gritChain } from "./grit-chain";
import { baseRoughness, nearestPaper } from "./papers";

test("the trade's chains hold: P320, P400, P600; P400 straight to P600; P240 to P320 to P600", () => {
  for (const chain of [[320, 400, 600], [400, 600], [240, 320, 600], [600], [600, 800]]) expect(gritChain(chain)!.fault).toBeNull();
  expect(gritChain([320, 400, 600])!.last).toBe(600);
});
test("a paper that skips too far is named with its passes; one that goes back coarser too", () => {
  expect(gritChain([240, 1500])!.fault).toMatchObject({ what: "skips", from: 240, to: 1500 });
  expect(gritChain([240, 1500])!.fault!.passes).toBeGreaterThan(2);
  expect(gritChain([600, 400])!.fault).toMatchObject({ what: "coarser", from: 600, to: 400 });
});
test("no paper is no chain; a number between two papers is the nearer one; beyond the table it is refused", () => {
  expect(gritChain([])).toBeNull();
  expect(nearestPaper(180 + 70)).toBe("P240");
  expect(nearestPaper(1100)).toBe("P1000");
  expect(() => nearestPaper(80)).toThrow(RangeError);
});
test("a finer last paper leaves a flatter base, a coarser one a rougher", () => {
  expect(baseRoughness(600)).toBe(1);
  expect(baseRoughness(800)).toBeCloseTo(0.919, 3);
  expect(baseRoughness(1200)).toBeCloseTo(0.77, 2);
  expect(baseRoughness(400)).toBeGreaterThan(1.1);
});

test("a chain from the papers that filler is shaped with has its verdict too: P180 to P320 holds, straight to P600 it skips", () => {
  expect(gritChain([180, 240, 320, 500])!.fault).toBeNull();
  expect(gritChain([180, 600])!.fault).toEqual({ what: "skips", from: 180, to: 600, passes: 3 });
  expect(gritChain([80, 180])!.fault).toBeNull();
  expect(() => gritChain([40])).toThrow(RangeError);
});
