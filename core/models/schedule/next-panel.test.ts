import { type PanelInFlight, nextAction } from "#core/models/schedule/next-panel";

const NOW = 1_000_000;
const panel = (id: string, change: Partial<PanelInFlight> = {}): PanelInFlight => ({
  id,
  coatsPlanned: 3,
  coats: 1,
  spraying: null,
  flash: null,
  ...change,
});
const flash = (due_s: number, late_s: number | null = 3600) => ({
  due_ms: NOW + due_s * 1000,
  late_ms: late_s === null ? null : NOW + late_s * 1000,
});

test("a coat that runs is stopped first, whatever else is due", () => {
  expect(nextAction([panel("a", { flash: flash(-60) }), panel("b", { spraying: { number: 2, since_ms: NOW } })], NOW)).toEqual({
    what: "stop",
    id: "b",
    number: 2,
  });
});
test("a panel past its window comes before one that is ready; of two ready ones the window that closes first", () => {
  expect(nextAction([panel("a", { flash: flash(-60) }), panel("b", { flash: flash(-900, -5) })], NOW)).toMatchObject({
    id: "b",
    why: "late",
  });
  expect(nextAction([panel("a", { flash: flash(-60, 900) }), panel("b", { flash: flash(-10, 300) })], NOW)).toMatchObject({
    id: "b",
    why: "ready",
  });
});
test("while the others flash, a panel without a coat gets its first", () => {
  expect(nextAction([panel("a", { flash: flash(300) }), panel("b", { coats: 0 })], NOW)).toEqual({
    what: "spray",
    id: "b",
    number: 1,
    why: "first",
  });
});
test("nothing ready: wait for the soonest; all coats on: done", () => {
  expect(nextAction([panel("a", { flash: flash(300) }), panel("b", { flash: flash(120) })], NOW)).toEqual({
    what: "wait",
    id: "b",
    number: 2,
    left_s: 120,
  });
  expect(nextAction([panel("a", { coats: 3 })], NOW)).toEqual({ what: "done" });
  expect(() => nextAction([], NaN)).toThrow(RangeError);
});

test("a panel that has to be sanded flat or turned over gets no coat; while it waits the others do", () => {
  const held = panel("a", { flash: flash(-60), before: "flatten" });
  expect(nextAction([held], NOW)).toEqual({ what: "flatten", id: "a", number: 2 });
  expect(nextAction([held, panel("b", { coats: 0 })], NOW)).toMatchObject({ what: "spray", id: "b" });
  expect(nextAction([panel("a", { before: "turn" })], NOW)).toMatchObject({ what: "turn" });
});
