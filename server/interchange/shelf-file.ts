import { readFileSync, statSync } from "node:fs";
import Papa from "papaparse";
import { z } from "zod";
import { type AnySheet, isCoat, sheetRefusals } from "#core/models/product/sheet";
import { anySheet } from "#core/models/product/sheet-schema";
import { fromSi } from "#core/kernel/units/convert";
import { parseQuantity } from "#core/kernel/units/parse";
import type { Quantity } from "#core/kernel/units/quantities";
import { fromCell, writeCsv } from "./csv";
import { beyondBounds } from "./json-bounds";
import type { Outcome, Problem } from "./readings-csv";

export const SHELF_FORMAT = "yakamoz-shelf";
const VERSION = 1;
const MOST = 1000;
const SHOWN = 12;

/** The shelf as one JSON file: every sheet whole, in SI. */
export function shelfToJson(sheets: readonly AnySheet[]): string {
  return JSON.stringify({ format: SHELF_FORMAT, version: VERSION, products: sheets }, null, 2);
}

const file = z.object({ format: z.literal(SHELF_FORMAT), version: z.literal(VERSION), products: z.array(z.unknown()).max(MOST) });

/** A shelf file on the disk, JSON or a table, of so many bytes at most. It takes long for a large one: in a thread of its own. */
export function readShelfFile({ path, most }: { path: string; most: number }): Outcome<AnySheet[]> {
  if (statSync(path).size > most) return refuse([{ line: 1, column: null, reason: `The file is over ${most / 1e6} MB` }]);
  const bytes = readFileSync(path);
  const beyond = beyondBounds(bytes);
  return beyond ? refuse([{ line: 1, column: null, reason: beyond }]) : readShelf(new TextDecoder().decode(bytes));
}

