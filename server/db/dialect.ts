import type Database from "libsql";
import { CompiledQuery, type DatabaseConnection, type SqliteDatabase, SqliteDialect, SqliteDriver, type SqliteStatement } from "kysely";
import { LRUCache } from "lru-cache";
import { StorageFault, storageFaultKind } from "./storage-fault";

/**
 * SQLite as this program wants it: a transaction takes the write lock when it begins (a deferred one that later wants to write fails at once
 * when another process has written meanwhile, whatever the busy time-out), and an error of the machine comes out as a `StorageFault`.
 */
export class ShopDialect extends SqliteDialect {
  readonly #database: Database.Database;
  constructor(database: Database.Database) {
    super({ database });
    this.#database = database;
  }
  override createDriver() {
    return new ShopDriver({ database: preparedOnce(this.#database) });
  }
}

class ShopDriver extends SqliteDriver {
  #connection: DatabaseConnection | null = null;
  override async acquireConnection(): Promise<DatabaseConnection> {
    const inner = await super.acquireConnection();
    return (this.#connection ??= withFaults(inner));
  }
  override async beginTransaction(connection: DatabaseConnection): Promise<void> {
    await connection.executeQuery(CompiledQuery.raw("begin immediate"));
  }
  override async rollbackTransaction(connection: DatabaseConnection): Promise<void> {
    try {
      await super.rollbackTransaction(connection);
    } catch (error) {
      // A full disk has SQLite roll back by itself; the fault that did it is the one to tell.
      if (!(error instanceof Error && error.message.includes("no transaction is active"))) throw error;
    }
  }
}

function withFaults(inner: DatabaseConnection): DatabaseConnection {
  return {
    async executeQuery<R>(query: CompiledQuery) {
      try {
        return await inner.executeQuery<R>(query);
      } catch (error) {
        const kind = storageFaultKind(error);
        throw kind ? new StorageFault(kind, error) : error;
      }
    },
    streamQuery: (query, chunkSize) => inner.streamQuery(query, chunkSize),
  };
}

const STATEMENTS_MOST = 400;
/** What reads and writes rows; anything else may change the schema. */
const ROWS = /^\s*(select|insert|update|delete|with|begin|commit|rollback)\b/i;

/** The file with each statement prepared once: the same few hundred are asked over and over, and preparing one costs as much as a small answer. */
function preparedOnce(database: Database.Database): SqliteDatabase {
  const known = new LRUCache<string, SqliteStatement>({ max: STATEMENTS_MOST });
  return {
    close: () => {
      known.clear();
      database.close();
    },
    prepare: (sql) => {
      if (!ROWS.test(sql)) {
        known.clear();
        return database.prepare(sql);
      }
      const statement = known.get(sql) ?? database.prepare(sql);
      known.set(sql, statement);
      return statement;
    },
  };
}
