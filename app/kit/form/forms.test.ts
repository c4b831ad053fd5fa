import { readingForm } from "~/kit/readings/reading.form";
import { METRIC, IMPERIAL, type UnitPreferences } from "#core/kernel/units/quantities";
import { choiceForm } from "~/stations/correct/correct.form";
import { parseCorners } from "~/jobs/corners";
import { checkedBy, optionalQuantity, quantity } from "./fields";
import { initial } from "./initial";
import { stepForm } from "~/stations/correct/correct.form";
import { nibCountForm, defectForm } from "~/stations/inspect/inspect.form";
import { jobForm } from "~/jobs/job.form";
import { fieldsOf } from "./answer";
import { canForm } from "~/shelf/can.form";
import { cardForm } from "~/cards/card.form";
import { readFlow } from "~/stations/spray/window.form";
import { glossForm, matteCheckForm } from "./gloss-readings";
import { readMixDesk } from "~/stations/plan/mix.form";
import { partForm, productForm } from "~/shelf/product.form";
import { coatForm } from "~/kit/form/spray-entries";

const flowForm = (units: UnitPreferences) => checkedBy((typed) => readFlow(typed, units));
const mixDeskForm = (units: UnitPreferences) => checkedBy((typed) => readMixDesk(typed, units));
const errorsOf = (result: { success: boolean; error?: { issues: { path: PropertyKey[]; message: string }[] } }) =>
  Object.fromEntries((result.error?.issues ?? []).map((i) => [i.path.join("."), i.message]));

test("a quantity is read in the screen's unit; limits are told in the same unit", () => {
  const film = quantity("film", IMPERIAL, { min: 0, max: 1e-3 });
  expect(film.parse("2,5")).toBeCloseTo(63.5e-6, 12);
  expect(errorsOf(film.safeParse("99"))).toEqual({ "": "Between 0 mil and 39.37 mil" });
  expect(errorsOf(film.safeParse("thick"))).toEqual({ "": '"thick" is not a number' });
  const wet = optionalQuantity("film", METRIC, { min: 0, max: 1e-3 });
  expect([wet.parse(""), wet.parse(undefined)]).toEqual([null, null]);
  expect(wet.parse("60")).toBeCloseTo(60e-6, 12);
});

test("what a form starts with is read back as the same figure", () => {
  for (const units of [METRIC, IMPERIAL]) {
    const text = initial("film", 28e-6, units);
    expect(Math.abs(quantity("film", units, { min: 0, max: 1 }).parse(text) - 28e-6)).toBeLessThan(0.05e-6);
  }
  expect(initial("film", null, METRIC)).toBe("");
});

const job = {
  vehicle: "Lodos estate",
  colourName: "teal",
  colourCss: "#0d5a5f",
  finish: "flat",
  wayId: "two-full",
  formKey: "k",
  panelName: "",
  shape: "door",
  width: "1100",
  height: "700",
  corners: "",
  orientation: "angle",
  angle: "45",
  substrate: "unknown",
  productRevisionId: "r",
  coatsPlanned: "2",
};

test("a job form makes a job with its panel; the shape gives the name", () => {
  const made = jobForm(METRIC).parse(job);
  expect(made.panel).toMatchObject({ name: "Door", coatsPlanned: 2 });
  expect(made.panel.tilt_rad).toBeCloseTo(Math.PI / 4, 9);
});

test("a job form names every wrong field in words", () => {
  expect(errorsOf(jobForm(METRIC).safeParse({ ...job, vehicle: " ", width: "x", coatsPlanned: "0", productRevisionId: "" }))).toEqual({
    vehicle: "Say which vehicle or part",
    width: '"x" is not a number',
    coatsPlanned: "At least 1",
    productRevisionId: "Choose a product",
  });
  expect(errorsOf(jobForm(METRIC).safeParse({ ...job, shape: "own", corners: "0 0\n10 ten" }))).toEqual({
    corners: 'Line 2: wanted x and y in mm, got "10 ten"',
  });
  expect(errorsOf(jobForm(METRIC).safeParse({ ...job, shape: "own", corners: "0 0\n500 0" }))).toEqual({
    corners: "At least 3 corners that enclose an area",
  });
  expect(jobForm(METRIC).parse({ ...job, shape: "own", corners: "0 0\n500 0\n500 400" }).panel.shape.outline).toHaveLength(3);
  const typed = parseCorners("1,5 2\n\n3; 4", IMPERIAL);
  expect(typed.ok && typed.corners.map((p) => p.map((m) => m.toFixed(4)))).toEqual([
    ["0.0381", "0.0508"],
    ["0.0762", "0.1016"],
  ]);
});

