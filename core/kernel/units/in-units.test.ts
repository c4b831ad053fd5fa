import { IMPERIAL, METRIC } from "./quantities";
import { inUnits } from "./in-units";

test.each([
  ["2 cm closer", "0.79 in closer"],
  ["any place below 8 µm; a guard, not a promise", "any place below 0.31 mil; a guard, not a promise"],
  ["To sound clear and 125 to 150 mm beyond", "To sound clear and 4.9 to 5.9 in beyond"],
  ["Panels of about 0.6 × 0.6 m, crosswise", "Panels of about 24 × 24 in, crosswise"],
  ["Was it above 27 °C in the booth?", "Was it above 81 °F in the booth?"],
  ["More than 10 K above what the sheet speaks of", "More than 18 °F above what the sheet speaks of"],
  ["more than 160 µm of clear", "more than 6.3 mil of clear"],
  ["above 300 µm: it may crack", "above 12 mil: it may crack"],
])("%s", (metric, imperial) => {
  expect(inUnits(metric, IMPERIAL)).toBe(imperial);
  expect(inUnits(metric, METRIC)).toBe(metric.replace(" K ", " °C "));
});

test("what is no figure of ours stays: grits, cups, speeds, areas, names, times", () => {
  const kept = "P1500 → P2000, 3 steps, 0.5 m/s, 2 m², Clear 41 m2, ISO 4 mmHg, 10 min, 60 kJ/mol, 5 Km";
  expect(inUnits(kept, IMPERIAL)).toBe(kept);
});
