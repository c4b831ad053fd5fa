import type { Database as WasmDatabase, ParamsObject, SqlJsStatic, SqlValue, Statement } from "sql.js";

let engine: SqlJsStatic | null = null;
/** Has to be called before a database is opened: the engine is a file that is fetched. */
export const useEngine = (loaded: SqlJsStatic): void => void (engine = loaded);

type Row = ParamsObject;
const bound = (given: readonly unknown[]): SqlValue[] =>
  (given.length === 1 && Array.isArray(given[0]) ? (given[0] as unknown[]) : given).map((v) =>
    typeof v === "boolean" ? Number(v) : v === undefined ? null : (v as SqlValue),
  );

/** A statement as the server's own driver has it. */
class Prepared {
  readonly #statement: Statement;
  readonly #of: WasmDatabase;
  /** Whether it answers with rows. */
  readonly reader: boolean;
  constructor(statement: Statement, of: WasmDatabase) {
    this.#statement = statement;
    this.#of = of;
    this.reader = statement.getColumnNames().length > 0;
  }
  all(...given: unknown[]): Row[] {
    this.#statement.bind(bound(given));
    const rows: Row[] = [];
    try {
      while (this.#statement.step()) rows.push(this.#statement.getAsObject());
    } finally {
      this.#statement.reset();
    }
    return rows;
  }
  get(...given: unknown[]): Row | undefined {
    return this.all(...given)[0];
  }
  *iterate(...given: unknown[]): IterableIterator<Row> {
    yield* this.all(...given);
  }
  run(...given: unknown[]): { changes: number; lastInsertRowid: number } {
    this.#statement.run(bound(given));
    this.#statement.reset();
    const changes = this.#of.getRowsModified();
    return { changes, lastInsertRowid: 0 };
  }
}

/** SQLite in memory, with as much of the server's driver as the program asks of it. */
export default class Database {
  readonly #inner: WasmDatabase;
  constructor(file: string) {
    if (file !== ":memory:") throw new RangeError("a device keeps its rows elsewhere, not in a file");
    if (!engine) throw new Error("the engine is not there yet");
    this.#inner = new engine.Database();
  }
  prepare(sql: string): Prepared {
    return new Prepared(this.#inner.prepare(sql), this.#inner);
  }
  pragma(what: string): void {
    this.#inner.run(`pragma ${what}`);
  }
  exec(sql: string): void {
    this.#inner.run(sql);
  }
  close(): void {
    this.#inner.close();
  }
}
