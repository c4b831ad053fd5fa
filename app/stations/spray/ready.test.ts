import type { Standing } from "#core/course/standing";
import type { StepHold } from "#core/course/step-hold";
import { climateChecks } from "#core/models/prep/preflight";
import { TEST_SHEET } from "#core/panel/testing/test-ledger";
import { testView } from "~/kit/testing/render-panel";
import { cureSentence } from "./cure.words";
import { readySentence } from "./ready.words";

const NOW = Date.UTC(2026, 4, 6, 12);
const MIN = 60_000;
const coat: NonNullable<Standing["action"]> = {
  kind: "coat",
  side: "front",
  layer: null,
  number: 2,
  of: 2,
  from_ms: NOW - MIN,
  best_ms: null,
  latest_ms: null,
  late: null,
  grit: null,
  holds: [],
};
const standing = (over: Partial<typeof coat>): Standing => ({
  station: "spray",
  action: { ...coat, ...over },
  defects: 0,
  stop: false,
  attention: false,
  done: false,
  open: [],
});
const climate = (air_C: number) =>
  climateChecks({ air_K: 273.15 + air_C, part_K: null, material_K: null, relativeHumidity: 0.5 }, TEST_SHEET);
const said = (over: Partial<typeof coat>, o: { air_C?: number; read_ms?: number | null; left?: number } = {}) => {
  const { air_C = 21, read_ms = NOW - 10 * MIN, left = 0 } = o;
  const s = readySentence({ checks: climate(air_C), read_ms, left, standing: standing(over), now_ms: NOW });
  return `${s.before} ${s.main} ${s.after}`.trim();
};
const PEELING: StepHold = {
  by: "fault",
  fault: { kind: "peeling", name: "Peeling", at: [0, 0], holds: ["paper", "clear"], where: "here", until: "stripped", level: "stop" },
};

test("ready is said of a coat that may go on, and of none else", () => {
  expect(said({})).toBe("Ready. Fill the gun.");
  expect(said({}, { read_ms: null })).toBe("Read the climate first.");
  expect(said({}, { read_ms: NOW - 5 * 60 * MIN })).toMatch(/^The climate is 5 h 00 old/);
  expect(said({}, { left: 2 })).toBe("The climate is right. 2 left to look at.");
  expect(said({}, { air_C: 9 })).toMatch(/cold/);
  // What says no travels here too: its wait, what is marked, a pot that is over, a window that has closed.
  expect(said({ from_ms: NOW + 9 * MIN })).toMatch(/^Climate and booth are right\. Not yet: Coat 2 of 2, from \d\d:\d\d\.$/);
  expect(said({ holds: [PEELING] })).toBe("Climate and booth are right. Not yet: Coat 2 of 2: peeling first.");
  expect(said({ holds: [{ by: "pot", over_ms: NOW - MIN }] })).toBe("Climate and booth are right. Not yet: Coat 2 of 2: the pot is over.");
  expect(said({ holds: [{ by: "pot", over_ms: NOW + MIN }] })).toBe("Ready. Fill the gun.");
  expect(said({ latest_ms: NOW - MIN })).toBe("Climate and booth are right. Look first: Coat 2 of 2: past its window.");
  expect(said({ kind: "readBefore" })).toBe("Climate and booth are right.  Next: Take before-readings.");
});

test("a film marked as soft is not called hard enough, whatever its age", () => {
  const mark = { kind: "softFilm" as const, at: { x_m: 0.5, y_m: 0.4 }, length_m: null, width_m: null, height_m: null, measured: false };
  const of = (view: ReturnType<typeof testView>) =>
    cureSentence(TEST_SHEET, view.state, { planned: 2, job: view.job, now_ms: 90 * 24 * 60 * MIN })!;
  expect(of(testView()).main).toBe("Hard enough to read and sand");
  const soft = of(testView({ add: (l) => l.add("defect", mark) }));
  expect(`${soft.main} ${soft.rest}`).toMatch(/^Marked as soft: by its age .* a thumbnail decides\.$/);
  const told = of(testView({ add: (l) => l.add("seenTo", { markId: l.add("defect", mark), as: "hard" }) }));
  expect(told.main).toBe("Hard enough to read and sand");
});