/** The same of its text. */
export const readShelf = (text: string): Outcome<AnySheet[]> => (/^\uFEFF?\s*[{[]/.test(text) ? shelfFromJson(text) : shelfFromCsv(text));

/** Reads a shelf file; one wrong product refuses the whole, with its number and reason. */
export function shelfFromJson(text: string): Outcome<AnySheet[]> {
  let json: unknown;
  try {
    json = JSON.parse(text.replace(/^\uFEFF/, ""));
  } catch {
    return refuse([{ line: 1, column: null, reason: "This is not JSON" }]);
  }
  const parsed = file.safeParse(json);
  if (Array.isArray((json as { products?: unknown } | null)?.products) && (json as { products: unknown[] }).products.length > MOST)
    return refuse([{ line: 1, column: "products", reason: `More than ${MOST} products` }]);
  if (!parsed.success)
    return refuse([{ line: 1, column: null, reason: `Wanted { "format": "${SHELF_FORMAT}", "version": ${VERSION}, "products": [...] }` }]);
  return check(parsed.data.products.map((raw, i) => ({ line: i + 1, raw })));
}

interface Column {
  key: string;
  heading: string;
  quantity?: Quantity;
  unit?: string;
}
/** The main figures as one row a product; what has no column here travels in the JSON file. */
const COLUMNS: readonly Column[] = [
  { key: "name", heading: "name" },
  { key: "kind", heading: "kind" },
  { key: "ratio", heading: "ratio" },
  { key: "speed", heading: "speed" },
  { key: "coats", heading: "coats", quantity: "count", unit: "" },
  { key: "volumeSolids", heading: "solids %", quantity: "share", unit: "%" },
  { key: "reducerMin", heading: "reducer min %", quantity: "share", unit: "%" },
  { key: "reducerMax", heading: "reducer max %", quantity: "share", unit: "%" },
  { key: "filmPerCoatMin_m", heading: "film min µm", quantity: "film", unit: "µm" },
  { key: "filmPerCoatMax_m", heading: "film max µm", quantity: "film", unit: "µm" },
  { key: "flashMin_s", heading: "flash min min", quantity: "duration", unit: "min" },
  { key: "flashMax_s", heading: "flash max min", quantity: "duration", unit: "min" },
  { key: "potLife_s", heading: "pot life min", quantity: "duration", unit: "min" },
  { key: "sandAfter_s", heading: "sand after min", quantity: "duration", unit: "min" },
  { key: "density_kg_m3", heading: "density g/ml", quantity: "density", unit: "g/ml" },
  { key: "voc_kg_m3", heading: "voc g/l", quantity: "concentration", unit: "g/l" },
  { key: "floor_m", heading: "floor µm", quantity: "film", unit: "µm" },
  { key: "keepsDays", heading: "keeps days", quantity: "count", unit: "" },
];

export function shelfToCsv(sheets: readonly AnySheet[]): string {
  const cell = (sheet: AnySheet, c: Column): string => {
    const value = (sheet as Record<string, unknown>)[c.key];
    if (value === null || value === undefined) return "";
    return c.quantity && typeof value === "number"
      ? String(Number(fromSi(c.quantity, value, c.unit!).toPrecision(9)))
      : typeof value === "string" || typeof value === "number"
        ? String(value)
        : "";
  };
  return writeCsv(
    COLUMNS.map((c) => c.heading),
    sheets.map((s) => COLUMNS.map((c) => cell(s, c))),
  );
}

/** Reads a shelf table by its headings, in any order; unknown headings refuse the file, empty cells stay unknown. */
export function shelfFromCsv(text: string): Outcome<AnySheet[]> {
  const { data, errors } = Papa.parse<string[]>(text.replace(/^\uFEFF/, ""), { skipEmptyLines: "greedy" });
  const broken = errors.find((e) => e.type === "Quotes");
  if (broken) return refuse([{ line: (broken.row ?? 0) + 1, column: null, reason: "A quotation mark is not closed" }]);
  const [head, ...body] = data;
  if (!head) return refuse([{ line: 1, column: null, reason: "The file is empty" }]);
  const columns = head.map((h) => COLUMNS.find((c) => c.heading === h.trim().toLowerCase().replace(/μ/g, "µ")));
  const unknown = head.filter((_, i) => !columns[i]);
  if (unknown.length)
    return refuse(
      unknown.map((h) => ({
        line: 1,
        column: h,
        reason: `"${h}" is not a column of the shelf; wanted ${COLUMNS.map((c) => c.heading).join(", ")}`,
      })),
    );
  if (body.length > MOST) return refuse([{ line: MOST + 2, column: null, reason: `More than ${MOST} products` }]);
  const problems: Problem[] = [];
  const rows = body.map((cells, r) => {
    const raw: Record<string, unknown> = {};
    if (cells.length > columns.length)
      problems.push({ line: r + 2, column: null, reason: `${cells.length} cells under ${columns.length} headings` });
    columns.forEach((c, i) => {
      const cell = fromCell(cells[i]?.trim() ?? "");
      if (!c || cell === "") return;
      if (!c.quantity) return void (raw[c.key] = cell);
      const parsed = parseQuantity(c.quantity, cell, c.unit!);
      if (parsed.ok) raw[c.key] = parsed.si;
      else problems.push({ line: r + 2, column: c.heading, reason: parsed.message });
    });
    raw.floor_m ??= null;
    return { line: r + 2, raw };
  });
  return problems.length ? refuse(problems) : check(rows);
}

function check(rows: readonly { line: number; raw: unknown }[]): Outcome<AnySheet[]> {
  const problems: Problem[] = [];
  const names = new Set<string>();
  const sheets = rows.flatMap(({ line, raw }) => {
    const say = (column: string | null, reason: string) => problems.push({ line, column, reason });
    const kind = typeof raw === "object" && raw !== null ? (raw as Record<string, unknown>).kind : undefined;
    const schema = anySheet.options.find((o) => (o.shape.kind.options as readonly unknown[]).includes(kind));
    if (!schema) {
      say("kind", `"${String(kind)}" is not a kind of product`);
      return [];
    }
    const parsed = schema.safeParse(raw);
    if (!parsed.success) {
      for (const issue of parsed.error.issues) say(columnOf(issue.path), issue.message);
      return [];
    }
    for (const c of sheetRefusals(parsed.data)) say(columnOf([c.field]), c.message);
    if (names.has(parsed.data.name)) say("name", `"${parsed.data.name}" stands here twice`);
    names.add(parsed.data.name);
    return [parsed.data];
  });
  if (rows.length === 0) problems.push({ line: 1, column: null, reason: "There is no product in the file" });
  return problems.length ? refuse(problems) : { ok: true, value: sheets };
}
const columnOf = (path: readonly PropertyKey[]) => COLUMNS.find((c) => c.key === path[0])?.heading ?? (path.map(String).join(".") || null);
const refuse = (problems: Problem[]): Outcome<never> => ({ ok: false, problems: problems.slice(0, SHOWN), problemCount: problems.length });

/** Products whose sheet has changed or is new; the same sheet again changes nothing. */
export function newSheets(
  known: readonly { id: string; sheet: AnySheet }[],
  read: readonly AnySheet[],
): { id: string | null; sheet: AnySheet }[] {
  const keyOf = (sheet: AnySheet) => `${isCoat(sheet) ? "coat" : "part"} ${sheet.name}`;
  const byKey = new Map([...known].reverse().map((k) => [keyOf(k.sheet), k]));
  return read.flatMap((sheet) => {
    const old = byKey.get(keyOf(sheet));
    return old && JSON.stringify(old.sheet) === JSON.stringify(sheet) ? [] : [{ id: old?.id ?? null, sheet }];
  });
}
