import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { once } from "node:events";
import { pino } from "pino";
import { changeShop } from "../commands/house";
import { recordEntry } from "../commands/record-entry";
import { lastLines, logFiles, logFolder } from "../http/log-files";
import { testJob } from "../testing/fixtures";
import { openShop } from "../storage/open-shop";
import { helpBundle } from "./help-view";

let folder: string;
beforeEach(() => (folder = mkdtempSync(join(tmpdir(), "yakamoz-help-"))));
afterEach(() => rmSync(folder, { recursive: true, force: true }));

/** A word that stands in everything anybody has typed. */
const TYPED = "Zeytinli";

test("a bundle for help tells how the program runs and what failed where, and no word that anybody has typed", async () => {
  const shop = await openShop(folder);
  const { panelId, jobId } = await testJob(shop.ctx);
  await shop.ctx.db.transaction().execute((db) => db.updateTable("job").set({ vehicle: TYPED }).where("id", "=", jobId).execute());
  await changeShop(shop.ctx, (now) => ({ ...now, name: TYPED, secondPlace: `/mnt/${TYPED}` }));
  await recordEntry(shop.ctx, { panelId, kind: "note", body: { text: TYPED }, by: "a" });
  mkdirSync(logFolder(folder));
  const stack = `Error: ${TYPED} is no colour\n${TYPED}\n    at worked (server/commands/run.ts:12:3)\n    at ${TYPED}`;
  const lines = [
    { level: "info", time: "2026-11-30T08:00:00Z", method: "POST", route: "/jobs/new.data", status: 202, ms: 117, note: TYPED },
    { level: "error", time: "2026-11-30T08:00:01Z", err: { type: "Error", message: TYPED, stack, code: "SQLITE_FULL" }, msg: TYPED },
  ];
  writeFileSync(join(logFolder(folder), "yakamoz.1.log"), `${lines.map((l) => JSON.stringify(l)).join("\n")}\n{"half a li`);
  const bundle = await helpBundle(shop.ctx, folder, null);
  expect(bundle.data.rows).toMatchObject({ job: 1, panel: 1, ledger_entry: 1 });
  expect(bundle.data.migrations.length).toBeGreaterThan(5);
  expect(bundle.log).toEqual([
    { level: "info", time: "2026-11-30T08:00:00Z", method: "POST", route: "/jobs/new.data", status: 202, ms: 117 },
    {
      level: "error",
      time: "2026-11-30T08:00:01Z",
      err: { type: "Error", code: "SQLITE_FULL", at: ["at worked (server/commands/run.ts:12:3)"] },
    },
  ]);
  expect(JSON.stringify(bundle)).not.toContain(TYPED);
  await shop.close();
});

test("lines of the log are in files beside the data, and read again; where none can be written nothing fails", async () => {
  const file = (await logFiles(folder))!;
  const log = pino({ base: null }, file);
  for (let n = 0; n < 30; n++) log.info({ n }, "a line");
  file.end();
  await once(file, "close");
  expect(lastLines(folder, 10).map((l) => l.n)).toEqual([20, 21, 22, 23, 24, 25, 26, 27, 28, 29]);
  expect(lastLines(join(folder, "none"), 10)).toEqual([]);
  writeFileSync(join(folder, "a file"), "");
  expect(await logFiles(join(folder, "a file"))).toBeNull();
});
