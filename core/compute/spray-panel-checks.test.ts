import { readFileSync } from "node:fs";
import { computeCases } from "#core/compute/topics";

type Figures = Record<
  "used_ml" | "landed_share" | "middle_mean_um" | "middle_cv" | "least_um" | "most_um" | "travel_p50_mm" | "travel_most_mm" | "run_share",
  number
>;
/** Worked by the reference program on its own grid and steps (our own work, no publication). */
const { cases } = JSON.parse(readFileSync("core/compute/checks/spray-panel-checks.json", "utf8")) as {
  cases: Record<string, { input: Record<string, unknown>; output: Figures }>;
};
/** As the file says of another scheme on the same grid, tighter where ours does better. */
const RELATIVE: Record<keyof Figures, number> = {
  used_ml: 1e-9,
  landed_share: 1e-4,
  middle_mean_um: 0.001,
  middle_cv: 0.01,
  least_um: 0.005,
  most_um: 0.005,
  travel_p50_mm: 0.02,
  travel_most_mm: 0.01,
  run_share: 0.01,
};

test.each(Object.keys(cases))("%s: the panel as the reference program has it", (id) => {
  const { input, output: want } = cases[id]!;
  const answer = computeCases("spray-panel", [{ id, input }]);
  if (!answer.ok) throw new Error(answer.message);
  expect(answer.refused).toEqual([]);
  const got = answer.results[0]!.output as Figures;
  const off = Object.entries(want).filter(([key, value]) => {
    const figure = key as keyof Figures;
    return !(Math.abs(got[figure] - value) <= RELATIVE[figure] * Math.abs(value));
  });
  expect(off.map(([key, value]) => `${key}: ${got[key as keyof Figures]}, wanted ${value}`)).toEqual([]);
});

test("there are twelve of them, and an input out of range is told by name", () => {
  expect(Object.keys(cases)).toHaveLength(12);
  const answer = computeCases("spray-panel", [{ id: "strange", input: { width: 0.8, height: 0.6, Q_ml: 5000 } }]);
  expect(answer).toMatchObject({ ok: true, results: [], refused: [{ id: "strange", field: "fluidRate_m3_s" }] });
});
