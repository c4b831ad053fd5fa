import Papa from "papaparse";
import { parseQuantity } from "#core/kernel/units/parse";
import type { UnitOf } from "#core/kernel/units/quantities";
import { type Point, type Polygon, boundingBox } from "#core/kernel/geometry/geometry";
import { PHASES, type Phase } from "#core/record/kinds";
import { fromCell, writeCsv } from "./csv";

export const ROLES = ["spot", "x", "y", "phase", "film", "ignore"] as const;
export type ColumnRole = (typeof ROLES)[number];

export interface Problem {
  /** Line in the file as an editor counts it, from 1. */
  line: number;
  column: string | null;
  reason: string;
}
export interface FilePreview {
  columns: string[];
  rows: string[][];
  rowCount: number;
  roles: ColumnRole[];
  /** Unit of the film: the heading's, or of the last file with this heading, where the shop has had one. */
  filmUnit?: UnitOf<"film">;
}
export interface ImportedSpot {
  spot: string;
  at: Point;
  phase: Phase;
  readings: { thickness_m: number; entered: string; unit: string }[];
}
export type Outcome<T> = { ok: true; value: T } | { ok: false; problems: Problem[]; problemCount: number };

/** Limits of one file, so that a mistake in an export does not become a panel. */
export const FILE_LIMITS = { characters: 4_000_000, rows: 10_000, columns: 200, spots: 200, problemsShown: 12, spotMoved_m: 0.03 } as const;

