import type { Assessment } from "#core/judge/assess";
import { panelShape } from "#core/kernel/geometry/shapes";
import { METRIC } from "#core/kernel/units/quantities";
import { remedyWords, safeLabel, showSafe, verdictSentence } from "./verdict";

const shape = panelShape("bonnet", { width_m: 1.4, height_m: 1.2 });
const base: Assessment = {
  verdict: "safe",
  reason: null,
  cutChance: 0,
  thinChance: 0.02,
  largestSafeRemoval_m: 12e-6,
  thinnest: { at: [0.2, 1.1], clear_m: 50e-6, u_m: 4e-6 },
  mean: { clear_m: 60e-6, u_m: 3e-6 },
  local: [],
  asItIs: { cutChance: 0, thinChance: 0 },
  inferred: false,
  wouldHelp: [],
};
const say = (change: Partial<Assessment>) => verdictSentence({ ...base, ...change }, shape, METRIC);

test("each verdict is one plain sentence with its number and its place", () => {
  expect(say({})).toBe("Safe. 1 in 50 chance of leaving too little; thinnest at the front edge, left end.");
  expect(say({ verdict: "caution", thinChance: 0.2 })).toBe(
    "Go with care: 1 in 5 chance of leaving too little, worst at the front edge, left end.",
  );
  expect(say({ verdict: "stop", cutChance: 0.4 })).toBe("Stop. 40 in 100 chance of cutting through; 12 µm is the most that may come off.");
  expect(say({ verdict: "stop", thinChance: 0.79, asItIs: { cutChance: 0, thinChance: 0.77 }, largestSafeRemoval_m: 0 })).toBe(
    "Stop. 79 in 100 chance of leaving too little; nothing may come off at the front edge, left end. It is 77 in 100 as it is, with nothing done.",
  );
  expect(say({ verdict: "stop", cutChance: 0.4, largestSafeRemoval_m: -3e-6 })).toContain("nothing may come off at the front edge");
  expect(say({ verdict: "none", reason: "2 of at least 3 spots read" })).toBe("2 of at least 3 spots read");
});

test("what would make it safe is said with its place; the most that may come off is never rounded up", () => {
  expect(remedyWords({ what: "readings", count: 4, at: [[0.7, 0.02]] }, shape)).toBe(
    "4 more readings, if they come out as expected; first at the windscreen edge.",
  );
  expect(remedyWords({ what: "foil" }, shape)).toContain("foil check");
  expect(remedyWords({ what: "mark", places: 1 }, shape)).toContain("read at a mark");
  expect(remedyWords({ what: "mark", places: 3 }, shape)).toContain("three marks on different places");
  expect(showSafe(12.98e-6, METRIC)).toEqual({ text: "12", unit: "µm" });
  expect(showSafe(12.98e-6, { ...METRIC, film: "mil" })).toEqual({ text: "0.5", unit: "mil" });
  expect(showSafe(0.4e-6, METRIC).text).toBe("nothing");
  expect(showSafe(-3e-6, METRIC).text).toBe("nothing");
});

test("what may come off is called safe where nothing holds it back, and too thin only where it most likely is", () => {
  const film = { thinnest_m: 58e-6, floor_m: 35e-6, held: false };
  expect(safeLabel(4e-6, film)).toBe("may come off safely");
  expect(safeLabel(4e-6, { ...film, held: true })).toBe("the film by itself would bear");
  expect(safeLabel(0, film)).toBe("may come off for sure: it may be too thin already");
  expect(safeLabel(0, { ...film, thinnest_m: 30e-6 })).toBe("may come off: it is too thin already");
});
