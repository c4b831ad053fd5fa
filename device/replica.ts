import { sql } from "kysely";
import { METRIC } from "#core/kernel/units/quantities";
import { type ServerContext, createContext } from "#server/context";
import { type Db, migrate, openDatabase } from "#server/db/open";
import type { EventBus } from "#server/events/bus";
import { run } from "#server/commands/run";
import { type RowChange, putRows } from "#server/repos/rows-repo";
import { concerned, entriesSince, newestSeq } from "#server/repos/ledger-repo";
import { getJob } from "#server/repos/job-repo";
import { getPanel } from "#server/repos/panel-repo";
import type { KeptRow } from "~/kit/away/device-store";
import { entryLine } from "~/kit/words/entry-words";

/** How things stood at a moment. */
interface Mark {
  changes: number;
  seq: number;
}

/** The shop's rows in a database of their own, on which the program works as on the shop's file. */
export interface Replica {
  ctx: ServerContext;
  mark(): Promise<Mark>;
  changedSince(mark: Mark): Promise<boolean>;
  /** What was entered since, a line each. */
  wordsSince(mark: Mark): Promise<string[]>;
  close(): Promise<void>;
}

const changesOf = async (db: Db): Promise<number> => (await sql<{ n: number }>`select total_changes() as n`.execute(db)).rows[0]!.n;

/** The windows of a device look again by themselves: nobody is told. */
function nobodyListens(): EventBus {
  let count = 0;
  const none = () => () => {};
  return { publish: () => void count++, subscribe: none, subscribeCalmly: none, published: () => count };
}

/** @param now_ms the shop's time */
export async function openReplica(rows: readonly KeptRow[], now_ms: () => number): Promise<Replica> {
  const db = openDatabase(":memory:");
  await migrate(db);
  // What rows refer to may be left out: they are taken as the shop told them.
  await sql`pragma foreign_keys = off`.execute(db);
  const ctx = createContext(db, { now_ms, bus: nobodyListens() });
  await run(ctx, null, (running) => putRows(running.db, rows as readonly RowChange[]));
  ctx.withShopUpTo_seq = await newestSeq(db);
  return {
    ctx,
    mark: async () => ({ changes: await changesOf(db), seq: await newestSeq(db) }),
    changedSince: async ({ changes }) => (await changesOf(db)) > changes,
    async wordsSince({ seq }) {
      const words: string[] = [];
      for (const entry of await entriesSince(db, seq)) {
        const panel = await getPanel(db, entry.panelId);
        const job = panel && (await getJob(db, panel.jobId));
        if (!job) continue;
        const { entry: of, became } = await concerned(db, entry);
        words.push(`${job.vehicle}, ${panel.name.toLowerCase()}: ${entryLine(of, panel.shape, METRIC)}${became ? `, ${became}` : ""}`);
      }
      return words;
    },
    close: () => db.destroy(),
  };
}
