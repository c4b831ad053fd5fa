import { ROTARY_TIME, USUAL_HABITS } from "../models/correction/bench-habits";
import type { PlanStep } from "../record/bodies";
import { cautionsOf, consumablesOf, minutesOf, sectionsOf } from "./zone-needs";
import { USED_UP, WORK_MINUTES } from "./zone-work";

const step = (own: Partial<PlanStep>): PlanStep => ({
  name: "step",
  use: { grit: "P1500", backing: "medium" },
  removal_m: 3e-6,
  u_m: 1e-6,
  common_m: {},
  at: [],
  passes: 1,
  zone: "panel",
  tool: "orbital sander",
  wet: true,
  doThis: "",
  lookFor: "",
  minutes: 7,
  texture_m: 0,
  default_m: 0,
  own: false,
  gloss60_GU: null,
  ...own,
});
const P1500 = { grit: "P1500", backing: "medium" } as const;

test("a square metre by machine takes five minutes and the change, twice over ten; by hand fourteen; a rotary polishes sooner", () => {
  const W = WORK_MINUTES;
  expect(minutesOf(P1500, 1, 1)).toBe(W.change + 5);
  expect(minutesOf(P1500, 1, 2)).toBe(W.change + 10);
  expect(minutesOf({ ...P1500, tool: "hand" }, 0.5, 1)).toBe(W.change + 7);
  expect(minutesOf({ polish: "compound" }, 1, 1)).toBe(W.change + 12);
  expect(minutesOf({ polish: "compound" }, 1, 1, { ...USUAL_HABITS, polisher: "rotary" })).toBeCloseTo(W.change + 12 * ROTARY_TIME, 12);
  expect(minutesOf(null, 5, 1)).toBe(W.change);
});

test("an area is worked in sections of 0.6 by 0.6 m, one at least", () => {
  expect([0.01, 0.36, 0.37, 1.44, 1.45].map(sectionsOf)).toEqual([1, 1, 2, 4, 5]);
});

test("paper lasts three minutes wet and two dry; what is wanted twice stands in one line", () => {
  const discs = (steps: PlanStep[]) =>
    consumablesOf(steps, { flat_m2: 1, nibCount: 0, taped_m: 0 }).find((c) => c.what === "P1500 disc, 150 mm")?.amount;
  // Five minutes of work beside the change.
  expect(discs([step({})])).toBe(Math.ceil((5 * 60) / USED_UP.paperLife_s));
  expect(discs([step({ wet: false })])).toBe(Math.ceil((5 * 60) / USED_UP.paperLifeDry_s));
  expect(discs([step({}), step({})])).toBe(2 * Math.ceil((5 * 60) / USED_UP.paperLife_s));
  const list = consumablesOf([step({}), step({}), step({ use: { polish: "polish" } })], { flat_m2: 1, nibCount: 0, taped_m: 3.2 });
  expect(new Set(list.map((c) => c.what)).size).toBe(list.length);
  expect(list.find((c) => c.what === "tape")).toEqual({ what: "tape", amount: 4, unit: "m" });
});

test("a disc does eight nibs, a run has one sheet of each paper, compound goes by area and passes", () => {
  const nibs = (nibCount: number) =>
    consumablesOf([step({ zone: "spot", use: { ...P1500, tool: "pad" } })], { flat_m2: 0.01, nibCount, taped_m: 0 })[0]!.amount;
  expect([1, 8, 9, 20].map(nibs)).toEqual([1, 1, 2, 3]);
  const run = consumablesOf([step({ zone: "run", use: { ...P1500, tool: "hand" } })], { flat_m2: 0.01, nibCount: 0, taped_m: 0 });
  expect(run).toEqual([{ what: "P1500 sheet", amount: 1, unit: "pieces" }]);
  const compound = (flat_m2: number, passes: number) =>
    consumablesOf([step({ use: { polish: "compound" }, passes })], { flat_m2, nibCount: 0, taped_m: 0 }).find((c) => c.unit === "m3")!
      .amount;
  expect(compound(2, 1)).toBeCloseTo(40e-6, 12);
  expect(compound(2, 2)).toBeCloseTo(80e-6, 12);
  // A spot still wants a pea of it.
  expect(compound(0.001, 1)).toBeCloseTo(5e-6, 12);
});

test("what can hurt is said where it is done, and the cloth is always looked at", () => {
  const said = (own: Partial<PlanStep>) => cautionsOf([step(own)]).join(" ");
  expect(said({})).toContain("residual current protection");
  expect(said({ wet: false })).toContain("extraction and the mask");
  expect(said({ wet: null, use: { polish: "polish" } })).toContain("no loose clothing");
  expect(said({ wet: null, use: null, tool: "blade with its corners dulled" })).toContain("Cut-resistant glove".toLowerCase());
  for (const own of [{}, { wet: false }, { use: null }])
    expect(said(own)).toContain("Colour on the cloth means the clear is through: stop.");
});
