/** @jest-environment ./scripts/jest-jsdom.mjs */
import { screen } from "@testing-library/react";
import { learnSteps } from "#core/models/correction/learn-removal";
import { stepPrior } from "#core/models/correction/clearing";
import { LearntSteps } from "~/house/learnt-steps";
import { renderPanel, testView } from "~/kit/testing/render-panel";

const pair = (key: string, um: number) => ({ key, measured_m: um * 1e-6, u_m: 1e-6, texture_m: 0, passes: 1 });

test("steps are shown beside their defaults from the first mark on, and offered from the third", () => {
  const few = learnSteps([pair("P1500 medium machine", 5), pair("compound", 1)], stepPrior);
  const { unmount } = renderPanel(<LearntSteps steps={few} />, testView());
  expect(screen.getByText("P1500 medium machine")).toBeTruthy();
  expect(screen.getAllByText("1 of 3")).toHaveLength(2);
  expect(screen.getByRole<HTMLButtonElement>("button", { name: "Use these in plans" }).disabled).toBe(true);
  unmount();
  const enough = learnSteps(
    Array.from({ length: 3 }, () => pair("P1500 medium machine", 5)),
    stepPrior,
  );
  renderPanel(<LearntSteps steps={enough} />, testView());
  expect(screen.getByRole<HTMLButtonElement>("button", { name: "Use these in plans" }).disabled).toBe(false);
});

test("nothing measured says where to measure", () => {
  renderPanel(<LearntSteps steps={[]} />, testView());
  expect(screen.getByText(/read one mark before and after/)).toBeTruthy();
  expect(screen.queryByRole("button")).toBeNull();
});
