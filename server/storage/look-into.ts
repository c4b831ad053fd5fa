import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import type { ServerContext } from "../context";
import { type Db, migrate, openDatabase } from "../db/open";
import { checkFile } from "./file-check";

/** A job in the copy, in the shop as it is, or in both. */
export interface JobAside {
  id: string;
  vehicle: string;
  /** Entries at its panels; null where it is not there. */
  then: number | null;
  now: number | null;
}

/** What would come and go if a copy were put in the place of the shop as it is. */
export interface LookedInto {
  /** Jobs that differ: those that would go, would come, or would have other entries. */
  jobs: JobAside[];
  same: number;
  /** Of the shelf and the cards. */
  others: { what: "products" | "cans" | "cards" | "pictures"; then: number; now: number }[];
  /** When the newest entry was made; null where there is none. */
  newest: { then_ms: number | null; now_ms: number | null };
}

/**
 * Looks into a copy of the shop without touching it, nor the shop: what it holds beside what is there now.
 * @throws Error in words where the copy is missing, damaged, foreign or newer
 */
export async function lookInto(file: string, now: ServerContext): Promise<LookedInto> {
  const state = checkFile(file);
  if (!state.ok) throw new Error(state.words);
  const folder = mkdtempSync(join(tmpdir(), "yakamoz-look-"));
  try {
    const own = join(folder, "copy.sqlite");
    await now.inFileThread("backup", { source: file, target: own }); // one of its own, to be brought up to date
    const db = openDatabase(own);
    try {
      await migrate(db);
      return beside(await countsOf(db), await countsOf(now.db));
    } finally {
      await db.destroy();
    }
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

async function countsOf(db: Db) {
  const jobs = await db
    .selectFrom("job")
    .leftJoin("panel", "panel.job_id", "job.id")
    .leftJoin("ledger_entry", "ledger_entry.panel_id", "panel.id")
    .select([
      "job.id",
      "job.vehicle",
      (b) => b.fn.count<number>("ledger_entry.id").as("entries"),
      (b) => b.fn.max<number | null>("ledger_entry.seq").as("last"),
    ])
    .groupBy("job.id")
    .execute();
  const rows = (table: "product" | "container" | "card" | "photo") =>
    db
      .selectFrom(table)
      .select((b) => b.fn.countAll<number>().as("n"))
      .executeTakeFirstOrThrow();
  const [products, cans, cards, pictures] = await Promise.all([rows("product"), rows("container"), rows("card"), rows("photo")]);
  const { last } = await db
    .selectFrom("ledger_entry")
    .select((b) => b.fn.max<number | null>("at_ms").as("last"))
    .executeTakeFirstOrThrow();
  return { jobs: new Map(jobs.map((j) => [j.id, j])), products: products.n, cans: cans.n, cards: cards.n, pictures: pictures.n, last };
}
type Counts = Awaited<ReturnType<typeof countsOf>>;

function beside(then: Counts, now: Counts): LookedInto {
  const jobs = [...new Set([...then.jobs.keys(), ...now.jobs.keys()])].map((id) => {
    const [was, is] = [then.jobs.get(id), now.jobs.get(id)];
    const isSame = was?.entries === is?.entries && was?.last === is?.last;
    return { isSame, job: { id, vehicle: (is ?? was)!.vehicle, then: was?.entries ?? null, now: is?.entries ?? null } };
  });
  const differ = jobs.filter((j) => !j.isSame).map((j) => j.job);
  return {
    jobs: differ.sort((a, b) => a.vehicle.localeCompare(b.vehicle)),
    same: jobs.length - differ.length,
    others: (["products", "cans", "cards", "pictures"] as const).map((what) => ({ what, then: then[what], now: now[what] })),
    newest: { then_ms: then.last, now_ms: now.last },
  };
}
