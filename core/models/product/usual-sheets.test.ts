import { sheetRefusals } from "./sheet";
import { anySheet } from "./sheet-schema";
import { USUAL_NAMES } from "./usual-names";
import { USUAL_SHEETS, USUAL_SHEET_IDS } from "./usual-sheets";

test.each(USUAL_SHEET_IDS)("%s: every sheet may be kept as it is, is marked as usual, and comes with what it is mixed with", (id) => {
  const { sheets } = USUAL_SHEETS[id];
  const names = sheets.map((s) => s.name);
  for (const sheet of sheets) {
    const read = anySheet.parse(sheet);
    expect(sheetRefusals(read)).toEqual([]);
    expect(read.usual).toBe(true);
    if ("goesWith" in read)
      for (const name of [...read.goesWith, ...(read.blendWith ? [read.blendWith] : [])]) expect(names).toContain(name);
  }
  expect(USUAL_NAMES[id]).not.toBe("");
});
