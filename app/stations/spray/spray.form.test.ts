import { textureForm } from "../../kit/panel/texture.form";
import { z } from "zod";
import { IMPERIAL, METRIC } from "#core/kernel/units/quantities";
import { boothPlanForm, fixCoatForm } from "~/booth/booth-plan.form";
import { checkedBy, errorsByField } from "~/kit/form/fields";
import { readGun } from "./gun.form";
import { bakeForm, preflightForm, underForm, wetCombForm } from "./prep.form";
import { bakedForm, climateForm } from "~/kit/form/spray-entries";
import { jsonLines } from "~/kit/http/json-lines";

const errorsOf = (r: z.ZodSafeParseResult<unknown>) => (r.success ? {} : errorsByField(r.error));
const MIDNIGHT = Date.UTC(2026, 4, 6);
const plan = {
  version: "2",
  midnight: String(MIDNIGHT),
  start: "08:30",
  end: "",
  painters: "1",
  places: "4",
  mix: "5",
  carry: "15",
  pots: "",
  part: ["a", "b"],
  "sides-a": "2",
  "group-b": "A",
  "spray-b": "4,5",
};

describe("the day's plan", () => {
  const form = boothPlanForm(METRIC);
  test("times of day are read from the shop's midnight; an end before the start is tomorrow's", () => {
    expect(form.parse(plan)).toMatchObject({
      start_ms: MIDNIGHT + 8.5 * 3_600_000,
      rules: { painters: 1, places: 4, mix_s: 300, potsMost: null, carryOut_s: 900, end_ms: null },
      parts: [
        { panelId: "a", sides: 2, group: null, spray_s: null },
        { panelId: "b", sides: 1, group: "A", spray_s: 270 },
      ],
    });
    expect(form.parse({ ...plan, end: "17:00" }).rules.end_ms).toBe(MIDNIGHT + 17 * 3_600_000);
    expect(form.parse({ ...plan, start: "22:00", end: "02:00" }).rules.end_ms).toBe(MIDNIGHT + 26 * 3_600_000);
  });
  test("one part alone comes as a text, none at all is told, nonsense at its field", () => {
    expect(form.parse({ ...plan, part: "a" }).parts).toHaveLength(1);
    expect(errorsOf(form.safeParse({ ...plan, part: undefined }))).toEqual({ part: ["Choose at least one part"] });
    expect(errorsOf(form.safeParse({ ...plan, start: "25:00" }))).toEqual({ start: ["Type a time, as 14:30"] });
    expect(errorsOf(form.safeParse({ ...plan, "spray-b": "slow" }))["spray-b"]).toEqual(['"slow" is not a number']);
    expect(Object.keys(errorsOf(form.safeParse({ ...plan, painters: "0", pots: "many" }))).sort()).toEqual(["painters", "pots"]);
  });
  test("a coat is fixed at a moment or let go", () => {
    expect(fixCoatForm.parse({ version: "1", panelId: "a", coat: "2", start_ms: "" }).start_ms).toBeNull();
    expect(fixCoatForm.parse({ version: "1", panelId: "a", coat: "2", start_ms: "5000" }).start_ms).toBe(5000);
    expect(fixCoatForm.safeParse({ version: "1", panelId: "a", coat: "0", start_ms: "" }).success).toBe(false);
  });
});

describe("a gun", () => {
  const typed = {
    name: "Gun",
    nozzle: "1,3",
    allTurns: "5",
    turns: "2.5",
    pressure: "1.9",
    distance: "175",
    overlap: "50",
    speed: "0.34",
    fan: "",
    fanAt: "",
  };
  const form = checkedBy((typed) => readGun(typed, METRIC));
  test("is read to SI; empty cups are none, ticks keep their order", () => {
    const gun = form.parse({ ...typed, checks: ["fan", "ellipse"], cupTurns: ["2", ""], cupVolume: ["30", ""], cupTime: ["10", "10"] });
    expect(gun).toMatchObject({ nozzle_m: expect.closeTo(1.3e-3, 9) as number, fan: null, checks: ["ellipse", "fan"] });
    expect(gun.cups).toEqual([{ turns: 2, volume_m3: expect.closeTo(30e-6, 12) as number, time_s: 10 }]);
  });
  test("a wrong cup is told in its own cell; a fan wants its distance", () => {
    expect(errorsOf(form.safeParse({ ...typed, cupTurns: ["2", "20"], cupVolume: ["30", "x"], cupTime: ["10", "0"] }))).toEqual({
      "cupTurns-1": ["Between 0.1 and 10 turns"],
      "cupVolume-1": ['"x" is not a number'],
      "cupTime-1": ["Between 1 and 600 s"],
    });
    expect(Object.keys(errorsOf(form.safeParse({ ...typed, fan: "250" })))).toEqual(["fanAt"]);
  });
});

