import { execFileSync } from "node:child_process";
import { cpSync, existsSync, mkdirSync, statSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import Database from "libsql";
import { databaseFile } from "#server/db/open";
import { checkFile } from "#server/storage/file-check";
import { TrialServer, ownFolder } from "./harness";

const count = (folder: string, sql: string): number => {
  const db = new Database(databaseFile(folder));
  try {
    return (db.prepare(sql).get() as { n: number }).n;
  } finally {
    db.close();
  }
};

/** A disk that fills up while somebody types. @returns faults found; null where this machine lets nobody mount */
export async function fullDisk(
  demo: string,
  ids: Record<string, string>,
): Promise<{ faults: string[]; stored: number; refused: number } | null> {
  const mount = ownFolder();
  const size_kb = Math.ceil(statSync(databaseFile(demo)).size / 1024) + 6000;
  try {
    execFileSync("mount", ["-t", "tmpfs", "-o", `size=${size_kb}k`, "tmpfs", mount], { stdio: "ignore" });
  } catch {
    return null;
  }
  const faults: string[] = [];
  let stored = 0;
  let refused = 0;
  const server = new TrialServer(join(mount, "data"));
  try {
    cpSync(demo, join(mount, "data"), { recursive: true });
    if (!(await server.start())) return { faults: [server.said], stored, refused };
    const note = (i: number) =>
      server.post(`/do/panels/${ids.panelId}/readings`, {
        clientKey: `full-${i}`,
        phase: "after",
        spot: "1",
        x_m: "0.5",
        y_m: "0.4",
        value: "131 ".repeat(20).trim(),
        gauge: `full-${i}`,
      });
    for (let i = 0; i < 40; i++) if ((await note(i)).status === 200) stored++;
    writeFileSync(join(mount, "ballast"), Buffer.alloc(1));
    try {
      for (let i = 0; ; i++) writeFileSync(join(mount, `ballast-${i}`), Buffer.alloc(64 * 1024));
    } catch {
      /* full now */
    }
    for (let i = 40; i < 400; i++) {
      const answer = await note(i);
      if (answer.status === 200) stored++;
      else if (answer.status === 507 && answer.body.includes("disk is full")) refused++;
      else faults.push(`on a full disk a reading is answered ${answer.status} ${answer.body.slice(0, 100)}`);
      if (refused > 20) break;
    }
    if (refused === 0) faults.push("the disk never became full");
    for (const path of ["/", `/jobs/${ids.jobId}/panels/${ids.panelId}/inspect`]) {
      const { status } = await server.ask(path);
      if (status !== 200) faults.push(`on a full disk ${path} says ${status}`);
    }
    for (let i = 0; existsSync(join(mount, `ballast-${i}`)); i++) execFileSync("rm", [join(mount, `ballast-${i}`)]);
    const again = await note(1000);
    if (again.status !== 200) faults.push(`with room again a reading is answered ${again.status}`);
    else stored++;
    await server.stop("SIGTERM");
    const n = count(join(mount, "data"), "select count(*) as n from ledger_entry where body_json like '%\"full-%'");
    if (n !== stored) faults.push(`${stored} readings acknowledged, ${n} there`);
    const state = checkFile(databaseFile(join(mount, "data")));
    if (!state.ok) faults.push(state.words);
  } finally {
    await server.stop("SIGKILL");
    execFileSync("umount", ["-l", mount]);
  }
  return { faults, stored, refused };
}

/** A second server on the same folder, and a start on files that cannot be opened: a sentence and a code, nobody listened to. */
export async function badStarts(demo: string): Promise<string[]> {
  const faults: string[] = [];
  const folder = ownFolder(demo);
  const first = new TrialServer(folder);
  await first.start();
  const expectRefusal = async (what: string, server: TrialServer, words: RegExp) => {
    const up = await server.start();
    if (up) faults.push(`${what}: it listens`);
    else if (!words.test(server.said)) faults.push(`${what}: it says ${server.said.slice(0, 200)}`);
    await server.stop("SIGKILL");
  };
  await expectRefusal("a second server on one folder", new TrialServer(folder), /in use by Yakamoz/);
  if ((await first.ask("/healthz")).status !== 200) faults.push("the first server fell with the second");
  await first.stop("SIGTERM");
  faults.push(...(await startedAtOnce(demo)), ...(await asleep(demo)));
  for (const bytes of ["", "S"]) {
    const cut = ownFolder(demo);
    writeFileSync(databaseFile(cut), bytes);
    await expectRefusal(`a file of ${bytes.length} bytes`, new TrialServer(cut), /it was cut off/);
  }
  const corrupt = ownFolder(demo);
  writeFileSync(databaseFile(corrupt), "wrecked ".repeat(5000));
  await expectRefusal("a corrupt file", new TrialServer(corrupt), /damaged/);
  const newer = ownFolder(demo);
  const db = new Database(databaseFile(newer));
  db.exec("insert into kysely_migration (name, timestamp) values ('9999-of-tomorrow', 'x')");
  db.close();
  await expectRefusal("a file of tomorrow", new TrialServer(newer), /newer version/);
  await expectRefusal("listening for everybody", new TrialServer(ownFolder(demo), { HOST: "0.0.0.0" }), /without a sign-in/);
  return faults;
}

/** Three servers started at once, on a clean folder and on that of a killed one: one listens, the others end with the code of a folder in use. */
async function startedAtOnce(demo: string): Promise<string[]> {
  const faults: string[] = [];
  const folder = ownFolder(demo);
  for (let round = 0; round < 3; round++) {
    const servers = Array.from({ length: 3 }, () => new TrialServer(folder));
    const up = await Promise.all(servers.map((s) => s.start()));
    if (up.filter(Boolean).length !== 1) faults.push(`${up.filter(Boolean).length} of three started at once listen`);
    for (const [i, s] of servers.entries())
      if (!up[i] && !s.said.includes("in use")) faults.push(`started at once it says ${s.said.slice(0, 200)}`);
    await Promise.all(servers.map((s) => s.stop("SIGKILL")));
  }
  return faults;
}

/** A server that sleeps longer than its lock lives: the second has the folder, the first stores nothing and stops with a sentence. */
async function asleep(demo: string): Promise<string[]> {
  const folder = ownFolder(demo);
  const sleeper = new TrialServer(folder);
  await sleeper.start();
  const { pid } = sleeper;
  process.kill(pid, "SIGSTOP");
  await new Promise((done) => setTimeout(done, ASLEEP_MS));
  const second = new TrialServer(folder);
  const faults: string[] = [];
  // A folder of a process that is there is not taken over at once: only when its lock has not been renewed.
  if (!(await second.start())) faults.push(`after a sleep of ${ASLEEP_MS} ms nobody else starts: ${second.said.slice(0, 200)}`);
  process.kill(pid, "SIGCONT");
  const written = await sleeper.post("/do/clocks/none.data", { stopped: "true" });
  if (written.status !== 503 && written.status !== 0) faults.push(`the one that slept answers a write with ${written.status}`);
  await new Promise((done) => setTimeout(done, WAKES_MS));
  if ((await sleeper.ask("/healthz")).status !== 0) faults.push("the one that slept goes on");
  if (!sleeper.said.includes("taken the data folder over")) faults.push(`the one that slept says ${sleeper.said.slice(0, 200)}`);
  await second.stop("SIGKILL");
  await sleeper.stop("SIGKILL").catch(() => null);
  return faults;
}
const ASLEEP_MS = 12_000;
const WAKES_MS = 5000;

/** The wall clock put back two hours between two entries. */
export async function clockBack(demo: string, ids: Record<string, string>): Promise<string[]> {
  const folder = ownFolder(demo);
  const server = new TrialServer(folder);
  await server.start();
  const climate = (air: string, formKey: string) =>
    server.post(`/jobs/${ids.jobId}/panels/${ids.panelId}/spray.data`, { intent: "climate", formKey, air, humidity: "50" });
  const faults: string[] = [];
  for (const [air, key] of [
    ["18", "a"],
    ["27.5", "b"],
  ] as const) {
    const { status } = await climate(air, `clock-${key}`);
    if (status !== 200) faults.push(`climate was answered ${status}`);
    await server.shiftClock(-2 * 3_600_000);
  }
  const { body } = await server.ask(`/jobs/${ids.jobId}/panels/${ids.panelId}/spray.data`);
  const last = body.lastIndexOf("300.65");
  if (last < 0) faults.push("the newer climate is not in force");
  await server.stop("SIGTERM");
  const seqs = count(
    folder,
    "select count(*) as n from ledger_entry a join ledger_entry b on b.panel_id = a.panel_id and b.seq > a.seq and b.rowid < a.rowid",
  );
  if (seqs !== 0) faults.push("the order of writing is not the order of the ledger");
  return faults;
}

/** Backup, wreck, restore by the commands of the package. @returns faults */
export async function backupAndRestore(demo: string, ids: Record<string, string>): Promise<string[]> {
  const folder = ownFolder(demo);
  const faults: string[] = [];
  const run = (script: string, ...args: string[]) => {
    try {
      return execFileSync(process.execPath, [script, ...args], { env: { ...process.env, YAKAMOZ_DATA: folder } }).toString();
    } catch (error) {
      faults.push(`${script}: ${String((error as { stderr?: Buffer }).stderr)}`);
      return "";
    }
  };
  const server = new TrialServer(folder);
  // Files of the record: what a page shows beside it goes on with the minute.
  const page = async () => {
    const files = ["readings.csv", "ledger.csv"].map(async (file) => (await server.ask(`/do/panels/${ids.panelId}/${file}`)).body);
    return (await Promise.all(files)).join("\n");
  };
  await server.start();
  const before = await page();
  run("scripts/backup.mjs", join(folder, "backups", "one.sqlite"));
  await server.post(`/do/panels/${ids.panelId}/readings`, {
    clientKey: "later",
    phase: "after",
    spot: "1",
    x_m: "0.5",
    y_m: "0.4",
    value: "300",
  });
  if ((await page()) === before) faults.push("the later reading does not show");
  await server.stop("SIGKILL"); // its log stays
  mkdirSync(join(folder, "x"));
  writeFileSync(databaseFile(folder), "wrecked ".repeat(9000));
  run("scripts/restore.mjs", join(folder, "backups", "one.sqlite"));
  if (!(await server.start())) faults.push(server.said);
  else if ((await page()) !== before) faults.push("the figures differ after the restore");
  await server.stop("SIGTERM");
  return faults;
}