const WORDS: Record<Exclude<ColumnRole, "ignore">, RegExp> = {
  spot: /^(spot|point|no\.?|nr\.?|place|id|#)$/i,
  x: /^x\b/i,
  y: /^y\b/i,
  phase: /^(phase|when|stage)$/i,
  film: /(film|thick|reading|value|dft|total|µm|um|mil)/i,
};

const UNIT_WORDS: Record<"film" | "length", readonly [unit: string, words: RegExp][]> = {
  film: [
    ["µm", /(µm|μm|\bum\b|microns?)/i],
    ["mil", /\bmils?\b/i],
  ],
  length: [
    ["mm", /\bmm\b/i],
    ["in", /(\bin\b|\binch(es)?\b)/i],
  ],
};
/** The unit that a heading names; null where it names none, or several. */
export function unitInHeading(heading: string, of: "film" | "length"): string | null {
  const named = UNIT_WORDS[of].filter(([, words]) => words.test(heading));
  return named.length === 1 ? named[0]![0] : null;
}

const refuse = (problems: Problem[], problemCount = problems.length): { ok: false; problems: Problem[]; problemCount: number } => ({
  ok: false,
  problems: problems.slice(0, FILE_LIMITS.problemsShown),
  problemCount,
});

interface Table {
  columns: string[];
  rows: { line: number; cells: string[] }[];
}

function readTable(text: string): Outcome<Table> {
  if (text.length > FILE_LIMITS.characters)
    return refuse([{ line: 1, column: null, reason: "The file is larger than 4 million characters" }]);
  const clean = text
    .replace(/^\uFEFF/, "")
    .replace(/\r\n?/g, "\n")
    .trimEnd();
  if (clean.includes("\0")) return refuse([{ line: 1, column: null, reason: "This is not a text file" }]);
  if (clean.trim() === "") return refuse([{ line: 1, column: null, reason: "The file is empty" }]);
  const firstLine = clean.slice(0, (clean.indexOf("\n") + 1 || clean.length + 1) - 1);
  // A decimal comma makes the comma a bad guess for a separator: prefer ; or tab whenever the first line has one.
  const delimiter = [";", "\t", ","].find((d) => firstLine.includes(d)) ?? ",";
  const wide = lineWithMore(clean, delimiter, FILE_LIMITS.columns - 1);
  if (wide !== null)
    return refuse([{ line: wide, column: null, reason: `More than ${FILE_LIMITS.columns} columns: this is no list of readings` }]);
  const parsed = Papa.parse<string[]>(clean, { delimiter, skipEmptyLines: false });
  const quoteError = parsed.errors.find((e) => e.type === "Quotes");
  if (quoteError) return refuse([{ line: (quoteError.row ?? 0) + 1, column: null, reason: "A quotation mark is not closed" }]);
  const lines = parsed.data
    .map((cells, i) => ({ line: i + 1, cells: cells.map((c) => c.trim()) }))
    .filter((r) => r.cells.some((c) => c !== ""));
  const [first] = lines;
  if (!first) return refuse([{ line: 1, column: null, reason: "There is no row with anything in it" }]);
  const hasHeader = first.cells.some((c) => c !== "" && !/^[+-]?[\d.,]+$/.test(c));
  const columns = hasHeader ? first.cells.map((c, i) => c || `column ${i + 1}`) : first.cells.map((_, i) => `column ${i + 1}`);
  const rows = hasHeader ? lines.slice(1) : lines;
  if (rows.length === 0) return refuse([{ line: 1, column: null, reason: "There is a heading but no row below it" }]);
  if (rows.length > FILE_LIMITS.rows)
    return refuse([{ line: rows[FILE_LIMITS.rows]!.line, column: null, reason: `More than ${FILE_LIMITS.rows} rows: split the file` }]);
  return { ok: true, value: { columns, rows } };
}

/** The first line, from 1, that has more than so many of a character; null when none has. Looked for before a line becomes cells: there may be millions. */
function lineWithMore(text: string, character: string, most: number): number | null {
  let line = 1;
  let count = 0;
  for (const c of text) {
    if (c === "\n") {
      line++;
      count = 0;
    } else if (c === character && ++count > most) return line;
  }
  return null;
}

/** First look at a file: its columns, some rows, and a guess at what each column is. Nothing is stored. */
export function previewReadings(text: string): Outcome<FilePreview> {
  const table = readTable(text);
  if (!table.ok) return table;
  const { columns, rows } = table.value;
  const taken = new Set<ColumnRole>();
  const roles = columns.map((name): ColumnRole => {
    const role = (Object.keys(WORDS) as (keyof typeof WORDS)[]).find((r) => WORDS[r].test(name) && (r === "film" || !taken.has(r)));
    if (role) taken.add(role);
    return role ?? (/^column \d+$/.test(name) ? "film" : "ignore");
  });
  const named = roles.flatMap((r, i) => (r === "film" ? (unitInHeading(columns[i]!, "film") ?? []) : []));
  return {
    ok: true,
    value: {
      columns,
      rows: rows.slice(0, 6).map((r) => r.cells),
      rowCount: rows.length,
      roles,
      ...(named.length > 0 && new Set(named).size === 1 ? { filmUnit: named[0] as UnitOf<"film"> } : {}),
    },
  };
}

export interface ReadOptions {
  roles: readonly ColumnRole[];
  phase: Phase;
  /** Units of columns whose heading names none. */
  filmUnit: UnitOf<"film">;
  lengthUnit: UnitOf<"length">;
  outline: Polygon;
  /** Spots the panel has already, in walking order: rows without a place go to them by name or by order. */
  spots: readonly { name: string; at: Point }[];
}

const phaseOf = (text: string): Phase | undefined =>
  (Object.keys(PHASES) as Phase[]).find((p) => p === text.toLowerCase() || PHASES[p] === text.toLowerCase());

/** Reads the whole file with the matched columns. One bad cell refuses the file; every problem names its line. */
export function readReadings(text: string, options: ReadOptions): Outcome<ImportedSpot[]> {
  const table = readTable(text);
  if (!table.ok) return table;
  const { columns, rows } = table.value;
  const { roles } = options;
  if (roles.length !== columns.length)
    return refuse([{ line: 1, column: null, reason: `The file has ${columns.length} columns, ${roles.length} were matched` }]);
  if (!roles.includes("film")) return refuse([{ line: 1, column: null, reason: "No column is matched to film readings" }]);
  if (roles.includes("x") !== roles.includes("y"))
    return refuse([{ line: 1, column: null, reason: "A place needs both x and y; only one is matched" }]);
  const problems: Problem[] = [];
  const spots = new Map<string, ImportedSpot>();
  rows.forEach((row, index) => readRow(row, index, columns, options, { problems, spots }));
  if (new Set([...spots.values()].map((s) => s.spot)).size > FILE_LIMITS.spots)
    problems.push({
      line: 1,
      column: null,
      reason: `More than ${FILE_LIMITS.spots} different spots for one panel: is the spot column right?`,
    });
  return problems.length ? refuse(problems, problems.length) : { ok: true, value: [...spots.values()] };
}

function readRow(
  row: Table["rows"][number],
  index: number,
  columns: readonly string[],
  { roles, phase: usualPhase, filmUnit, lengthUnit, outline, spots: known }: ReadOptions,
  into: { problems: Problem[]; spots: Map<string, ImportedSpot> },
): void {
  const { line, cells } = row;
  const problem = (column: string | null, reason: string) => void into.problems.push({ line, column, reason });
  if (cells.length > columns.length) return problem(null, `${cells.length} cells in a table of ${columns.length} columns`);
  const cell = (role: ColumnRole) => cells[roles.indexOf(role)] ?? "";
  const phaseText = roles.includes("phase") ? cell("phase") : "";
  const phase = phaseText === "" ? usualPhase : phaseOf(phaseText);
  if (!phase) return problem(columns[roles.indexOf("phase")]!, `"${phaseText}" is not before, after or recheck`);
  const named = roles.includes("spot") ? fromCell(cell("spot")) : "";
  if (named.length > 12) return problem(columns[roles.indexOf("spot")]!, `A spot name has at most 12 characters`);
  let at: Point | undefined;
  let name = named;
  if (roles.includes("x")) {
    const [x, y] = (["x", "y"] as const).map((r) =>
      parseQuantity("length", cell(r), unitInHeading(columns[roles.indexOf(r)]!, "length") ?? lengthUnit),
    );
    if (!x!.ok) return problem(columns[roles.indexOf("x")]!, x!.message);
    if (!y!.ok) return problem(columns[roles.indexOf("y")]!, y!.message);
    at = [x!.si, y!.si];
    const box = boundingBox(outline);
    if (at[0] < box.x0 - 0.01 || at[0] > box.x1 + 0.01 || at[1] < box.y0 - 0.01 || at[1] > box.y1 + 0.01)
      return problem(columns[roles.indexOf("x")]!, `The place lies outside the panel`);
    const same = known.find((s) => s.name === named);
    if (same && Math.hypot(same.at[0] - at[0], same.at[1] - at[1]) > FILE_LIMITS.spotMoved_m)
      return problem(columns[roles.indexOf("spot")]!, `Spot "${named}" lies elsewhere on this panel; give it another name`);
    name ||= known.find((s) => Math.hypot(s.at[0] - at![0], s.at[1] - at![1]) < 0.01)?.name ?? `r${index + 1}`;
  } else {
    const spot = named ? known.find((s) => s.name === named) : known[index];
    if (!spot)
      return problem(
        named ? columns[roles.indexOf("spot")]! : null,
        named ? `The panel has no spot "${named}"; give x and y` : "More rows than the panel has spots",
      );
    ({ name, at } = spot);
  }
  const readings = roles.flatMap((role, i) => {
    const typed = cells[i] ?? "";
    if (role !== "film" || typed === "") return [];
    const parsed = parseQuantity("film", typed, unitInHeading(columns[i]!, "film") ?? filmUnit);
    if (!parsed.ok) return (void problem(columns[i]!, parsed.message), []);
    if (parsed.si < 0) return (void problem(columns[i]!, `Film cannot be below zero ("${typed}")`), []);
    if (parsed.si > 5e-3)
      return (void problem(columns[i]!, `"${typed}" ${parsed.unit} is outside any gauge here (above 5 mm); is the unit right?`), []);
    return [{ thickness_m: parsed.si, entered: parsed.entered, unit: parsed.unit }];
  });
  if (readings.length === 0) {
    if (!into.problems.some((p) => p.line === line)) problem(null, "No reading in this row");
    return;
  }
  const key = `${phase} ${name}`;
  const spot = into.spots.get(key);
  if (spot) spot.readings.push(...readings);
  else into.spots.set(key, { spot: name, at, phase, readings });
}

/** Readings of a panel as CSV: one row a reading, as entered and in µm. */
export function writeReadings(
  rows: readonly {
    spot: string;
    x_m: number;
    y_m: number;
    phase: string;
    entered: string;
    unit: string;
    film_m: number;
    simulated: boolean;
    at: string;
  }[],
): string {
  return writeCsv(
    ["spot", "x mm", "y mm", "phase", "film µm", "entered", "unit", "simulated", "at"],
    rows.map((r) => [
      r.spot,
      Math.round(r.x_m * 1e4) / 10,
      Math.round(r.y_m * 1e4) / 10,
      r.phase,
      Math.round(r.film_m * 1e9) / 1e3,
      r.entered,
      r.unit,
      r.simulated ? "yes" : "no",
      r.at,
    ]),
  );
}
