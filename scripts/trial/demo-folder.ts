import { execFileSync } from "node:child_process";
import Database from "libsql";
import { databaseFile } from "#server/db/open";
import { ownFolder } from "./harness";

/** A data folder with the demo shop in it, and an id of each kind for the routes' parameters. */
export function demoFolder(): {
  folder: string;
  ids: Record<string, string>;
  panels: { jobId: string; panelId: string }[];
  shop: string[];
} {
  const folder = ownFolder();
  execFileSync(process.execPath, ["node_modules/tsx/dist/cli.mjs", "demo/load.ts"], {
    env: { ...process.env, YAKAMOZ_DATA: folder },
    stdio: "ignore",
  });
  const db = new Database(databaseFile(folder));
  const one = (sql: string) => (db.prepare(sql).get() as { id: string } | undefined)?.id ?? "none";
  const panel = db
    .prepare(
      "select panel_id as id, p.job_id as job from ledger_entry e join panel p on p.id = e.panel_id group by 1 order by count(*) desc",
    )
    .get() as { id: string; job: string };
  const ids = {
    jobId: panel.job,
    panelId: panel.id,
    entryId: one("select id from ledger_entry"),
    clockId: one("select id from clock"),
    productId: one("select id from product"),
    canId: one("select id from container"),
    cardId: one("select id from card"),
    photoId: one("select id from photo"),
    kind: "can",
    id: one("select id from container"),
    format: "json",
  };
  const all = (sql: string) => db.prepare(sql).all() as { id: string; job: string }[];
  const panels = all("select id, job_id as job from panel").map((p) => ({ jobId: p.job, panelId: p.id }));
  const shop = [
    ...[
      "/",
      "/jobs",
      "/jobs/new",
      "/shelf",
      "/shelf/new",
      "/shelf/cans/new",
      "/cards",
      "/cards/new/edit",
      "/house",
      "/house/ways",
      "/booth-plan",
    ],
    ...all("select id, id as job from product").map((p) => `/shelf/${p.id}`),
    `/shelf/cans/${ids.canId}`,
    `/cards/${ids.cardId}`,
    `/cards/${ids.cardId}/edit`,
    "/house/ways/two-full",
    "/ask/sand",
    "/ask/run",
    "/ask/mix",
    "/ask/matte",
  ];
  db.close();
  return { folder, ids, panels, shop };
}