const reading = { phase: "after", spot: "1", x_m: "0.5", y_m: "0.5", clientKey: "k" };
test("readings: one, several, with a unit; wrong ones keep their message", () => {
  const values = (value: string) =>
    readingForm(METRIC)
      .parse({ ...reading, value })
      .body.readings.map((r) => [r.entered, r.unit]);
  expect(values("131")).toEqual([["131", "µm"]]);
  expect(values("131 128,5  126")).toEqual([
    ["131", "µm"],
    ["128,5", "µm"],
    ["126", "µm"],
  ]);
  expect(values("5.1 mil")).toEqual([["5.1", "mil"]]);
  expect(errorsOf(readingForm(METRIC).safeParse({ ...reading, value: "-4" }))).toEqual({ value: "Film lies between 0 and 5 mm" });
  expect(errorsOf(readingForm(METRIC).safeParse({ ...reading, value: "131 x" }))).toMatchObject({ value: expect.any(String) as string });
});

test("a run may be sized later, and is no run a hand high; a place has to be on the panel", () => {
  const outline = [
    [0, 0],
    [1, 0],
    [1, 1],
    [0, 1],
  ] as const;
  const form = defectForm(METRIC, outline);
  const base = { x: "500", y: "500", length: "", width: "", height: "", measured: "judged" };
  expect(form.parse({ ...base, kind: "nib" })).toMatchObject({ kind: "nib", height_m: null, measured: false });
  expect(form.parse({ ...base, kind: "run" })).toMatchObject({ kind: "run", height_m: null, width_m: null });
  expect(errorsOf(form.safeParse({ ...base, kind: "run", length: "60", width: "10", height: "1500" })).height).toContain(
    "less than 1000 µm",
  );
  expect(errorsOf(form.safeParse({ ...base, kind: "nib", x: "1500" }))).toEqual({ x: "This place is not on the panel" });
  expect(errorsOf(form.safeParse({ ...base, kind: "run", length: "5", width: "10", height: "60" }))).toEqual({
    length: "A run is at least as long as it is wide",
  });
});

test("a defect drawn as places, a line or an area lies on the panel and has corners enough; places are counted by themselves", () => {
  const outline = [
    [0, 0],
    [1, 0],
    [1, 1],
    [0, 1],
  ] as const;
  const form = defectForm(METRIC, outline);
  const base = { kind: "nib", x: "500", y: "500", length: "", width: "", height: "", measured: "judged" };
  const trace = (as: string, ...at: [number, number][]) => JSON.stringify({ as, at: at.map(([x_m, y_m]) => ({ x_m, y_m })) });
  expect(form.parse({ ...base, trace: trace("points", [0.2, 0.2], [0.4, 0.4], [0.6, 0.2]) })).toMatchObject({
    count: 3,
    trace: { as: "points" },
  });
  expect(form.parse({ ...base, count: "7", trace: trace("points", [0.2, 0.2]) }).count).toBe(7);
  expect(form.parse(base).trace).toBeNull();
  expect(errorsOf(form.safeParse({ ...base, trace: trace("line", [0.2, 0.2]) }))).toEqual({ trace: "A line needs two ends" });
  expect(errorsOf(form.safeParse({ ...base, trace: trace("area", [0.2, 0.2], [0.3, 0.3]) }))).toEqual({
    trace: "An area needs three corners",
  });
  expect(errorsOf(form.safeParse({ ...base, trace: trace("line", [0.2, 0.2], [1.2, 0.2]) }))).toEqual({
    trace: "A part of the drawing is not on the panel",
  });
  expect(errorsOf(form.safeParse({ ...base, trace: "{" })).trace).toContain("draw it again");
});

test("a step done: film at its mark before and after, both or neither; gloss between its limits", () => {
  const form = stepForm(METRIC);
  const base = { index: "1", planId: "p" };
  expect(form.parse(base)).toMatchObject({ measured: null, gloss60_GU: null, simulated: false });
  const read = form.parse({ ...base, before: "131 129 130", after: "5 mil", gloss: "80 82", simulated: "yes" });
  expect(read.measured!.before.map((r) => (r.thickness_m * 1e6).toFixed(3))).toEqual(["131.000", "129.000", "130.000"]);
  expect(read.measured!.after[0]).toMatchObject({ entered: "5", unit: "mil" });
  expect(read).toMatchObject({ gloss60_GU: 81, simulated: true });
  expect(errorsOf(form.safeParse({ ...base, before: "131" }))).toEqual({
    after: "Read the same mark before and after, or leave both empty",
  });
  expect(errorsOf(form.safeParse({ ...base, before: "131", after: "thick" })).after).toContain("is not a number");
  expect(errorsOf(form.safeParse({ ...base, before: "131", after: "9999" })).after).toBe("Film lies between 0 and 5 mm");
  expect(errorsOf(form.safeParse({ ...base, gloss: "300" })).gloss).toContain("between 0 and 200");
});

