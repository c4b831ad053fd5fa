import Database from "libsql";
import { databaseFile } from "#server/db/open";
import { type Answer, TrialServer, at, median, ownFolder } from "./harness";

/** How many panels a job of the grown shop has. */
const PANELS_A_JOB = 5;

/** Copies rows of a table with some of their columns set to other expressions, as fast as SQLite writes them. */
export function rowCopier(db: Database.Database) {
  const columns = (table: string) =>
    (db.prepare(`select name from pragma_table_info('${table}')`).all() as { name: string }[]).map((c) => c.name);
  return (table: string, where: string, set: Record<string, string>) => {
    const names = columns(table);
    db.exec(`insert into ${table} (${names.join(", ")}) select ${names.map((n) => set[n] ?? n).join(", ")} from ${table} where ${where}`);
  };
}

/**
 * The demo shop grown to so many open panels: its own panels copied with their ledgers, clocks and rows, as fast as SQLite writes them. Every
 * copy has ids of its own; nothing else differs, so that its pages hold what real ones hold.
 */
export function grownShop(demo: string, panels: number): { folder: string; ids: Record<string, string> } {
  const folder = ownFolder(demo);
  const db = new Database(databaseFile(folder));
  const all = <T>(sql: string) => db.prepare(sql).all() as T[];
  const models = all<{ id: string; job_id: string }>("select id, job_id from panel order by id");
  const copy = rowCopier(db);
  let seq = all<{ seq: number }>("select max(seq) as seq from ledger_entry")[0]!.seq;
  db.exec("pragma synchronous = off; pragma foreign_keys = off; begin");
  for (let i = 0; i < panels; i++) {
    const model = models[i % models.length]!;
    const job = `g${Math.floor(i / PANELS_A_JOB)}`;
    if (i % PANELS_A_JOB === 0)
      copy("job", `id = '${model.job_id}'`, {
        id: `'${job}'`,
        client_key: "null",
        vehicle: `vehicle || ' ${i}'`,
        created_at_ms: `created_at_ms - ${i} * 1000`,
        archived_at_ms: "null",
      });
    const own = `id || '-${i}'`;
    copy("panel", `id = '${model.id}'`, { id: own, job_id: `'${job}'`, client_key: "null", position: String((i % PANELS_A_JOB) + 1) });
    const before = seq;
    copy("ledger_entry", `panel_id = '${model.id}'`, {
      id: own,
      panel_id: `panel_id || '-${i}'`,
      supersedes_id: `supersedes_id || '-${i}'`,
      client_key: "null",
      seq: `${before} + row_number() over (order by seq)`,
    });
    seq = before + all<{ n: number }>(`select count(*) as n from ledger_entry where panel_id = '${model.id}'`)[0]!.n;
    copy("panel_summary", `panel_id = '${model.id}'`, {
      job_id: `'${job}'`,
      away: "0",
      panel_id: `panel_id || '-${i}'`,
      seq: `(select coalesce(max(e.seq), 0) from ledger_entry e where e.panel_id = panel_summary.panel_id || '-${i}')`,
    });
    copy("cause_word", `panel_id = '${model.id}'`, { entry_id: `entry_id || '-${i}'`, panel_id: `panel_id || '-${i}'` });
    copy("clock", `panel_id = '${model.id}'`, { id: own, panel_id: `panel_id || '-${i}'`, entry_id: `entry_id || '-${i}'` });
  }
  db.exec("commit");
  db.close();
  return { folder, ids: { jobId: "g0", panelId: `${models[0]!.id}-0` } };
}

const PAGES = (base: string): readonly (readonly [name: string, path: string, most_ms: number])[] => [
  ["Floor", "/", 60],
  ["Jobs", "/jobs", 60],
  ["Gun", `${base}/spray/gun`, 60],
  ["House", "/house", 60],
  ["Next time", `${base}/hand-over/next-time`, 60],
  ["Causes", `${base}/correct/causes?kind=run`, 60],
  ["Inspect", `${base}/inspect`, 60],
  ["Booth plan", "/booth-plan", 150],
];

export interface PageTime {
  page: string;
  p50_ms: number;
  p95_ms: number;
  kB: number;
  most_ms: number;
}

/** Median times of the pages of a grown shop, one request after the other. */
export async function growth(demo: string, { panels, asks = 25 }: { panels: number; asks?: number }): Promise<PageTime[]> {
  const { folder, ids } = grownShop(demo, panels);
  const server = new TrialServer(folder);
  if (!(await server.start())) throw new Error(server.said);
  const times: PageTime[] = [];
  try {
    for (const [page, path, most_ms] of PAGES(`/jobs/${ids.jobId}/panels/${ids.panelId}`)) {
      const answers: Answer[] = [];
      for (let i = 0; i < asks + 3; i++) answers.push(await server.ask(path));
      const counted = answers.slice(3);
      const wrong = counted.find((a) => a.status !== 200);
      if (wrong) throw new Error(`${path} was answered ${wrong.status}`);
      const ms = counted.map((a) => a.ms);
      times.push({ page, p50_ms: median(ms), p95_ms: at(ms, 0.95), kB: Buffer.byteLength(counted[0]!.body) / 1000, most_ms });
    }
  } finally {
    await server.stop("SIGTERM");
  }
  return times;
}
