import Database from "libsql";
import { databaseFile } from "#server/db/open";
import { PAGE_BUDGET, processor_s } from "./bench-pages";
import { demoFolder } from "./trial/demo-folder";
import { grownShop, rowCopier } from "./trial/growth";
import { TrialServer, at, median, ownFolder } from "./trial/harness";

/** What the server may spend on anything that is stored, and on any page, however large shop, job and ledger are. */
const WRITE_MS = 20;
const ROUNDS = 12;
/** Clock ticks are 10 ms: so many of one kind are counted together. */
const TOGETHER = 5;

/** The demo's first job with so many panels, the first of them with so many readings. */
function widened(
  demo: string,
  { panels, readings }: { panels: number; readings: number },
): { folder: string; jobId: string; panelId: string } {
  const folder = ownFolder(demo);
  const db = new Database(databaseFile(folder));
  const one = <T>(sql: string) => db.prepare(sql).get() as T;
  const model = one<{ id: string; job_id: string }>(
    "select p.id, p.job_id from panel p join ledger_entry e on e.panel_id = p.id group by 1 order by count(*) desc limit 1",
  );
  const copy = rowCopier(db);
  const seq = () => one<{ seq: number }>("select max(seq) as seq from ledger_entry").seq;
  db.exec("pragma foreign_keys = off; begin");
  const has = one<{ n: number }>(`select count(*) as n from panel where job_id = '${model.job_id}'`).n;
  for (let i = has; i < panels; i++) {
    copy("panel", `id = '${model.id}'`, { id: `id || '-w${i}'`, client_key: "null", position: String(i + 1) });
    copy("ledger_entry", `panel_id = '${model.id}' and kind != 'strike'`, {
      id: `id || '-w${i}'`,
      panel_id: `panel_id || '-w${i}'`,
      supersedes_id: "null",
      client_key: "null",
      seq: `${seq()} + row_number() over (order by seq)`,
    });
    copy("panel_summary", `panel_id = '${model.id}'`, {
      panel_id: `panel_id || '-w${i}'`,
      seq: `(select max(e.seq) from ledger_entry e where e.panel_id = panel_summary.panel_id || '-w${i}')`,
    });
  }
  const reading = one<{ id: string }>(`select id from ledger_entry where panel_id = '${model.id}' and kind = 'reading' limit 1`).id;
  for (let i = 0; i < readings; i++)
    copy("ledger_entry", `id = '${reading}'`, { id: `id || '-r${i}'`, supersedes_id: "null", client_key: "null", seq: String(seq() + 1) });
  db.exec("commit");
  db.close();
  return { folder, jobId: model.job_id, panelId: model.id };
}

/** Processor that a server spends on writes and pages of a shop that has grown. @returns what is above its budget */
export async function benchGrowth(sizes: readonly number[] = [100, 1000, 10_000]): Promise<string[]> {
  const demo = demoFolder();
  const above: string[] = [];
  const shops = [
    ...sizes.map((panels) => {
      const { folder, ids } = grownShop(demo.folder, panels);
      return { name: `${panels} panels`, folder, jobId: ids.jobId!, panelId: ids.panelId! };
    }),
    { name: "a job of 43 panels", ...widened(demo.folder, { panels: 43, readings: 0 }) },
    { name: "a panel of 2,000 entries", ...widened(demo.folder, { panels: 0, readings: 2000 }) },
  ];
  for (const { name, folder, jobId, panelId } of shops) {
    const server = new TrialServer(folder);
    if (!(await server.start())) throw new Error(server.said);
    const base = `/jobs/${jobId}/panels/${panelId}`;
    let n = 0;
    const spend = async (what: string, most_ms: number, ask: () => Promise<{ status: number }>) => {
      const spent: number[] = [];
      for (let i = 0; i < ROUNDS; i++) {
        const before = processor_s(server.pid);
        for (let k = 0; k < TOGETHER; k++) {
          const { status } = await ask();
          if (status >= 400) throw new Error(`${what} was answered ${status}`);
        }
        if (i > 0) spent.push(((processor_s(server.pid) - before) * 1000) / TOGETHER);
      }
      const ms = median(spent);
      console.log(`${name.padEnd(26)}${what.padEnd(24)}${ms.toFixed(0).padStart(6)}, ${at(spent, 1).toFixed(0)} ms`);
      if (ms > most_ms) above.push(`${name}, ${what}: ${ms.toFixed(0)} ms of processor`);
    };
    try {
      await spend("a reading", WRITE_MS, () =>
        server.post(`/do/panels/${panelId}/readings`, {
          clientKey: `bench-${n++}`,
          phase: "after",
          spot: String((n % 8) + 1),
          x_m: "0.5",
          y_m: "0.4",
          value: "131",
        }),
      );
      await spend("the climate", WRITE_MS, () =>
        server.post(`${base}/spray.data`, { intent: "climate", formKey: `bench-${n++}`, air: "22", humidity: "50" }),
      );
      for (const [page, path] of [
        ["Floor", "/"],
        ["Booth", `/jobs/${jobId}/booth`],
        ["Course", `${base}/course`],
        ["Coats", `${base}/spray`],
        ["Coat plan", `${base}/spray/coat-plan`],
        ["Inspect", `${base}/inspect`],
        ["Film through time", `${base}/inspect/time`],
        ["Correct", `${base}/correct`],
        ["Hand over", `${base}/hand-over`],
        ["Ledger", `${base}/ledger`],
        ["Booth plan", "/booth-plan"],
      ] as const)
        await spend(page, PAGE_BUDGET.processor_ms, () => server.ask(path));
    } finally {
      await server.stop("SIGKILL");
    }
  }
  return above;
}