test("a coat takes its fluid from turns or from a measured rate, never from nothing", () => {
  const coat = {
    number: "1",
    role: "full wet",
    fluidFrom: "turns",
    fluidRate: "",
    turns: "2,25",
    pressure: "28 psi",
    distance: "175",
    overlap: "50",
    handSpeed: "0.34",
    fan: "",
    reducer: "5",
    wet: "",
  };
  const made = coatForm(METRIC).parse(coat);
  expect(made.settings).toMatchObject({ fluidFrom: "turns", turns: 2.25, fan_m: null });
  expect(made.settings.fluidRate_m3_s * 60e6).toBeCloseTo(229.5, 6);
  expect(made.settings.pressure_Pa).toBeCloseTo(193053.2, 0);
  expect(errorsOf(coatForm(METRIC).safeParse({ ...coat, fluidFrom: "measured" }))).toEqual({ fluidRate: "Type a number" });
  expect(errorsOf(coatForm(METRIC).safeParse({ ...coat, overlap: "95" }))).toEqual({ overlap: "Between 0 % and 90 %" });
});

test("a sheet that contradicts itself is told at the field; a correction choice is read", () => {
  const sheet = {
    name: "Clear T",
    kind: "clear",
    ratio: "2:1",
    solids: "48",
    speed: "medium",
    coats: "2",
    filmMin: "25",
    filmMax: "20",
    flashMin: "10",
    flashMax: "45",
    potLife: "90",
    sandAfter: "960",
    floor: "",
  };
  expect(errorsOf(productForm(METRIC).safeParse(sheet))).toEqual({ filmMax: "The most must be at least the least" });
  const nonsense = { ...sheet, filmMax: "30", ratio: "2:0", reducerMax: "101", density: "-1", water: "120", levels: "60 = none" };
  expect(errorsOf(productForm(METRIC).safeParse(nonsense))).toEqual({
    ratio: "Every part must be above 0 and at most 1000",
    reducerMax: "Between 0 % and 100 %",
    density: "Between 0.5 g/ml and 3 g/ml",
    water: "Between 0 % and 100 %",
    levels: '"60 = none" is not a level; write 60 = 28 (per cent = GU), one a line',
  });
  expect(productForm(METRIC).parse({ ...sheet, filmMax: "30", levels: "60 = 28\n100 = 8,5", potLifeWarm: "45" })).toMatchObject({
    levels: [
      { share: 0.6, gloss60_GU: 28 },
      { share: 1, gloss60_GU: 8.5 },
    ],
    potLifeAt: [{ temperature_K: 303.15, life_s: 2700 }],
  });
  expect(productForm(METRIC).parse({ ...sheet, filmMax: "30" })).toMatchObject({ flashMin_s: 600, floor_m: null, volumeSolids: 0.48 });
  expect(
    choiceForm(METRIC).parse({ schoolId: "short", runSchool: "", texture: "3", uTexture: "0,4", wanted: "0", tape: "20" }),
  ).toMatchObject({ runSchool: null, tape_m: 0.02 });
});

test("a mix desk tells every wrong figure at its field", () => {
  const mix = {
    ratio: "2:1",
    reducer: "10",
    meaning: "activated",
    coats: "2",
    film: "28",
    transfer: "65",
    waste: "0",
    dead: "0",
    temperature: "22",
    pot: "1000",
    limit: "",
  };
  expect(mixDeskForm(METRIC).parse(mix)).toMatchObject({ ratio: [2, 1], reducer: 0.1, limit: null });
  expect(
    errorsOf(mixDeskForm(METRIC).safeParse({ ...mix, ratio: "", reducer: "101", film: "0", transfer: "no", pot: "-1", limit: "x" })),
  ).toEqual({
    ratio: "Type a ratio such as 2:1",
    reducer: "Between 0 % and 90 %",
    film: "Between 0.5 µm and 300 µm",
    transfer: '"no" is not a number',
    pot: "Between 50 ml and 20000 ml",
    limit: '"x" is not a number',
  });
});

test("gloss readings are typed several at once, kept as typed, and never below zero or beyond the scale", () => {
  const form = { role: "target", angle: "60", place: "edge" };
  expect(glossForm.parse({ ...form, readings: " 12,4  12.6 " })).toMatchObject({
    angle: 60,
    meter: "typed",
    readings: [
      { gloss_GU: 12.4, entered: "12,4" },
      { gloss_GU: 12.6, entered: "12.6" },
    ],
  });
  expect(errorsOf(glossForm.safeParse({ ...form, readings: "12 -3" }))).toEqual({ readings: "-3: gloss lies between 0 and 200 GU" });
  expect(errorsOf(glossForm.safeParse({ ...form, readings: "" }))).toEqual({ readings: "Type a reading" });
  expect(matteCheckForm.parse({ rules: "whole" })).toEqual({ rules: ["whole"] });
});

