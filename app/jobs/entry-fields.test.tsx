/** @jest-environment ./scripts/jest-jsdom.mjs */
import { screen } from "@testing-library/react";
import { TEST_GUN, testLedger } from "#core/panel/testing/test-ledger";
import type { BodyInputOf, EntryKind } from "#core/record/bodies";
import { renderPage } from "~/kit/testing/render-page";
import { EntryFields } from "./entry-fields";

function show<K extends EntryKind>(kind: K, body: BodyInputOf<K>, units: "metric" | "imperial" = "metric", errors = {}) {
  const ledger = testLedger();
  ledger.add(kind, body);
  return renderPage(<EntryFields entry={ledger.entries[0]!} errors={errors} />, { units });
}
const texts = () => Object.fromEntries(screen.getAllByRole<HTMLInputElement>("textbox").map((e) => [e.labels![0]!.textContent, e.value]));

test("a coat as it was logged, in either unit; what is wrong stands at its field", () => {
  const coat = { number: 2, role: "full wet", settings: TEST_GUN, reducer: 0.05, wetReading_m: 52e-6 };
  const metric = show("coat", coat, "metric", { pressure: ["Too much"] });
  expect(texts()).toMatchObject({
    "What kind of coat": "full wet",
    "Fluid, ml/min": "230",
    "Pressure, bar": "1.93",
    "Distance, mm": "175",
    "Reducer added, %": "5",
    "Wet comb, µm": "52",
  });
  expect(screen.getByLabelText(/^Pressure, /).getAttribute("aria-invalid")).toBe("true");
  metric.unmount();
  show("coat", coat, "imperial");
  expect(texts()).toMatchObject({ "Pressure, psi": "28", "Distance, in": "6.9", "Wet comb, mil": "2.047" });
});

test("a reading as it was entered, its own unit said where the screen has another", () => {
  const readings = [
    { thickness_m: 131e-6, entered: "131", unit: "µm" },
    { thickness_m: 129.54e-6, entered: "5,1", unit: "mil" },
  ];
  show("reading", { phase: "after", spot: "1", at: { x_m: 0.5, y_m: 0.4 }, gauge: "typed", readings });
  expect(texts()).toEqual({ "Readings, with spaces between, µm": "131 5,1 mil" });
});

test("a mix, a climate and a comb; a kind that is not put right has no fields", () => {
  const mix = show("mix", { volume_m3: 450e-6, reducer: 0.1, potLife_s: 3600 });
  expect(texts()).toEqual({ "Mixed, ml": "450", "Reducer, %": "10" });
  mix.unmount();
  const climate = show("climate", { air_K: 293.15, part_K: null, relativeHumidity: 0.5 }, "imperial");
  expect(texts()).toEqual({ "Air, °F": "68", "Part, °F": "", "Humidity, %": "50", "Material, °F": "" });
  climate.unmount();
  const comb = show("wetComb", { number: 1, thickness_m: 52e-6, entered: "52", unit: "µm" });
  expect(texts()).toEqual({ "Wet comb, µm": "52" });
  comb.unmount();
  show("note", { text: "a word" });
  expect(screen.queryAllByRole("textbox")).toEqual([]);
});
