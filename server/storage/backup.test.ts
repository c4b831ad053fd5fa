import { spawnSync } from "node:child_process";
import { mkdirSync, mkdtempSync, readdirSync, rmSync, utimesSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { backupTo, removePartials } from "./backup";
import { saveProduct } from "#server/commands/jobs";
import { createContext } from "#server/context";
import { migrate, openDatabase } from "#server/db/open";
import { listProducts } from "#server/repos/product-repo";
import { sheet } from "#server/testing/fixtures";

const folder = mkdtempSync(join(tmpdir(), "yakamoz-backup-"));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

test("what a cut-off backup left is cleared away by the next; one that is being written is not", () => {
  const copies = join(folder, "left");
  mkdirSync(copies);
  const gone = spawnSync(process.execPath, ["-e", ""]);
  const left = [`a.sqlite.${gone.pid}.partial`, `a.sqlite.${gone.pid}.partial-journal`, "old.sqlite.partial"];
  const stays = [`b.sqlite.${process.pid}.partial`, "new.sqlite.partial", "c.sqlite", "notes.partial"];
  for (const name of [...left, ...stays]) writeFileSync(join(copies, name), "x");
  utimesSync(join(copies, "old.sqlite.partial"), 0, 0);
  removePartials(copies);
  expect(readdirSync(copies).sort()).toEqual([...stays].sort());
  removePartials(join(folder, "no such folder"));
});

test("a copy made while the file is open is sound and holds what was acknowledged; nothing is overwritten", async () => {
  const source = join(folder, "shop.sqlite");
  const target = join(folder, "copies", "copy's.sqlite");
  const db = openDatabase(source);
  await migrate(db);
  await saveProduct(createContext(db), sheet);
  expect(backupTo(source, target).bytes).toBeGreaterThan(0);
  const copy = openDatabase(target);
  expect((await listProducts(copy)).map((p) => p.sheet)).toEqual([sheet]);
  expect(() => backupTo(source, target)).toThrow("exists already; nothing was overwritten");
  expect(() => backupTo(join(folder, "none.sqlite"), join(folder, "x"))).toThrow("there is no database");
  await Promise.all([db.destroy(), copy.destroy()]);
});
