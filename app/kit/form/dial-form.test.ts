import { METRIC } from "#core/kernel/units/quantities";
import { askedOf } from "#core/coat/testing/asked-of";
import { asPlannedFound, equalFrom } from "#core/coat/equal-finish";
import type { DialView } from "#server/views/dial-view";
import { foundTexts, readDial, readFound } from "./dial-form";

const from = equalFrom(askedOf())!;
const dial: DialView = {
  from,
  cup: { cup: "din4", efflux_s: 18, temperature_K: 293.15 },
  nozzle_m: 1.3e-3,
  guns: [{ id: "other", name: "Gun 2", settings: { ...from.settings, turns: 3 } }],
  calibration: null,
  version: "v",
};
const start = foundTexts(dial, METRIC);
const read = (o: Partial<typeof start>, of = dial) => readFound({ ...start, ...o }, METRIC, of);

test("what nobody touched is as it was planned, with nothing rounded", () => {
  expect(read({})).toEqual({ success: true, data: asPlannedFound(from) });
  expect(readFound({ pressure: "1.5" }, METRIC, dial)).toMatchObject({
    success: true,
    data: { pressure_Pa: 1.5e5, air_K: from.conditions.air_K },
  });
});

test("a gauge at the hose is read there, and worked with at the gun", () => {
  const hose = { ...dial, from: { ...from, settings: { ...from.settings, pressureAt: "hose" as const } } };
  const texts = foundTexts(hose, METRIC);
  expect(Number(texts.pressure)).toBeCloseTo(from.settings.pressure_Pa / 0.52 / 1e5, 1);
  const at = readFound({ ...texts, pressure: "3" }, METRIC, hose);
  expect(at).toMatchObject({ success: true, data: { pressure_Pa: expect.closeTo(1.56e5, -1) as number } });
  expect(readFound({ ...texts, pressure: "0.4" }, METRIC, hose)).toMatchObject({
    success: false,
    errors: { pressure: ["No gun is worked at that pressure"] },
  });
});

test("a longer cup time is a thicker mix; another gun brings its own nozzle", () => {
  const thicker = read({ cup: "22" });
  expect(thicker.success && thicker.data.thicker).toBeGreaterThan(1.25);
  expect(read({ cup: "22" }, { ...dial, cup: null })).toMatchObject({ data: { thicker: 1 } });
  expect(read({ nozzle: "1.4" })).toMatchObject({ data: { bore: expect.closeTo(1.4 / 1.3, 9) as number, gun: null } });
  expect(read({ nozzle: "1.4", gun: "other" })).toMatchObject({ data: { bore: 1, gun: { turns: 3 } } });
  expect(readDial({ ...start, by: "needle" }, METRIC, dial)).toMatchObject({ data: { by: "needle" } });
});

test.each(["pressure", "air", "cup", "nozzle"] as const)("what is no figure, or none of a gun, is said at its field: %s", (name) => {
  for (const text of ["", "none", "-3", "9999", "NaN"]) {
    const answer = read({ [name]: text });
    expect(answer.success ? name : Object.keys(answer.errors)).toEqual([name]);
  }
});
