import { panelShape } from "#core/kernel/geometry/shapes";
import { FILE_LIMITS, type ReadOptions, previewReadings, readReadings, writeReadings } from "#server/interchange/readings-csv";

const { outline } = panelShape("bonnet", { width_m: 1.4, height_m: 1.2 });
const spots = ["1", "2", "3"].map((name, i) => ({ name, at: [0.3 + 0.3 * i, 0.5] as const }));
const options = (over: Partial<ReadOptions> = {}): ReadOptions => ({
  roles: ["spot", "film"],
  phase: "after",
  filmUnit: "µm",
  lengthUnit: "mm",
  outline,
  spots,
  ...over,
});
const problemsOf = (text: string, over: Partial<ReadOptions> = {}) => {
  const file = readReadings(text, options(over));
  if (file.ok) throw new Error("it was accepted");
  return file.problems;
};

describe("a first look", () => {
  test("columns are guessed from their names, with a byte-order mark and Windows line ends", () => {
    const look = previewReadings("\uFEFFSpot;x mm;y mm;Film 1;Film 2;Remark\r\n1;100;200;131;129,5;ok\r\n");
    expect(look).toEqual({
      ok: true,
      value: {
        columns: ["Spot", "x mm", "y mm", "Film 1", "Film 2", "Remark"],
        rows: [["1", "100", "200", "131", "129,5", "ok"]],
        rowCount: 1,
        roles: ["spot", "x", "y", "film", "film", "ignore"],
      },
    });
  });
  test("numbers without a heading are film readings", () => {
    const look = previewReadings("131\n129\n");
    expect(look.ok && [look.value.roles, look.value.rowCount]).toEqual([["film"], 2]);
  });
  test.each([
    ["", "The file is empty"],
    ["spot,film\n", "There is a heading but no row below it"],
    ["a\0b", "This is not a text file"],
    ['spot,film\n1,"131\n', "A quotation mark is not closed"],
    [`film\n${"1\n".repeat(FILE_LIMITS.rows + 1)}`, "More than 10000 rows: split the file"],
    ["x".repeat(FILE_LIMITS.characters + 1), "The file is larger than 4 million characters"],
  ])("%#: refused with its reason", (text, reason) => {
    const look = previewReadings(text);
    expect(look.ok).toBe(false);
    expect(!look.ok && look.problems[0]!.reason).toBe(reason);
  });
});

describe("the whole file or nothing, with line and reason", () => {
  test("text in a number", () => {
    expect(problemsOf("spot,film\n1,131\n2,thick\n3,128")).toEqual([{ line: 3, column: "film", reason: '"thick" is not a number' }]);
  });
  test("a negative film, one beyond any gauge, an empty row's missing reading", () => {
    expect(problemsOf("spot,film\n1,-4\n2,9000\n3,")).toEqual([
      { line: 2, column: "film", reason: 'Film cannot be below zero ("-4")' },
      { line: 3, column: "film", reason: '"9000" µm is outside any gauge here (above 5 mm); is the unit right?' },
      { line: 4, column: null, reason: "No reading in this row" },
    ]);
  });
  test("a spot the panel does not have, a row too long, a place off the panel, half a place", () => {
    expect(problemsOf("spot,film\n9,131")[0]).toMatchObject({ line: 2, reason: 'The panel has no spot "9"; give x and y' });
    expect(problemsOf("spot,film\n1,131,7")[0]).toMatchObject({ line: 2, reason: "3 cells in a table of 2 columns" });
    const placed = { roles: ["x", "y", "film"] as const };
    expect(problemsOf("x,y,film\n100,9999,131", placed)[0]).toMatchObject({ line: 2, reason: "The place lies outside the panel" });
    expect(problemsOf("x,y,film\n100,200,131", { roles: ["x", "ignore", "film"] })[0]!.reason).toContain("both x and y");
  });
  test("a wrong column matched to film names its first bad line", () => {
    expect(problemsOf("spot,remark\n1,good", { roles: ["spot", "film"] })[0]).toEqual({
      line: 2,
      column: "remark",
      reason: '"good" is not a number',
    });
    expect(problemsOf("spot,film\n1,131", { roles: ["spot", "ignore"] })[0]!.reason).toBe("No column is matched to film readings");
    expect(problemsOf("spot,film\n1,131", { roles: ["film"] })[0]!.reason).toBe("The file has 2 columns, 1 were matched");
  });
  test("a known spot's name at another place is not taken for that spot", () => {
    const roles = ["spot", "x", "y", "film"] as const;
    expect(problemsOf("spot,x,y,film\n1,900,900,131", { roles })[0]!.reason).toBe(
      'Spot "1" lies elsewhere on this panel; give it another name',
    );
    expect(readReadings("spot,x,y,film\n1,310,505,131", options({ roles })).ok).toBe(true);
  });
  test("a phase nobody knows, more rows than spots", () => {
    expect(problemsOf("phase,spot,film\nlater,1,131", { roles: ["phase", "spot", "film"] })[0]!.reason).toBe(
      '"later" is not before, after or recheck',
    );
    expect(problemsOf("131\n132\n133\n134", { roles: ["film"] })[0]).toMatchObject({
      line: 4,
      reason: "More rows than the panel has spots",
    });
  });
  test("many problems: the first twelve are told, all are counted", () => {
    const file = readReadings(`spot,film\n${"1,x\n".repeat(40)}`, options());
    expect(!file.ok && [file.problems.length, file.problemCount]).toEqual([12, 40]);
  });
});

