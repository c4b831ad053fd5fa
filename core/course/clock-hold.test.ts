import { clockHeld, holdsOfClock } from "./clock-hold";
import type { Standing } from "./standing";
import type { StepHold } from "./step-hold";

const pot: StepHold = { by: "pot", over_ms: 10 };
const standing = (kind: "coat" | "correct"): Pick<Standing, "action"> => ({
  action: {
    kind,
    side: null,
    layer: null,
    number: 2,
    of: 2,
    from_ms: null,
    best_ms: null,
    latest_ms: null,
    late: null,
    grit: null,
    holds: [pot],
  },
});

test("a clock carries what holds the step that it leads to; one of another step, and a pot's whatever its product is called, carries none", () => {
  expect(holdsOfClock({ kind: "flash", label: "coat 1" }, standing("coat"))).toEqual([pot]);
  expect(holdsOfClock({ kind: "cure", label: "work" }, standing("correct"))).toEqual([pot]);
  expect(holdsOfClock({ kind: "flash", label: "coat 1" }, standing("correct"))).toEqual([]);
  expect(holdsOfClock({ kind: "purge", label: "heat" }, standing("coat"))).toEqual([]);
  expect(holdsOfClock({ kind: "pot", label: "coat clear 3" }, standing("coat"))).toEqual([]);
  expect(holdsOfClock({ kind: "flash", label: "coat 1" }, null)).toEqual([]);
});

test("it is held while that says no", () => {
  expect(clockHeld({ holds: [pot] }, 9)).toBeNull();
  expect(clockHeld({ holds: [pot] }, 11)).toBe(pot);
});
