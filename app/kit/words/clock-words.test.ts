import { clockWords } from "./clock-words";

test.each([
  [{ kind: "flash", label: "coat 1" }, "waiting", "after coat 1: until next coat"],
  [{ kind: "flash", label: "coat 1" }, "due", "after coat 1: ready: touch test, then spray"],
  [{ kind: "flash", label: "coat 1" }, "late", "after coat 1: past the window: see its course"],
  [{ kind: "flash", label: "colour 2" }, "waiting", "after coat 2 below the clear: until the next coat below"],
  [{ kind: "cure", label: "flatten 3" }, "waiting", "after coat 3: until sanding flat"],
  [{ kind: "cure", label: "turn 2" }, "due", "after coat 2: may be turned over"],
  [{ kind: "purge", label: "heat" }, "due", "heat may go on"],
  [{ kind: "bake", label: "cool" }, "waiting", "to bake"],
  [{ kind: "cool", label: "read" }, "waiting", "to cool"],
  [{ kind: "cure", label: "work" }, "due", "hard enough to read and sand"],
  [{ kind: "pot", label: "Clear 21" }, "waiting", "Clear 21: left to spray"],
  [{ kind: "pot", label: "Clear 21" }, "late", "Clear 21: over: mix again"],
  [{ kind: "flash", label: "coat 1" }, "stopped", "after coat 1: stopped"],
] as const)("%j %s says %s", (clock, phase, words) => expect(clockWords(clock, phase)).toBe(words));

test("what says no goes before that it is ready or past; while it waits the wait is said", () => {
  const flash = { kind: "flash", label: "coat 1" } as const;
  expect((["waiting", "due", "late", "stopped"] as const).map((p) => clockWords(flash, p, "peeling first"))).toEqual([
    "after coat 1: until next coat",
    "after coat 1: peeling first",
    "after coat 1: peeling first",
    "after coat 1: stopped",
  ]);
});
