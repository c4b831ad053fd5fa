/** @jest-environment ./scripts/jest-jsdom.mjs */
import { render, screen } from "@testing-library/react";
import { rectangle } from "#core/kernel/geometry/geometry";
import { rowsOver } from "#core/models/spray/row-plan";
import { strokesOf } from "#core/models/spray/strokes";
import { BoothPath } from "./booth-path";

const outline = rectangle(1, 0.5);
const passes = rowsOver(outline, { fan_m: 0.25, overlap: 0.5 });
const path = { outline, passes, handSpeed_m_s: 0.4 };
const each_s = strokesOf(passes, path).time_s / passes.length;

test.each([
  [null, "", "5 rows"],
  [0, "0", "row 1 of 5, by the pace of the plan"],
  [2.5 * each_s, "2", "row 3 of 5, by the pace of the plan"],
  [6 * each_s, "5", "5 rows, all of them by the clock"],
])("after %p s of spraying it is at row %p: %s", (elapsed_s, row, said) => {
  render(<BoothPath path={path} elapsed_s={elapsed_s} />);
  expect(screen.getByTestId("booth-path").dataset.row).toBe(row);
  expect(screen.getByText(said)).toBeTruthy();
});
