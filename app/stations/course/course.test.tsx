/** @jest-environment ./scripts/jest-jsdom.mjs */
import { fireEvent, screen, waitFor, within } from "@testing-library/react";
import { METRIC } from "#core/kernel/units/quantities";
import { type CourseStep, inOrder, stepDraft } from "#core/course/steps";
import { renderPanel, testView } from "~/kit/testing/render-panel";
import { actionWords } from "~/kit/words/step-words";
import { CourseDesk } from "./course.desk";
import { bakedForm, flattenForm, turnForm } from "~/kit/form/spray-entries";
import { courseSentence, lateWords, stepName, stepNeeds, stepWhen } from "./course.words";

const rows = () => [...screen.getByTestId("course").querySelectorAll<HTMLElement>("[data-step]")];

test("sprayed and read while it cures: the wait is now, deciding comes after it, what is behind is folded away", () => {
  renderPanel(<CourseDesk />, testView());
  expect(screen.getByTestId("course-now").textContent).toMatch(/^Cure until /);
  expect(screen.getByRole("link", { name: "Go to Correct" }).getAttribute("href")).toMatch(/\/correct$/);
  expect(rows().map((r) => r.dataset.step)).toContain("hand over");
  expect(within(screen.getByTestId("course-done")).getByText("Coat 2 of 2")).toBeTruthy();
});

test("nothing done: read the film below first; each step opens its reason", async () => {
  renderPanel(
    <CourseDesk />,
    testView({ read: false, add: (l) => [0, 1].map((i) => l.add("strike", { reason: "", whole: true }, { supersedes: `e${i}` })) }),
  );
  expect(screen.getByTestId("course-now").textContent).toBe("Read the film below the clear now.");
  fireEvent.click(screen.getByRole("button", { name: "Coat 1 of 2: why, and when" }));
  await waitFor(() => expect(screen.getByText("What would change it most")).toBeTruthy());
});

test("handed over: nothing is left to do", () => {
  renderPanel(<CourseDesk />, testView({ add: (l) => l.add("handOver", { note: "" }) }));
  expect(screen.getByTestId("course-now").textContent).toBe("Handed over. Nothing is left to do.");
});

describe("in words", () => {
  const NOW = Date.UTC(2026, 4, 6, 12);
  const MIN = 60_000;
  const [first] = inOrder([stepDraft("s", "coat", { number: 2, of: 3 })]);
  const step = (over: Partial<CourseStep>): CourseStep => ({ ...first!, ...over });
  const naming = { two: false, matte: false };

  test.each([
    [step({}), "Coat 2 of 3"],
    [step({ kind: "flash" }), "Flash after coat 2"],
    [step({ kind: "flatten", grit: 800 }), "Sand flat, P800, and clean"],
    [step({ kind: "correct", number: 1, of: 4 }), "Correct: step 1 of 4"],
    [step({ kind: "purge" }), "Air before heat"],
  ])("%#: %s", (s, name) => expect(stepName(s, naming)).toBe(name));
  test("a face is named where there are two, the final flash where it is matte", () => {
    expect(stepName(step({ side: "back" }), { two: true, matte: false })).toBe("Coat 2 of 3, back");
    expect(stepName(step({ kind: "purge" }), { two: false, matte: true })).toBe("Final flash, before any heat");
  });
  test("when: now, from, until, done, past", () => {
    expect(stepWhen(step({}), NOW)).toBe("now");
    expect(stepWhen(step({ from_ms: NOW - MIN, best_ms: NOW + 30 * MIN }), NOW)).toMatch(/^now, to \d\d:\d\d$/);
    expect(stepWhen(step({ from_ms: NOW + 20 * MIN, best_ms: NOW + 50 * MIN }), NOW)).toMatch(/^from \d\d:\d\d to \d\d:\d\d$/);
    expect(stepWhen(step({ kind: "flash", from_ms: NOW + 5 * MIN }), NOW)).toMatch(/^until /);
    expect(stepWhen(step({ latest_ms: NOW - MIN }), NOW)).toMatch(/^window closed at /);
    expect(stepWhen(step({ state: "done" }), NOW)).toBe("done");
    expect(stepWhen(step({ state: "missed" }), NOW)).toBe("not done");
    expect(stepWhen(step({ state: "later" }), NOW)).toBe("");
  });
  test("late: a day ahead in passing, within the hour and gone by as a warning", () => {
    expect(lateWords(step({ late: "scuff", latest_ms: NOW + 600 * MIN }), NOW)).toMatchObject({ soon: false });
    expect(lateWords(step({ late: "grip", latest_ms: NOW + 3 * MIN }), NOW)!.text).toMatch(/^May wait until .*has set/);
    expect(lateWords(step({ late: "scuff", latest_ms: NOW - MIN }), NOW)).toMatchObject({ soon: true });
    expect(lateWords(step({}), NOW)).toBeNull();
  });
  test("what it takes, and the headline", () => {
    expect(stepNeeds(step({ volume_m3: 87e-6, duration_s: 120 }), METRIC)).toBe("87 ml, 2 min");
    expect(courseSentence(step({ from_ms: NOW + 9 * MIN }), "Flash", NOW).rest).toMatch(/^until \d\d:\d\d\.$/);
    expect(courseSentence(step({}), "Coat 2 of 3", NOW)).toEqual({ main: "Coat 2 of 3", rest: "now." });
  });
  test("lists say the same in a line", () => {
    const standing = (over: Partial<CourseStep>, more = {}) => ({
      station: "spray" as const,
      action: step(over),
      defects: 0,
      stop: false,
      attention: false,
      done: false,
      ...more,
    });
    expect(actionWords(standing({}), NOW)).toBe("Coat 2 of 3");
    expect(actionWords(standing({ latest_ms: NOW - MIN }), NOW)).toBe("Coat 2 of 3: past its window");
    expect(actionWords(standing({ side: "back", from_ms: NOW + 9 * MIN }), NOW)).toMatch(/^Coat 2 of 3, back, from /);
    expect(actionWords(standing({ kind: "correct", of: null }, { defects: 2 }), NOW)).toBe("2 to put right");
    expect(actionWords(standing({ kind: "correct", of: 4 }, { stop: true }), NOW)).toBe("Plan says stop: choose another way");
    expect(actionWords({ ...standing({}), action: null }, NOW)).toBe("Handed over");
  });
});

test("what may be typed at a step", () => {
  expect(flattenForm(METRIC).parse({ grit: "800", by: "machine", removal: "" })).toEqual({ grit: 800, by: "machine", removal: null });
  expect(flattenForm(METRIC).parse({ grit: "1500", by: "hand", removal: "7,5" }).removal).toBeCloseTo(7.5e-6, 12);
  expect(flattenForm(METRIC).safeParse({ grit: "80", by: "machine", removal: "" }).success).toBe(false);
  expect(bakedForm(METRIC).parse({ part: "60", time: "30" }).time).toBe(1800);
  expect(bakedForm(METRIC).safeParse({ part: "200", time: "30" }).success).toBe(false);
  expect(turnForm.safeParse({ how: "thrown", side: "front" }).success).toBe(false);
});
