/** @jest-environment ./scripts/jest-jsdom.mjs */
import { USUAL_GUN } from "#core/models/spray/usual-gun";
import { fireEvent, screen, waitFor, within } from "@testing-library/react";
import fc from "fast-check";
import { showWait } from "#core/kernel/units/format";
import { METRIC } from "#core/kernel/units/quantities";
import { type CourseStep, STEP_KINDS, type StepKind, inOrder, stepDraft } from "#core/course/steps";
import { renderPanel, testView } from "~/kit/testing/render-panel";
import { actionWords } from "~/kit/words/step-words";
import { courseAxis, isBeyond, stretchesOf } from "./course-axis";
import { mendingOf } from "#core/panel/mending";
import { courseAt, handAt } from "./course-at";
import { CourseDesk } from "./course.desk";
import type { OtherPanel } from "#server/views/together-view";
import { bakedForm, flattenForm, turnForm } from "~/kit/form/spray-entries";
import { coatFigures, courseSentence, lateWords, stepName, stepNeeds, stepWhen } from "./course.words";

/** The page as the server sends it, at the test's now. */
const reckonedAt = (view: ReturnType<typeof testView>, at_ms = 0) => ({
  at_ms,
  steps: courseAt(view, at_ms),
  hand: handAt(view, at_ms),
  release: null,
  mending: mendingOf(view.state),
});
const renderCourse = (view: ReturnType<typeof testView>, at_ms = 0, others: readonly OtherPanel[] = []) =>
  renderPanel(<CourseDesk reckoned={reckonedAt(view, at_ms)} others={others} />, view);
const rows = () => [...screen.getByTestId("course").querySelectorAll<HTMLElement>("[data-step]")];

test("sprayed and read while it cures: the wait is now, deciding comes after it, what is behind is folded away", () => {
  renderCourse(testView());
  expect(screen.getByTestId("course-now").textContent).toMatch(/^Cure until /);
  // It may be looked over while it cures: that stands unfolded, before anything is decided.
  expect(screen.getByTestId("step-here").dataset.stepHere).toBe("inspect");
  expect(rows().map((r) => r.dataset.step)).toContain("hand over");
  expect(within(screen.getByTestId("course-done")).getByText("Coat 2 of 2")).toBeTruthy();
});

test("nothing done: read the film below first; each step opens its reason", async () => {
  renderCourse(
    testView({ read: false, add: (l) => [0, 1].map((i) => l.add("strike", { reason: "", whole: true }, { supersedes: `e${i}` })) }),
  );
  expect(screen.getByTestId("course-now").textContent).toBe("Read the film below the clear now.");
  fireEvent.click(screen.getByRole("button", { name: "Coat 1 of 2: why, and when" }));
  await waitFor(() => expect(screen.getByText("What would change it most")).toBeTruthy());
});

test("handed over: nothing is left to do", () => {
  renderCourse(testView({ add: (l) => l.add("handOver", { note: "" }) }));
  expect(screen.getByTestId("course-now").textContent).toBe("Handed over. Nothing is left to do.");
});

