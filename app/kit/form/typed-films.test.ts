import { IMPERIAL, METRIC } from "#core/kernel/units/quantities";
import { neighbourForm } from "~/stations/plan/neighbour.form";
import { errorsByField } from "./fields";
import { outsideGauge, readFilms } from "./film-readings";

const thick = (text: string, units = METRIC) => readFilms(text, units).readings.map((r) => Math.round(r.thickness_m * 1e7) / 10);

test("several readings with spaces, comma or point, each in its own unit where it names one", () => {
  expect(thick("131 128 126")).toEqual([131, 128, 126]);
  expect(thick("131,5  128.2")).toEqual([131.5, 128.2]);
  expect(thick("5,1 mil 131")).toEqual([129.5, 131]);
  expect(thick("5.1 5.2", IMPERIAL)).toEqual([129.5, 132.1]);
});

test("what was typed stays beside its value, as it was typed", () => {
  expect(readFilms("131 5,1 mil", METRIC).readings).toMatchObject([
    { entered: "131", unit: "µm" },
    { entered: "5,1", unit: "mil" },
  ]);
});

test("the first thing that is wrong is told, in the unit of the screen, and nothing is read for it", () => {
  expect(readFilms("131 wet", METRIC).problem).toContain("wet");
  expect(readFilms("131 6000", METRIC).problem).toBe("Film lies between 0 and 5 mm");
  expect(readFilms("300", IMPERIAL).problem).toBe("Film lies between 0 and 197 mil");
  expect(readFilms("-3", METRIC).problem).toBe("Film lies between 0 and 5 mm");
  expect(outsideGauge(0, METRIC)).toBeNull();
  expect(outsideGauge(5e-3, METRIC)).toBeNull();
  expect(outsideGauge(Number.NaN, METRIC)).not.toBeNull();
});

test("a limit of its own takes the gauge's place", () => {
  const some = (si: number) => (si < 100e-6 ? null : "too thick for a comb");
  expect(readFilms("52", METRIC, some).problem).toBeNull();
  expect(readFilms("152", METRIC, some).problem).toBe("too thick for a comb");
});

test("the panel beside wants its name; whatever was read of it may be left away, and what is wrong is told at its field", () => {
  const form = neighbourForm(METRIC);
  expect(form.parse({ name: " Rear door ", films: "", rating: "", gloss: "" })).toEqual({
    name: "Rear door",
    readings: [],
    rating: null,
    gloss60_GU: null,
  });
  expect(form.parse({ name: "Wing", films: "110 112", rating: "2,5", gloss: "88" })).toMatchObject({ rating: 2.5, gloss60_GU: 88 });
  const wrong = (fields: object) => {
    const r = form.safeParse({ name: "Wing", films: "", rating: "", gloss: "", ...fields });
    return r.success ? [] : Object.keys(errorsByField(r.error));
  };
  expect(wrong({ name: "  " })).toEqual(["name"]);
  expect(wrong({ films: "thin" })).toEqual(["films"]);
  expect(wrong({ films: Array.from({ length: 21 }, () => "110").join(" ") })).toEqual(["films"]);
  expect(wrong({ rating: "6" })).toEqual(["rating"]);
  expect(wrong({ gloss: "300" })).toEqual(["gloss"]);
});
