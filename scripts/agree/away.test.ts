import { awayLife } from "./away";

test("a few lives in short: with a shop that is away now and then a panel comes to the same, on the device and at the shop (all 300: `npm run agree away`)", async () => {
  const lives = [await awayLife(3), await awayLife(17)];
  expect(lives.flatMap((l) => l.faults)).toEqual([]);
  expect(lives.reduce((n, l) => n + l.entered, 0)).toBeGreaterThan(8);
});
