import Papa from "papaparse";

/** What a spreadsheet takes for the start of a formula (OWASP, CSV injection: = + - @, tab, carriage return). */
const FORMULA = /^[=+\-@\t\r]/;
/** A number of its own is no formula, whatever its sign. */
const NUMBER = /^[+-]?\d+([.,]\d+)?(e[+-]?\d+)?$/i;

/** A cell as a spreadsheet may open it: text that would start a formula gets an apostrophe before it, which {@link fromCell} takes away again. */
export const toCell = (text: string): string => (FORMULA.test(text) && !NUMBER.test(text) ? `'${text}` : text);

/** A cell as it was before {@link toCell}. */
export const fromCell = (cell: string): string => (/^'[=+\-@\t\r]/.test(cell) ? cell.slice(1) : cell);

type Cell = string | number;

/** A table as CSV, safe to open in a spreadsheet: figures as they are, text by {@link toCell}. */
export const writeCsv = (fields: readonly string[], rows: readonly (readonly Cell[])[]): string =>
  Papa.unparse({ fields: [...fields], data: rows.map((r) => r.map((c) => (typeof c === "string" ? toCell(c) : c))) }, { newline: "\n" });
