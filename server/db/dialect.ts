import type Database from "libsql";
import { CompiledQuery, type DatabaseConnection, SqliteDialect, SqliteDriver } from "kysely";
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
    return new ShopDriver({ database: this.#database });
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