describe("a good file", () => {
  test("decimal comma in a semicolon file, mil, phases and places", () => {
    const file = readReadings(
      "x;y;phase;film\n300;500;before;3,5\n300;500;after;5,9\n",
      options({ roles: ["x", "y", "phase", "film"], filmUnit: "mil" }),
    );
    expect(file.ok && file.value.map((s) => [s.spot, s.phase, s.readings[0]!.entered, s.readings[0]!.unit])).toEqual([
      ["1", "before", "3,5", "mil"],
      ["1", "after", "5,9", "mil"],
    ]);
    expect(file.ok && file.value[0]!.readings[0]!.thickness_m).toBeCloseTo(3.5 * 25.4e-6, 12);
  });
  test("10,000 rows on the panel's spots are read, grouped by spot", () => {
    const rows = Array.from({ length: 10_000 }, (_, i) => `${(i % 3) + 1},${120 + (i % 7)}`).join("\n");
    const file = readReadings(`spot,film\n${rows}`, options());
    expect(file.ok && file.value.map((s) => s.readings.length)).toEqual([3334, 3333, 3333]);
  });
  test("10,000 different places are no panel", () => {
    const rows = Array.from({ length: 10_000 }, (_, i) => `${100 + (i % 1000)},${100 + Math.floor(i / 1000) * 50},130`).join("\n");
    expect(problemsOf(`x,y,film\n${rows}`, { roles: ["x", "y", "film"] })[0]!.reason).toContain("More than 200 different spots");
  });
  test("what is written can be read again", () => {
    const text = writeReadings([
      {
        spot: "1",
        x_m: 0.3,
        y_m: 0.5,
        phase: "after",
        entered: "5,1",
        unit: "mil",
        film_m: 129.54e-6,
        simulated: false,
        at: "2026-05-06T08:00:00Z",
      },
    ]);
    const look = previewReadings(text);
    expect(look.ok && look.value.roles.slice(0, 5)).toEqual(["spot", "x", "y", "phase", "film"]);
    const file = readReadings(text, options({ roles: ["spot", "x", "y", "phase", "film", "ignore", "ignore", "ignore", "ignore"] }));
    expect(file.ok && file.value[0]!.readings[0]!.thickness_m).toBeCloseTo(129.54e-6, 9);
  });
});

describe("units of a file", () => {
  const row = { spot: "1", x_m: 0.3, y_m: 0.5, phase: "after", entered: "5.1", unit: "mil", film_m: 129.54e-6, simulated: false, at: "" };

  test("the heading's unit goes before the screen's: our own export comes back in a shop of mils and inches (once refused)", () => {
    const text = writeReadings([row]);
    const look = previewReadings(text);
    if (!look.ok) throw new Error("refused");
    expect(look.value.roles).toEqual(["spot", "x", "y", "phase", "film", "ignore", "ignore", "ignore", "ignore"]);
    const file = readReadings(text, options({ roles: look.value.roles, filmUnit: "mil", lengthUnit: "in" }));
    expect(file.ok && file.value).toEqual([
      {
        spot: "1",
        at: [0.3, 0.5],
        phase: "after",
        readings: [{ thickness_m: expect.closeTo(129.54e-6, 12) as number, entered: "129.54", unit: "µm" }],
      },
    ]);
  });

  test.each([
    ["film (mils)", "5.1", 129.54e-6],
    ["DFT µm", "131", 131e-6],
    ["Thickness [um]", "131", 131e-6],
    ["film", "5.1", 129.54e-6],
  ])("%s: %s", (heading, typed, film_m) => {
    const file = readReadings(`spot,${heading}\n1,${typed}\n`, options({ filmUnit: "mil" }));
    expect(file.ok && file.value[0]!.readings[0]!.thickness_m).toBeCloseTo(film_m, 12);
  });

  test("a cell's own unit goes before both", () => {
    const file = readReadings("spot,film µm\n1,5.1 mil\n", options());
    expect(file.ok && file.value[0]!.readings[0]).toMatchObject({ thickness_m: expect.closeTo(129.54e-6, 12) as number, unit: "mil" });
  });
});
