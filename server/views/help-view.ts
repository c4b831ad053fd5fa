import { statSync } from "node:fs";
import { sql } from "kysely";
import type { ServerContext } from "../context";
import { databaseFile } from "../db/open";
import { lastLines } from "../http/log-files";
import { getShop, shopRegion } from "../repos/shop-repo";
import type { Keeping } from "../storage/keeper";
import { keptCopies } from "../storage/kept-backups";

const LINES = 500;
/** What of a line of the log goes along: none of it is ever typed by anybody. */
const OF_A_LINE = ["time", "level", "method", "route", "status", "ms", "cut", "requestId", "migration"] as const;
const TABLES = [
  "product",
  "job",
  "panel",
  "ledger_entry",
  "clock",
  "container",
  "card",
  "photo",
  "gun",
  "house_way",
  "removed_job",
] as const;

/**
 * What somebody who helps wants to know, and nothing of the shop's customers or of what was typed: how the program runs, how much there is, what went
 * wrong and where.
 */
export async function helpBundle(ctx: ServerContext, folder: string, keeping: Keeping | null) {
  const { db } = ctx;
  const shop = await getShop(db);
  const rows = await Promise.all(
    TABLES.map(async (table) => {
      const { n } = await db
        .selectFrom(table)
        .select((b) => b.fn.countAll<number>().as("n"))
        .executeTakeFirstOrThrow();
      return [table, n] as const;
    }),
  );
  const migrations = await sql<{ name: string }>`select name from kysely_migration order by name`.execute(db);
  return {
    format: "yakamoz-help",
    version: 1,
    madeAt: new Date(ctx.now_ms()).toISOString(),
    program: { node: process.version, platform: process.platform, arch: process.arch, upFor_s: Math.round(process.uptime()) },
    memory_bytes: process.memoryUsage().rss,
    data: {
      bytes: statSync(databaseFile(folder), { throwIfNoEntry: false })?.size ?? 0,
      migrations: migrations.rows.map((m) => m.name),
      rows: Object.fromEntries(rows),
    },
    shop: { region: shopRegion(shop), units: shop.units, standIns: shop.standIns, readingsPerSpot: shop.readingsPerSpot },
    disk: keeping?.disk ?? null,
    backups: {
      failed: keeping?.failed !== null && keeping !== null,
      isOld: keeping?.isOld ?? null,
      secondPlace: keeping?.second ? (keeping.second.failed === null ? "there" : "not there") : "none",
      copies: keptCopies(folder, shop.secondPlace).map(({ place, at_ms, bytes, byPlan }) => ({
        place,
        at: new Date(at_ms).toISOString(),
        bytes,
        byPlan,
      })),
    },
    log: lastLines(folder, LINES).map(withoutWords),
  };
}

/** A line of the log without what an error says: its kind, and where it came from. */
function withoutWords(line: Record<string, unknown>) {
  const kept = Object.fromEntries(OF_A_LINE.flatMap((key) => (key in line ? [[key, line[key]]] : [])));
  const err = line.err as { type?: unknown; code?: unknown; stack?: unknown } | undefined;
  if (!err) return kept;
  const at = typeof err.stack === "string" ? err.stack.split("\n").filter((l) => /^\s+at .*:\d+:\d+\)?$/.test(l)) : [];
  return {
    ...kept,
    err: {
      type: String(err.type),
      ...(err.code === undefined ? {} : { code: typeof err.code === "string" ? err.code : null }),
      at: at.map((l) => l.trim()),
    },
  };
}
