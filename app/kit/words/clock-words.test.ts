import { clockWords } from "./clock-words";

test.each([
  [{ kind: "flash", label: "coat 1" }, "waiting", "Flash after coat 1"],
  [{ kind: "flash", label: "coat 1" }, "due", "Flash over: touch test, next coat"],
  [{ kind: "flash", label: "coat 1" }, "late", "Past its window: see the course"],
  [{ kind: "flash", label: "colour 2" }, "waiting", "Flash below after coat 2"],
  [{ kind: "cure", label: "flatten 3" }, "waiting", "Cure before sanding flat after coat 3"],
  [{ kind: "cure", label: "turn 2" }, "due", "May be turned over"],
  [{ kind: "purge", label: "heat" }, "due", "Heat may go on"],
  [{ kind: "bake", label: "cool" }, "waiting", "Baking"],
  [{ kind: "cool", label: "read" }, "waiting", "Cooling"],
  [{ kind: "cure", label: "work" }, "due", "Cure: ready"],
  [{ kind: "pot", label: "Clear 21" }, "waiting", "Pot of Clear 21"],
  [{ kind: "pot", label: "Clear 21" }, "late", "Pot of Clear 21 over: mix again"],
  [{ kind: "stir", label: "Matte M" }, "due", "Stir Matte M now"],
  [{ kind: "flash", label: "coat 1" }, "stopped", "Flash after coat 1, stopped"],
] as const)("%j %s says %s", (clock, phase, words) => expect(clockWords(clock, phase)).toBe(words));

test("what says no goes before that it is ready or past; while it waits the wait is said", () => {
  const flash = { kind: "flash", label: "coat 1" } as const;
  expect((["waiting", "due", "late", "stopped"] as const).map((p) => clockWords(flash, p, "peeling first"))).toEqual([
    "Flash after coat 1",
    "Flash after coat 1: peeling first",
    "Flash after coat 1: peeling first",
    "Flash after coat 1, stopped",
  ]);
});
