/** @jest-environment ./scripts/jest-jsdom.mjs */
import { fireEvent, screen } from "@testing-library/react";
import { planBooth } from "#core/models/schedule/booth-plan";
import type { BoothProblem } from "#core/models/schedule/booth-problem";
import { BoothChart } from "./booth-chart";
import { renderPage } from "~/kit/testing/render-page";
import { boothSentence, boothWorking, infeasibleSentence, relaxWords } from "./booth-plan.words";

const MIN = 60;
const TEN_S = 10 * 3600;
const part = (id: string) => ({
  id,
  coats: 2,
  spray_s: 6 * MIN,
  flashMin_s: 10 * MIN,
  flashMax_s: 40 * MIN,
  sides: 1 as const,
  turn_s: 0,
  group: null,
  product: "Clear T",
  potLife_s: 90 * MIN,
  volume_m3: 2e-4,
  done: 0,
  doneEnd_s: null,
});
const problem: BoothProblem = {
  parts: [part("a"), part("b")],
  rules: { painters: 1, places: 2, mix_s: 5 * MIN, potsMost: null, carryOut_s: 0, end_s: null },
  fixed: [],
  openPots: [],
};
const answer = planBooth(problem);
if (answer.kind !== "planned") throw new Error("no plan");
const { plan } = answer;
const rows = [
  { id: "a", vehicle: "Test estate", name: "Door" },
  { id: "b", vehicle: "Test estate", name: "Wing" },
];
const chart = (fixed: { part: string; coat: number; start_s: number }[], onFix: (...a: [string, number, number]) => void) => (
  <BoothChart plan={plan} rows={rows} sprayed={[]} fixed={fixed} zero_s={TEN_S} onFix={onFix} onMove={() => undefined} />
);

test("every coat is a control that says when, who and from which pot", () => {
  renderPage(chart([], () => undefined));
  expect(screen.getAllByRole("button").map((b) => b.getAttribute("aria-label"))).toEqual([
    "Door, coat 1: 10:05 to 10:11, painter 1, pot 1",
    "Door, coat 2: 10:21 to 10:27, painter 1, pot 1",
    "Wing, coat 1: 10:11 to 10:17, painter 1, pot 1",
    "Wing, coat 2: 10:27 to 10:33, painter 1, pot 1",
  ]);
  expect(screen.getByText("pot 1, over at 11:35")).toBeTruthy();
});
test("an arrow key fixes a coat one minute on, never before the plan's zero; other keys do nothing", () => {
  const fixed: [string, number, number][] = [];
  renderPage(chart([], (...f) => fixed.push(f)));
  const door = screen.getByTestId("coat-Door-1");
  fireEvent.keyDown(door, { key: "ArrowRight" });
  fireEvent.keyDown(door, { key: "ArrowLeft" });
  fireEvent.keyDown(door, { key: "Enter" });
  expect(fixed).toEqual([
    ["a", 1, 6 * MIN],
    ["a", 1, 4 * MIN],
  ]);
});
test("a fixed coat says so", () => {
  renderPage(chart([{ part: "a", coat: 2, start_s: plan.sprays.find((s) => s.part === "a" && s.coat === 2)!.start_s }], () => undefined));
  expect(screen.getByTestId("coat-Door-2").getAttribute("aria-label")).toMatch(/, fixed$/);
});
test("the plan in words: when, how long, how many pots and how good", () => {
  expect(boothSentence(plan, TEN_S)).toEqual({
    main: "All 4 coats are on at 10:33.",
    rest: "33 min from the start, 1 pot to mix. No plan within these rules is shorter.",
  });
  expect(boothSentence({ ...plan, exact: false, bound_s: plan.end_s - 300 }, TEN_S).rest).toContain(
    "No plan can be more than 5 min shorter.",
  );
  expect(boothSentence(plan, TEN_S + 14 * 3600).main).toBe("All 4 coats are on at 00:33 tomorrow.");
  expect(boothSentence(plan, TEN_S + 38 * 3600).main).toBe("All 4 coats are on at 00:33, 2 days on.");
  expect(boothSentence({ ...plan, sprays: [] }, TEN_S).main).toBe("Every coat is on.");
  expect(boothWorking(plan, problem).inputs.map((i) => i.shown)).toContain("24 min");
});
test.each([
  [{ rule: "end", needed: 5400 }, "Let the day end at 11:30 or later."],
  [{ rule: "flash", needed: 2640 }, "Let a coat wait up to 44 min"],
  [{ rule: "pots", needed: 2 }, "Mix 2 pots"],
  [{ rule: "potLife", needed: 7020 }, "1 h 57"],
  [{ rule: "places", needed: 3 }, "Room for 3 parts"],
  [{ rule: "painters", needed: 1 }, "1 painter at"],
  [{ rule: "fixed", needed: null }, "Let go of the times fixed by hand."],
] as const)("a rule that would have to give way: %o", (relaxation, words) => {
  expect(relaxWords(relaxation, TEN_S)).toContain(words);
});
test("nothing fits: said with or without a way out", () => {
  expect(infeasibleSentence({ kind: "infeasible", proven: true, relax: [] })).toContain("no single rule");
  expect(infeasibleSentence({ kind: "infeasible", proven: true, relax: [{ rule: "fixed", needed: null }] })).toContain("One of these");
});