test("the forecast that came with the page stands until its moment is past, then it is made here", async () => {
  const view = testView({
    read: false,
    add: (l) => [0, 1].map((i) => l.add("strike", { reason: "", whole: true }, { supersedes: `e${i}` })),
  });
  const old_ms = -3600_000;
  const stale = courseAt(view, old_ms).map((s): CourseStep => (s.kind === "readBefore" ? { ...s, state: "done" } : s));
  renderPanel(<CourseDesk reckoned={{ ...reckonedAt(view, old_ms), steps: stale }} />, view);
  expect(screen.getByTestId("course-now").textContent).not.toContain("Read the film below");
  await waitFor(() => expect(screen.getByTestId("course-now").textContent).toBe("Read the film below the clear now."));
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
    // A grip coat that locks is too late after; what may wait until it is scuffed is only best by then, and says so no more once that is over.
    const grip = { best_ms: NOW + 30 * MIN, latest_ms: NOW + 30 * MIN, late: "grip" } as const;
    const scuff = { best_ms: NOW + 30 * MIN, latest_ms: NOW + 600 * MIN, late: "scuff" } as const;
    expect(stepWhen(step({ from_ms: NOW - MIN, ...grip }), NOW)).toMatch(/^now to \d\d:\d\d$/);
    expect(stepWhen(step({ from_ms: NOW + 20 * MIN, ...grip }), NOW)).toMatch(/^from \d\d:\d\d to \d\d:\d\d$/);
    expect(stepWhen(step({ from_ms: NOW - MIN, ...scuff }), NOW)).toMatch(/^now, best by \d\d:\d\d$/);
    expect(stepWhen(step({ from_ms: NOW + 20 * MIN, ...scuff }), NOW)).toMatch(/^from \d\d:\d\d, best by \d\d:\d\d$/);
    expect(stepWhen(step({ from_ms: NOW - 60 * MIN, ...scuff }), NOW + 40 * MIN)).toBe("now");
    const left = (now_ms: number) => coatFigures(step({ from_ms: NOW - 60 * MIN, ...scuff }), { now_ms, after: null }, METRIC);
    expect(left(NOW)).toContainEqual({ big: "30 min", small: "left of its best time" });
    expect(left(NOW + 40 * MIN)).toContainEqual({ big: showWait(560 * 60), small: "left of its window" });
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
      open: [],
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

describe("against time", () => {
  const NOW = Date.UTC(2026, 4, 6, 12);
  const MIN = 60_000;
  const steps = inOrder([
    stepDraft("f", "flash", { number: 1, from_ms: NOW + 6 * MIN, duration_s: 540 }),
    stepDraft("2", "coat", {
      number: 2,
      of: 2,
      from_ms: NOW + 6 * MIN,
      best_ms: NOW + 30 * MIN,
      latest_ms: NOW + 50 * MIN,
      late: "grip",
      duration_s: 120,
      coat: { gun: USUAL_GUN, zone: "whole", dry_m: 27e-6, u_dry_m: 4e-6, runChance: 0.1, sagLocal_m: 3e-3 },
    }),
    stepDraft("c", "cure", { from_ms: NOW + 16 * 60 * MIN, duration_s: 57_600 }),
    stepDraft("r", "readAfter", { from_ms: NOW + 16 * 60 * MIN, duration_s: 300 }),
  ]);
  const axis = courseAxis(steps, NOW, steps[1]);

  test("the axis keeps the window at hand in sight, and folds what lies beyond", () => {
    expect((axis.to_ms - axis.from_ms) / MIN).toBe(120);
    expect(axis.place(NOW)).toBeCloseTo(12, 9);
    expect(steps.map((s) => isBeyond(s, axis))).toEqual([false, false, false, true]);
    for (const { left } of axis.ticks) expect(left >= 0 && left <= 100).toBe(true);
  });
  test("a coat: too soon, its window, too late once the grip is gone; nothing overlaps", () => {
    const on = stretchesOf(steps[1]!, axis, NOW);
    expect(on.map((s) => s.kind)).toEqual(["tooSoon", "window", "late"]);
    on.slice(1).forEach((s, i) => expect(s.left).toBeGreaterThanOrEqual(on[i]!.left + on[i]!.width - 1e-9));
    expect(on[1]!.left).toBeCloseTo(axis.place(NOW + 6 * MIN), 9);
  });
  test("a wait is drawn from when it began, work with what may follow it", () => {
    const [wait] = stretchesOf(steps[0]!, axis, NOW);
    expect(wait!.left).toBeCloseTo(axis.place(NOW - 3 * MIN), 9);
    const kinds = (over: Partial<CourseStep>) => stretchesOf(inOrder([stepDraft("i", "inspect", over)])[0]!, axis, NOW).map((s) => s.kind);
    expect(kinds({ from_ms: NOW, duration_s: 600 })).toEqual(["open", "work"]);
    // Nobody knows how long it takes: a moment, and no length.
    expect(kinds({ from_ms: NOW })).toEqual(["open", "moment"]);
    expect(kinds({})).toEqual(["moment"]);
    expect(stretchesOf(inOrder([stepDraft("m", "mix", { duration_s: 600 })])[0]!, axis, NOW).map((s) => s.kind)).toEqual(["work"]);
  });
  test("a stretch is as long as its time: none is invented, whatever the step and the axis", () => {
    const minutes = (least: number) => fc.option(fc.integer({ min: least, max: 9000 }), { nil: null });
    const kind = fc.constantFrom(...(Object.keys(STEP_KINDS) as StepKind[]));
    fc.assert(
      fc.property(kind, minutes(-5000), minutes(0), minutes(-5000), (kind, from, takes, other) => {
        const at = (m: number | null) => (m === null ? null : NOW + m * MIN);
        const draft = stepDraft("x", kind, { from_ms: at(from), duration_s: takes === null ? null : takes * 60 });
        const list = inOrder([draft, stepDraft("y", "inspect", { from_ms: at(other), duration_s: 600 })]);
        const on = courseAxis(list, NOW, list[0]);
        const span_ms = (width: number) => (width / 100) * (on.to_ms - on.from_ms);
        const on_axis = (ms: number) => Math.min(on.to_ms, Math.max(on.from_ms, ms));
        for (const { kind: what, left, width } of stretchesOf(list[0]!, on, NOW)) {
          if (what === "moment") expect(width).toBe(0);
          if (what === "work" || what === "wait") {
            const begins = what === "wait" ? at(from)! - takes! * MIN : (at(from) ?? NOW);
            expect(span_ms(width)).toBeCloseTo(on_axis(begins + takes! * MIN) - on_axis(begins), 0);
            expect(on.from_ms + span_ms(left)).toBeCloseTo(on_axis(begins), 0);
          }
        }
      }),
    );
  });
  test("stretches stay on the axis whatever the times", () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: -5000, max: 9000 }), { minLength: 3, maxLength: 3 }), (at) => {
        const [from_ms, best_ms, latest_ms] = at.sort((a, b) => a - b).map((m) => NOW + m * MIN) as [number, number, number];
        const [step] = inOrder([stepDraft("x", "coat", { number: 1, of: 1, from_ms, best_ms, latest_ms, late: "scuff" })]);
        const on = courseAxis([step!], NOW, step);
        for (const s of stretchesOf(step!, on, NOW)) {
          expect(s.left).toBeGreaterThanOrEqual(0);
          expect(s.left + s.width).toBeLessThanOrEqual(100 + 1e-9);
        }
      }),
    );
  });
  test("the coat's figures: litres, time, the clear after it", () => {
    expect(
      coatFigures(
        { ...steps[1]!, volume_m3: 87e-6 },
        { now_ms: NOW, after: { film_m: 54e-6, u_m: 5e-6, what: "of clear after it, forecast" } },
        METRIC,
      ),
    ).toEqual([
      { big: "87 ml", small: "ready to spray" },
      { big: "6 min", small: "until it may be sprayed" },
      { big: "54 ± 10 µm", small: "of clear after it, forecast" },
    ]);
  });
});

test("what may be typed at a step", () => {
  expect(flattenForm(METRIC).parse({ grit: "800", by: "machine", removal: "" })).toEqual({ grit: 800, by: "machine", removal: null });
  expect(flattenForm(METRIC).parse({ grit: "1500", by: "hand", removal: "7,5" }).removal).toBeCloseTo(7.5e-6, 12);
  expect(flattenForm(METRIC).safeParse({ grit: "80", by: "machine", removal: "" }).success).toBe(false);
  expect(bakedForm(METRIC, { bake: { part_K: 333.15, time_s: 1800 } }).parse({ part: "60", time: "30" }).time).toBe(1800);
  expect(bakedForm(METRIC, { bake: null }).safeParse({ part: "200", time: "30" }).success).toBe(false);
  expect(turnForm.safeParse({ how: "thrown", side: "front" }).success).toBe(false);
});
