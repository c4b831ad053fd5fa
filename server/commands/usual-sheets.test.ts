import { listShelf } from "#server/repos/product-repo";
import { testContext } from "#server/testing/fixtures";
import { addUsual } from "./usual-sheets";

test("a usual clear comes with hardener and reducer, marked as usual; a second one takes what is there", async () => {
  const ctx = await testContext();
  expect(await addUsual(ctx, "high", "k")).toBe("Usual clear 2:1");
  await addUsual(ctx, "high", "k");
  await addUsual(ctx, "matte", null);
  const shelf = (await listShelf(ctx.db)).map((p) => p.sheet);
  expect(shelf.map((s) => s.name).sort()).toEqual([
    "Usual clear 2:1",
    "Usual hardener, medium",
    "Usual matte clear",
    "Usual reducer, medium",
  ]);
  expect(shelf.every((s) => s.usual)).toBe(true);
});