test("a card is read with its gloss at three angles; a matting share beyond the whole is told at its field", () => {
  const card = {
    name: "Half",
    mix: "50 : 50",
    matting: "50",
    reducer: "",
    orientation: "vertical",
    coats: "2",
    film: "",
    cure: "air",
    gloss20: "",
    gloss60: "34 34,6",
    gloss85: "60",
    colour: "open",
    glossVerdict: "open",
    texture: "open",
  };
  expect(cardForm(METRIC).parse(card).body).toMatchObject({
    mattingShare: 0.5,
    reducer: 0,
    dryFilm_m: null,
    gloss: [
      { angle: 60, gloss_GU: 34 },
      { angle: 60, gloss_GU: 34.6 },
      { angle: 85, gloss_GU: 60 },
    ],
  });
  expect(errorsOf(cardForm(METRIC).safeParse({ ...card, name: " ", matting: "101", gloss60: "bright", coats: "0" }))).toEqual({
    name: "Give the card a name",
    matting: "Between 0 % and 100 %",
    gloss60: '"bright" is not a number',
    coats: "At least 1",
  });
});

test("a can: its day, what is left, how it is kept", () => {
  const can = { productId: "p", size: "1000", left: "340", opened: "2026-04-23", keeping: "shelf" };
  const made = canForm(METRIC).parse(can);
  expect(made).toMatchObject({ batch: "", keeping: "shelf" });
  expect(made.left).toBeCloseTo(340e-6, 12);
  expect(new Date(made.opened!).getDate()).toBe(23);
  expect(canForm(METRIC).parse({ ...can, opened: "" }).opened).toBeNull();
  expect(canForm(IMPERIAL).parse({ ...can, left: "12" }).left).toBeCloseTo(12 * 29.5735e-6, 9);
  expect(errorsOf(canForm(METRIC).safeParse({ ...can, left: "-1", opened: "yesterday" }))).toEqual({
    left: "Between 0 ml and 30000 ml",
    opened: "Type the day as year-month-day",
  });
});

test("settings of a coat to be sprayed: limits of the model at each field, in the unit typed", () => {
  const typed = {
    fluid: "230",
    pressure: "1,93",
    distance: "175",
    speed: "0.34",
    overlap: "50",
    air: "22",
    material: "",
    reducer: "5",
    flash: "10",
  };
  expect(flowForm(METRIC).parse(typed)).toMatchObject({ material: null, flash: 600 });
  expect(flowForm(METRIC).parse(typed).distance).toBeCloseTo(0.175, 12);
  expect(flowForm(IMPERIAL).parse({ ...typed, pressure: "28", distance: "6.9", speed: "13.4", air: "72", fluid: "7.8" }).air).toBeCloseTo(
    295.372,
    3,
  );
  expect(errorsOf(flowForm(METRIC).safeParse({ ...typed, fluid: "5", distance: "900", overlap: "95", air: "60", flash: "-1" }))).toEqual({
    fluid: "Between 60 ml/min and 900 ml/min",
    distance: "Between 80 mm and 350 mm",
    overlap: "Between 0 % and 90 %",
    air: "Between 5 °C and 40 °C",
    flash: "Between 0 min and 120 min",
  });
});

test("a part of a mix and its own figures; a name sent twice is a list", () => {
  expect(partForm(METRIC).parse({ name: "Hardener T", kind: "hardener", speed: "", density: "1,05", keepsDays: "60" })).toMatchObject({
    density_kg_m3: 1050,
    speed: null,
    keepsDays: 60,
    window: null,
  });
  expect(errorsOf(partForm(METRIC).safeParse({ name: "", kind: "hardener", density: "10", voc: "x" }))).toEqual({
    name: "Give the product a name",
    density: "Between 0.5 g/ml and 3 g/ml",
    voc: '"x" is not a number',
  });
  const form = new FormData();
  form.append("rules", "whole");
  form.append("rules", "below");
  form.append("intent", "check");
  expect(fieldsOf(form)).toEqual({ rules: ["whole", "below"], intent: "check" });
});

test("nibs marked by hand alone have no size: none is made up, none is called measured", () => {
  const base = { count: "3", x_m: "0.5", y_m: "0.4", trace: "", simulated: "no" };
  expect(nibCountForm.parse({ ...base, largest_m: "" }).largest_m).toBeNull();
  expect(nibCountForm.parse({ ...base, largest_m: "0.0004" }).largest_m).toBeCloseTo(4e-4, 12);
  expect(nibCountForm.safeParse({ ...base, largest_m: "0" }).success).toBe(false);
});
