import { coatForm } from "~/kit/form/spray-entries";
import { IMPERIAL, METRIC } from "#core/kernel/units/quantities";
import { putRightForm } from "./entry.form";

/** Baked at 60 °C by its sheet. */
const SHEET = { bake: { part_K: 333.15, time_s: 1800 } };

const near = (x: number, digits: number): number => expect.closeTo(x, digits) as number;
const at = "2026-05-06T14:05";
const at_ms = new Date(2026, 4, 6, 14, 5).getTime();

test("each kind is read in the screen's unit, with its minute in the server's zone", () => {
  expect(putRightForm("mix", METRIC, SHEET).parse({ volume: "450", reducer: "10", at })).toEqual({
    body: { volume_m3: near(450e-6, 12), reducer: 0.1 },
    at_ms,
  });
  expect(putRightForm("climate", IMPERIAL, SHEET).parse({ air: "68", part: "", humidity: "50", material: "", at }).body).toMatchObject({
    air_K: near(293.15, 6),
    part_K: null,
  });
  expect(putRightForm("reading", METRIC, SHEET).parse({ value: "131 5,1 mil", at }).body).toEqual({
    readings: [
      { thickness_m: near(131e-6, 12), entered: "131", unit: "µm" },
      { thickness_m: near(129.54e-6, 12), entered: "5,1", unit: "mil" },
    ],
  });
  expect(putRightForm("wetComb", METRIC, SHEET).parse({ wet: "52", at }).body).toEqual({
    thickness_m: near(52e-6, 12),
    entered: "52",
    unit: "µm",
  });
  const coat = { number: "2", role: "full", fluidFrom: "turns", fluidRate: "", turns: "2,5", pressure: "1,9", distance: "175" };
  const place = { side: "back", zone: "spots" };
  const { body } = putRightForm("coat", METRIC, SHEET).parse({
    ...coat,
    ...place,
    overlap: "50",
    handSpeed: "0,34",
    fan: "",
    reducer: "0",
    wet: "",
    at,
  });
  expect(body).not.toHaveProperty("number");
  expect(body).toMatchObject({
    role: "full",
    settings: { fluidFrom: "turns", turns: 2.5 },
    wetReading_m: null,
    side: "back",
    zone: "spots",
  });
});

test("a pressure told at the hose is kept as the gun's, with where it was told", () => {
  const coat = {
    number: "2",
    role: "",
    fluidFrom: "turns",
    fluidRate: "",
    turns: "2,5",
    distance: "175",
    overlap: "50",
    handSpeed: "0,34",
  };
  const read = (pressure: string, pressureAt?: string) =>
    coatForm(METRIC).safeParse({ ...coat, fan: "", reducer: "0", wet: "", pressure, ...(pressureAt ? { pressureAt } : {}) });
  expect(read("3.8", "hose").data!.settings).toMatchObject({ pressure_Pa: near(1.976e5, 3), pressureAt: "hose" });
  expect(read("1.9").data!.settings).not.toHaveProperty("pressureAt");
  expect(read("9", "gun").error!.issues[0]).toMatchObject({ path: ["pressure"] });
  expect(read("9", "hose").success).toBe(true);
});

test("sanding flat, a bake, a turn and a strip are put right too; a removal that is typed is told, not forecast", () => {
  expect(putRightForm("flatten", METRIC, SHEET).parse({ grit: "1500", by: "hand", removal: "9", at }).body).toEqual({
    grit: 1500,
    by: "hand",
    removal_m: near(9e-6, 12),
    from: "told",
  });
  expect(putRightForm("bake", METRIC, SHEET).parse({ part: "60", time: "30", at }).body).toEqual({
    part_K: near(333.15, 6),
    time_s: near(1800, 6),
  });
  expect(putRightForm("turn", METRIC, SHEET).parse({ how: "hung", side: "front", at }).body).toEqual({ how: "hung", side: "front" });
  expect(putRightForm("strip", METRIC, SHEET).parse({ phase: "after", gauge: "", value: "98 99", at }).body).toMatchObject({
    phase: "after",
  });
});

test("whatever is wrong is told at its field, the time's fault with the figure's", () => {
  const wrong = (kind: Parameters<typeof putRightForm>[0], fields: object) =>
    putRightForm(kind, METRIC, SHEET)
      .safeParse(fields)
      .error!.issues.map((i) => `${i.path.join(".")}: ${i.message}`);
  expect(wrong("reading", { value: "13x", at: "" })).toEqual([expect.stringMatching(/^value: /), "at: Type when it was"]);
  expect(wrong("reading", { value: "9000", at })).toEqual(["value: Film lies between 0 and 5 mm"]);
  expect(wrong("wetComb", { wet: "2", at })).toEqual([expect.stringMatching(/^wet: /)]);
  expect(wrong("mix", { volume: "450", reducer: "10", at: "yesterday" })).toEqual(["at: Type when it was"]);
  expect(wrong("mix", { volume: "450", reducer: "10", at: "2026-13-45T99:99" })).toEqual(["at: Type when it was"]);
});
