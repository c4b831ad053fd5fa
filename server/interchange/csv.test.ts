import fc from "fast-check";
import Papa from "papaparse";
import { fromCell, toCell, writeCsv } from "./csv";

const risky = fc.oneof(
  fc.string(),
  fc.tuple(fc.constantFrom("=", "+", "-", "@", "\t", "\r", "'="), fc.string()).map(([a, b]) => a + b),
);

test("no text starts a formula in a spreadsheet, a figure stays a figure, and what was written is read again", () => {
  fc.assert(
    fc.property(risky, (text) => {
      const cell = toCell(text);
      expect(/^[=@\t\r]/.test(cell)).toBe(false);
      if (/^[+-]/.test(cell)) expect(Number.isFinite(Number(cell.replace(",", ".")))).toBe(true);
      if (!/^'[=+\-@\t\r]/.test(text)) expect(fromCell(cell)).toBe(text);
    }),
  );
  expect(["-12.5", "+1", "-1e3", "=1+1", "-1+cmd|' /C calc'!A0", "+1+1"].map(toCell)).toEqual([
    "-12.5",
    "+1",
    "-1e3",
    "'=1+1",
    "'-1+cmd|' /C calc'!A0",
    "'+1+1",
  ]);
});

test("a table is safe cell by cell, headings as they are", () => {
  const text = writeCsv(["name", "µm"], [['=HYPERLINK("x")', -3]]);
  expect(Papa.parse(text).data).toEqual([
    ["name", "µm"],
    [`'=HYPERLINK("x")`, "-3"],
  ]);
});
