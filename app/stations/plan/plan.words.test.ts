import { METRIC } from "#core/kernel/units/quantities";
import { basisWords, spareWords } from "./plan.words";

const um = (x: number) => x * 1e-6;
const spare = (clear_um: number, u_um: number, matte = false) =>
  spareWords({ clear_m: um(clear_um), u_m: um(u_um) }, { matte, floor_m: um(35), units: METRIC });

test("what is to spare is said as surely as it is known: surely, by forecast alone, none", () => {
  expect(spare(93, 5)).toBe(", 48 µm of it surely to spare for sanding.");
  expect(spare(54, 16)).toBe(": 19 µm over the minimum if it comes out so, and not sure before it is read.");
  expect(spare(30, 2)).toBe(": nothing to spare for sanding.");
  expect(spare(93, 5, true)).toBe(". What is sprayed stays as it is.");
  expect(spareWords(null, { matte: false, floor_m: um(35), units: METRIC })).toBe(".");
});

test("a promise says what it rests on: readings, the gun, or the sheet alone", () => {
  const there = { clear_m: um(60), u_m: um(4), how: "measured" as const };
  expect(basisWords({ known: true, there, allOn: true })).toBe("All coats are on: measured.");
  expect(basisWords({ known: true, there, allOn: false })).toBe("What is on is measured; the rest by the gun in the hand.");
  expect(basisWords({ known: true, there: null, allOn: false })).toContain("predicted, not measured");
  expect(basisWords({ known: false, there, allOn: false })).toContain("By the sheet alone");
});
