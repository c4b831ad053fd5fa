import { execFileSync, spawn } from "node:child_process";
import { once } from "node:events";
import { copyFileSync, existsSync, mkdirSync, mkdtempSync, readFileSync, readdirSync, rmSync, utimesSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import Database from "libsql";
import { createContext } from "../context";
import { databaseFile, migrate, openDatabase } from "../db/open";
import { recordEntry } from "../commands/record-entry";
import { listEntries } from "../repos/ledger-repo";
import { testJob } from "../testing/fixtures";
import { backupFile, backupTo } from "./backup";
import { checkFile } from "./file-check";
import { lockFolder } from "./lock";
import { EXIT, StartRefusal, openShop } from "./open-shop";
import { restoreFrom, restoreMarker } from "./restore";

let folder: string;
beforeEach(() => (folder = mkdtempSync(join(tmpdir(), "yakamoz-open-"))));
afterEach(() => rmSync(folder, { recursive: true, force: true }));

/** Runs a piece of the program in a process of its own; `load` imports a file of it. */
function inAnotherProcess(code: string) {
  const tsx = join(process.cwd(), "node_modules/tsx/dist/esm/api/index.mjs");
  const script = `import(${JSON.stringify(tsx)}).then(async ({ register }) => {
    register();
    const load = (file) => import(${JSON.stringify(`${process.cwd()}/`)} + file);
    ${code}
    process.exit(0);
  });`;
  return spawn(process.execPath, ["-e", script], { stdio: ["ignore", "ignore", "inherit", "ipc"] });
}

const refusalOf = (attempt: Promise<unknown>) =>
  attempt.then(
    () => null,
    (error: unknown) => (error instanceof StartRefusal ? { code: error.exitCode, says: error.message } : error),
  );

/** A shop with one note in its ledger, closed again. */
async function shopWithNote(text = "kept") {
  const shop = await openShop(folder);
  const { panelId } = await testJob(shop.ctx);
  await recordEntry(shop.ctx, { panelId, kind: "note", body: { text }, by: "a" });
  await shop.close();
  return panelId;
}
async function notesOf(panelId: string): Promise<unknown[]> {
  const shop = await openShop(folder);
  try {
    return (await listEntries(shop.ctx.db, panelId)).map((e) => e.body);
  } finally {
    await shop.close();
  }
}

test("a clean stop leaves one file: nothing waits in a log beside it", async () => {
  await shopWithNote();
  expect(readdirSync(folder)).toEqual(["yakamoz.sqlite"]);
});

test("what cannot be opened says so in a sentence with its own code, and is left as it is", async () => {
  const file = databaseFile(folder);
  writeFileSync(file, "no database at all ".repeat(500));
  const before = readFileSync(file);
  expect(await refusalOf(openShop(folder))).toEqual({
    code: EXIT.damaged,
    says: expect.stringMatching(/damaged.*npm run restore/s) as string,
  });
  expect(readFileSync(file).equals(before)).toBe(true);
  rmSync(file);

  await shopWithNote();
  const raw = new Database(file);
  raw.exec("insert into kysely_migration (name, timestamp) values ('9999-of-tomorrow', 'x')");
  raw.close();
  expect(await refusalOf(openShop(folder))).toEqual({ code: EXIT.newer, says: expect.stringContaining("newer version") as string });

  const strange = new Database(join(folder, "other.sqlite"));
  strange.exec("create table recipes (id)");
  strange.close();
  expect(checkFile(join(folder, "other.sqlite"))).toMatchObject({ ok: false, why: "foreign" });
  expect(checkFile(join(folder, "none.sqlite"))).toMatchObject({ ok: false, why: "missing" });
});

test("pages torn out of the middle of a file are found before anybody is let in", async () => {
  await shopWithNote();
  const bytes = readFileSync(databaseFile(folder));
  bytes.fill(0xa5, 4096 * 3, 4096 * 20);
  writeFileSync(databaseFile(folder), bytes);
  expect(await refusalOf(openShop(folder))).toMatchObject({ code: EXIT.damaged });
});

test("a folder that is in use is refused, with who has it; when they are gone it opens at once", async () => {
  const first = await openShop(folder, { what: "the first server" });
  expect(await refusalOf(openShop(folder))).toEqual({
    code: EXIT.locked,
    says: expect.stringContaining(`in use by the first server (process ${process.pid})`) as string,
  });
  await first.close();
  await (await openShop(folder)).close();

  // Left behind by a process that was killed.
  const child = spawn(process.execPath, ["-e", "setInterval(() => {}, 1000)"]);
  mkdirSync(join(folder, "in-use"));
  const { hostname } = await import("node:os");
  writeFileSync(join(folder, "in-use.json"), JSON.stringify({ pid: child.pid, host: hostname(), what: "a killed server" }));
  expect(await refusalOf(openShop(folder))).toMatchObject({ code: EXIT.locked });
  child.kill("SIGKILL");
  await once(child, "exit");
  await (await openShop(folder)).close();
});

test("a lock whose taker was killed before it could write its name is waited for, not taken for a running program", async () => {
  const lock = join(folder, "in-use");
  mkdirSync(lock);
  const some_s = Date.now() / 1000 - 7; // it is nobody's after nine seconds
  utimesSync(lock, some_s, some_s);
  const shop = await openShop(folder);
  await shop.close();
});

test("so is one whose taker was killed while its time still lay ahead", async () => {
  const lock = join(folder, "in-use");
  mkdirSync(lock);
  const ahead_s = Date.now() / 1000 + 1.005;
  utimesSync(lock, ahead_s, ahead_s);
  const { release } = await lockFolder(folder, "the next", 2000);
  expect(existsSync(join(folder, "in-use.json"))).toBe(true);
  await release();
});

test("a file that was cut off to nothing, or to a byte, is no empty shop", async () => {
  for (const bytes of ["", "S", "SQLite format 3"]) {
    writeFileSync(databaseFile(folder), bytes);
    expect(await refusalOf(openShop(folder))).toMatchObject({
      code: EXIT.damaged,
      says: expect.stringMatching(new RegExp(`has ${bytes.length} bytes: it was cut off.*remove it.*Restore a backup`)) as string,
    });
    expect(readFileSync(databaseFile(folder), "utf8")).toBe(bytes);
  }
});

test("beside a damaged file the last sound backup is named, and not one that is damaged itself", async () => {
  await shopWithNote();
  const sound = backupFile(folder, Date.UTC(2026, 0, 2, 3, 4, 5));
  backupTo(databaseFile(folder), sound);
  writeFileSync(backupFile(folder, Date.UTC(2026, 0, 3)), "no shop, only words: ".repeat(20));
  writeFileSync(databaseFile(folder), "damaged ".repeat(200));
  expect(await refusalOf(openShop(folder))).toMatchObject({
    code: EXIT.damaged,
    says: expect.stringContaining(`npm run restore ${sound}`) as string,
  });
});

test("whoever has lost the folder while asleep writes nothing any more", async () => {
  const sleeper = await openShop(folder);
  const { panelId } = await testJob(sleeper.ctx);
  const note = (text: string) => recordEntry(sleeper.ctx, { panelId, kind: "note", body: { text }, by: "a" });
  await note("awake");
  // Another process took the stale lock over.
  const { hostname } = await import("node:os");
  writeFileSync(join(folder, "in-use.json"), JSON.stringify({ pid: process.pid, host: hostname(), what: "the second", token: "other" }));
  await expect(note("too late")).rejects.toMatchObject({
    status: 503,
    message: expect.stringContaining("taken the data folder") as string,
  });
  expect(await listEntries(sleeper.ctx.db, panelId)).toHaveLength(1);
  await sleeper.close();
  // What the second has is not taken from it by the first one's end.
  expect(JSON.parse(readFileSync(join(folder, "in-use.json"), "utf8"))).toMatchObject({ token: "other" });
});

test("several that start at once on a killed one's folder: one opens, the others say in use", async () => {
  await shopWithNote();
  for (let round = 0; round < 5; round++) {
    const gone = spawn(process.execPath, ["-e", ""]);
    await once(gone, "exit");
    mkdirSync(join(folder, "in-use"), { recursive: true });
    const { hostname } = await import("node:os");
    writeFileSync(join(folder, "in-use.json"), JSON.stringify({ pid: gone.pid, host: hostname(), what: "a killed server", token: "x" }));
    const starts = await Promise.allSettled(Array.from({ length: 4 }, () => openShop(folder)));
    const open = starts.flatMap((s) => (s.status === "fulfilled" ? [s.value] : []));
    expect(open).toHaveLength(1);
    for (const s of starts) if (s.status === "rejected") expect(s.reason).toMatchObject({ exitCode: EXIT.locked });
    await open[0]!.close();
  }
});

test("a start that failed is not remembered: the next one opens", async () => {
  writeFileSync(databaseFile(folder), "no database ".repeat(500));
  const { runningShop } = await import("../running");
  process.env.YAKAMOZ_DATA = folder;
  try {
    await expect(runningShop()).rejects.toThrow(StartRefusal);
    rmSync(databaseFile(folder));
    const shop = await runningShop();
    await shop.close();
  } finally {
    delete process.env.YAKAMOZ_DATA;
    globalThis.yakamozShop = undefined;
  }
});

test("before a migration a checked copy is made; the copy opens as the older file it is", async () => {
  await shopWithNote();
  const raw = new Database(databaseFile(folder));
  raw.exec(
    "delete from kysely_migration where name in ('0006-order-keys-summaries', '0007-removed-jobs', '0008-sides', '0009-ways-briefs', '0010-pictures', '0011-removed-panels', '0012-people-devices', '0013-followed-rows', '0014-practice', '0015-rows-places', '0016-said', '0017-colours')",
  );
  for (const { name } of raw.prepare("select name from sqlite_master where type = 'trigger' and name like 'follow_%'").all() as {
    name: string;
  }[])
    raw.exec(`drop trigger ${name}`);
  raw.exec("drop trigger ledger_no_delete");
  raw.exec("create trigger ledger_no_delete before delete on ledger_entry begin select raise(abort, 'the ledger is append-only'); end");
  for (const table of [
    "practice_session",
    "row_change",
    "device_person",
    "device",
    "person",
    "house_way",
    "removed_panel",
    "removed_job",
    "sent_form",
    "panel_summary",
    "cause_word",
  ])
    raw.exec(`drop table ${table}`);
  for (const index of ["ledger_seq", "ledger_panel_seq", "clock_panel", "job_open", "photo_digest", "ledger_picture"])
    raw.exec(`drop index ${index}`);
  raw.exec(
    "alter table ledger_entry drop column person_id; alter table ledger_entry drop column device_id; alter table ledger_entry drop column seq; alter table panel drop column sides; alter table panel drop column rows_json; alter table panel drop column place; alter table panel drop column colour; alter table job drop column colours_json; alter table job drop column way_json; alter table job drop column brief_json; alter table clock drop column struck; alter table photo drop column digest",
  );
  raw.exec("create index ledger_panel on ledger_entry (panel_id, recorded_at_ms)");
  raw.close();
  const shop = await openShop(folder, { now_ms: Date.UTC(2026, 10, 26) });
  const pending = [
    "0006-order-keys-summaries",
    "0007-removed-jobs",
    "0008-sides",
    "0009-ways-briefs",
    "0010-pictures",
    "0011-removed-panels",
    "0012-people-devices",
    "0013-followed-rows",
    "0014-practice",
    "0015-rows-places",
    "0016-said",
    "0017-colours",
  ];
  expect(shop.migrated).toEqual(pending);
  expect(checkFile(shop.copy!)).toMatchObject({ ok: true, pending, empty: false });
  expect(await shop.ctx.db.selectFrom("panel_summary").selectAll().execute()).toHaveLength(1);
  await shop.close();
});

describe("restore", () => {
  test("the backup's content is back, what was there is set aside whole, a log of the old file does not touch the new one", async () => {
    const panelId = await shopWithNote("in the backup");
    const backup = backupFile(folder, 0);
    backupTo(databaseFile(folder), backup);
    // More is written, and the program dies with its log unsaved: the wreck that a copy over the file ended in.
    const db = openDatabase(databaseFile(folder));
    await recordEntry(createContext(db), { panelId, kind: "note", body: { text: "after the backup" }, by: "a" });
    for (const part of ["", "-wal", "-shm"]) copyFileSync(`${databaseFile(folder)}${part}`, join(folder, `wreck${part}`));
    await db.destroy();
    for (const part of ["", "-wal", "-shm"]) copyFileSync(join(folder, `wreck${part}`), `${databaseFile(folder)}${part}`);

    const { setAside } = await restoreFrom(backup, folder, Date.UTC(2026, 10, 26));
    expect(await notesOf(panelId)).toEqual([{ text: "in the backup" }]);
    const aside = openDatabase(join(setAside!, "yakamoz.sqlite"));
    expect((await listEntries(aside, panelId)).map((e) => e.body)).toEqual([{ text: "in the backup" }, { text: "after the backup" }]);
    await aside.destroy();
  });

  test("a wrecked file is set aside and a sound one put in its place; a wrecked backup changes nothing", async () => {
    const panelId = await shopWithNote();
    const backup = backupFile(folder, 0);
    backupTo(databaseFile(folder), backup);
    writeFileSync(databaseFile(folder), "wrecked ".repeat(900));
    const broken = join(folder, "broken.sqlite");
    writeFileSync(broken, "also wrecked ".repeat(900));
    await expect(restoreFrom(broken, folder, 0)).rejects.toThrow(/damaged.*Nothing was changed/s);
    await restoreFrom(backup, folder, 0);
    expect(await notesOf(panelId)).toEqual([{ text: "kept" }]);
  });

  test("while the program runs it is refused; cut off, it is finished before anything is opened, or nothing is", async () => {
    const panelId = await shopWithNote();
    const backup = backupFile(folder, 0);
    backupTo(databaseFile(folder), backup);
    const running = await openShop(folder);
    await expect(restoreFrom(backup, folder, 0)).rejects.toThrow("in use by Yakamoz");
    await running.close();
    writeFileSync(restoreMarker(folder), backup);
    rmSync(databaseFile(folder)); // as if it had been cut off there
    expect(await notesOf(panelId)).toEqual([{ text: "kept" }]);
    writeFileSync(restoreMarker(folder), join(folder, "gone.sqlite"));
    expect(await refusalOf(openShop(folder))).toMatchObject({ code: EXIT.damaged, says: expect.stringContaining("cut off") as string });
    await restoreFrom(backup, folder, 0);
    expect(await notesOf(panelId)).toEqual([{ text: "kept" }]);
  });
});

test("a restore that is killed at any moment leaves one shop or the other, whole, at the next start", async () => {
  const copies: string[] = [];
  const panels: string[] = [];
  for (const text of ["first", "second"]) {
    panels.push(await shopWithNote(text));
    copies.push(backupFile(folder, copies.length * 1000));
    backupTo(databaseFile(folder), copies.at(-1)!);
  }
  for (let n = 0; n < 4; n++) {
    const child = inAnotherProcess(`
      const { restoreFrom } = await load("server/storage/restore.ts");
      const copies = ${JSON.stringify(copies)};
      process.send("ready");
      for (let i = 0; ; i++) await restoreFrom(copies[i % 2], ${JSON.stringify(folder)}, ${n} * 1e6 + i * 1000);
    `);
    await once(child, "message");
    await new Promise((r) => setTimeout(r, 30 + n * 67));
    child.kill("SIGKILL");
    await once(child, "exit");
    const shop = await openShop(folder, { now_ms: n * 1e6 + 999_000 });
    const notes = await Promise.all(panels.map((id) => listEntries(shop.ctx.db, id)));
    await shop.close();
    expect(notes[0]!.map((e) => e.body)).toEqual([{ text: "first" }]);
    expect([0, 1]).toContain(notes[1]!.length);
    expect(existsSync(restoreMarker(folder))).toBe(false);
  }
}, 60_000);

test("a backup gets its name only when it is whole: cut off at any moment it leaves none that is broken", async () => {
  const shop = await openShop(folder);
  const { panelId } = await testJob(shop.ctx);
  const note = { text: "x".repeat(900) };
  for (let i = 0; i < 300; i++) await recordEntry(shop.ctx, { panelId, kind: "note", body: note, by: "a" });
  await shop.close();
  const target = join(folder, "backups", "cut.sqlite");
  const child = inAnotherProcess(`
    const { backupTo } = await load("server/storage/backup.ts");
    for (let i = 0; ; i++) {
      backupTo(${JSON.stringify(databaseFile(folder))}, ${JSON.stringify(target)} + i);
      if (i === 0) process.send("one is whole");
    }
  `);
  await once(child, "message");
  await new Promise((r) => setTimeout(r, 40));
  child.kill("SIGKILL");
  await once(child, "exit");
  const made = readdirSync(join(folder, "backups")).filter((f) => /^cut\.sqlite\d+$/.test(f));
  expect(made.length).toBeGreaterThan(0);
  for (const f of made) expect(checkFile(join(folder, "backups", f))).toMatchObject({ ok: true, empty: false });
});

test("a file of the machine's own faults is told in words: a file system that may not be written to", async () => {
  const mount = join(folder, "read-only");
  mkdirSync(mount);
  try {
    execFileSync("mount", ["-t", "tmpfs", "-o", "ro,size=1m", "tmpfs", mount], { stdio: "ignore" });
  } catch {
    // Not allowed to mount here: a folder that is a file fails the same way, with a code of its own.
    writeFileSync(join(folder, "file"), "");
    expect(await refusalOf(openShop(join(folder, "file", "data")))).toBeInstanceOf(StartRefusal as never);
    return;
  }
  try {
    expect(await refusalOf(openShop(mount))).toMatchObject({
      code: EXIT.readOnly,
      says: expect.stringContaining("cannot be written to") as string,
    });
  } finally {
    execFileSync("umount", [mount]);
  }
});

test("two processes that write at once wait for each other: a transaction takes the lock when it begins", async () => {
  const db = openDatabase(databaseFile(folder));
  await migrate(db);
  const ctx = createContext(db);
  const { panelId } = await testJob(ctx);
  const write = (n: number) => recordEntry(ctx, { panelId, kind: "note", body: { text: String(n) }, by: "a" });
  const other = inAnotherProcess(`
    const { openDatabase } = await load("server/db/open.ts");
    const { createContext } = await load("server/context.ts");
    const { recordEntry } = await load("server/commands/record-entry.ts");
    const ctx = createContext(openDatabase(${JSON.stringify(databaseFile(folder))}));
    process.send("go");
    for (let n = 0; n < 60; n++) await recordEntry(ctx, { panelId: ${JSON.stringify(panelId)}, kind: "note", body: { text: "other " + n }, by: "b" });
  `);
  await once(other, "message");
  for (let n = 0; n < 60; n++) await write(n);
  const [code] = (await once(other, "exit")) as [number];
  expect(code).toBe(0);
  expect(await listEntries(db, panelId)).toHaveLength(120);
  await db.destroy();
});