test("below the clear: what is not typed stays unknown, not zero", () => {
  const form = underForm(METRIC);
  expect(form.parse({ step: "base", film: "17", coats: "3" })).toEqual({
    step: "base",
    grit: null,
    coats: 3,
    film_m: expect.closeTo(17e-6, 12) as number,
    pressure_Pa: null,
    reach_m: null,
    note: "",
  });
  expect(errorsOf(form.safeParse({ step: "sand", grit: "12" }))).toEqual({ grit: ["At least 60"] });
  expect(form.safeParse({ step: "prayer" }).success).toBe(false);
});
/** Baked at 60 °C by its sheet. */
const SHEET = { bake: { part_K: 333.15, time_s: 1800 } };
test("heat far beyond the sheet is refused where it is typed, with what to do; at its limit it is not", () => {
  const bake = { room: "20", purge: "15", ramp: "10", hold: "30" };
  const air = (value: string, sheet: Parameters<typeof bakeForm>[1] = SHEET, units = METRIC) =>
    errorsOf(bakeForm(units, sheet).safeParse({ ...bake, air: value }));
  expect(air("70")).toEqual({});
  expect(air("75")).toEqual({ air: [expect.stringContaining("above 70 °C")] });
  expect(air("60", { bake: null })).toEqual({ air: [expect.stringContaining("put it in under Products first")] });
  const baked = (part: string) => errorsOf(bakedForm(METRIC, SHEET).safeParse({ part, time: "30" }));
  expect(baked("70")).toEqual({});
  expect(baked("71")).toEqual({ part: [expect.stringContaining("log what the part itself held")] });
  expect(errorsOf(bakedForm(IMPERIAL, SHEET).safeParse({ part: "165", time: "30" }))).toEqual({
    part: [expect.stringContaining("above 158 °F")],
  });
});
test("ticks, ratings, combs, bakes and climates", () => {
  expect(preflightForm.parse({}).ticks).toEqual([]);
  expect(preflightForm.parse({ ticks: "tack" }).ticks).toEqual(["tack"]);
  expect(textureForm.safeParse({ role: "part", rating: "2.3" }).success).toBe(false);
  expect(textureForm.parse({ role: "part", rating: "2.5" }).rating).toBe(2.5);
  expect(wetCombForm(METRIC).parse({ panelId: "a", number: "2", wet: "52" }).wet).toBeCloseTo(52e-6, 12);
  expect(Object.keys(errorsOf(bakeForm(METRIC, SHEET).safeParse({ room: "20", air: "200", purge: "15", ramp: "10", hold: "30" })))).toEqual(
    ["air"],
  );
  expect(climateForm(METRIC).parse({ air: "22", part: "", humidity: "50" })).toMatchObject({ part_K: null, material_K: null });
});
test("one JSON value a line: empty lines are passed over, the first wrong one refuses the whole with its number", () => {
  const line = z.object({ x: z.number() });
  expect(jsonLines('{"x":1}\n\n{"x":2}\n', line, "x")).toEqual({ ok: true, values: [{ x: 1 }, { x: 2 }] });
  expect(jsonLines('{"x":1}\n{"x":"two"}', line, '{"x": 1}')).toEqual({ ok: false, message: 'line 2: wanted {"x": 1}' });
  expect(jsonLines("not json", line, "x").ok).toBe(false);
});
