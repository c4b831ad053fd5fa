import { copyFileSync, existsSync, mkdirSync, mkdtempSync, readdirSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { dirname, join } from "node:path";
import { recordEntry } from "../commands/record-entry";
import { databaseFile } from "../db/open";
import { testJob } from "../testing/fixtures";
import { backupTo } from "./backup";
import { type KeeperParts, createKeeper } from "./keeper";
import { chooseSecond, keptCopies, nameByHand, nameByPlan } from "./kept-backups";
import { lookInto } from "./look-into";
import { openShop } from "./open-shop";

const HOUR_MS = 3_600_000;
const MORNING_MS = Date.UTC(2026, 2, 2, 8);
let folder: string;
let second: string;
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), "yakamoz-keep-"));
  second = mkdtempSync(join(tmpdir(), "yakamoz-second-"));
  writeFileSync(databaseFile(folder), "a shop");
});
afterEach(() => [folder, second].forEach((f) => rmSync(f, { recursive: true, force: true })));

/** A keeper by a clock of the test's own, on a file that stands for a shop. */
function keeping(parts: Partial<KeeperParts> = {}) {
  const at = { now_ms: MORNING_MS, changed_ms: MORNING_MS - HOUR_MS, chosen: null as string | null, free: 1e12 };
  const keeper = createKeeper({
    folder,
    now_ms: () => at.now_ms,
    secondPlace: () => Promise.resolve(at.chosen),
    backup: ({ source, target }) => {
      mkdirSync(dirname(target), { recursive: true });
      copyFileSync(source, target);
      return Promise.resolve();
    },
    changedAt_ms: () => at.changed_ms,
    freeBytes: () => Promise.resolve(at.free),
    ...parts,
  });
  return { at, keeper, names: () => keptCopies(folder, at.chosen).map((c) => c.id) };
}

test("a backup is made when something was entered since the last and an hour is over, and not before", async () => {
  const { at, keeper, names } = keeping();
  await keeper.look();
  expect(names()).toEqual([`here-${nameByPlan(MORNING_MS)}`]);
  for (const [hours, enters, there] of [
    [0.5, true, 1],
    [1, false, 2], // what was entered half an hour ago
    [3, false, 2], // nothing since
    [3.5, true, 3],
  ] as const) {
    at.now_ms = MORNING_MS + hours * HOUR_MS;
    if (enters) at.changed_ms = at.now_ms;
    await keeper.look();
    expect(names()).toHaveLength(there);
  }
});

test("400 days by a moved clock, in two places: both hold what the plan says, and nothing of another name is touched", async () => {
  const { at, keeper } = keeping();
  at.chosen = second;
  chooseSecond(second, folder);
  await keeper.look();
  const byHand = join(folder, "backups", "yakamoz-20260302-080000.sqlite");
  writeFileSync(byHand, "by hand");
  writeFileSync(join(second, "notes.txt"), "mine");
  for (let day = 0; day < 400; day++)
    for (const hour of [9, 12, 16]) {
      at.now_ms = MORNING_MS + (day * 24 + hour - 8) * HOUR_MS;
      at.changed_ms = at.now_ms;
      await keeper.look();
    }
  const of = (dir: string) => readdirSync(dir).filter((name) => name.startsWith("yakamoz-kept-"));
  expect(of(second)).toEqual(of(join(folder, "backups")));
  expect(of(second).length).toBeGreaterThan(7 + 6 + 10);
  expect(of(second).length).toBeLessThanOrEqual(24 + 7 + 8 + 12);
  expect(existsSync(byHand) && existsSync(join(second, "notes.txt"))).toBe(true);
}, 60_000);

test("a backup that fails is said, and tried again after a while; a disk that is nearly full is said before it is full", async () => {
  let fails = true;
  const { at, keeper, names } = keeping({
    backup: ({ source, target }) => {
      if (fails) return Promise.reject(Object.assign(new Error("no room"), { code: "ENOSPC" }));
      mkdirSync(dirname(target), { recursive: true });
      copyFileSync(source, target);
      return Promise.resolve();
    },
  });
  await keeper.look();
  expect(keeper.keeping()).toMatchObject({ newest: null, failed: { words: "the disk is full" } });
  await expect(keeper.now()).rejects.toThrow("the disk is full");
  fails = false;
  at.now_ms += 60_000;
  await keeper.look();
  expect(names()).toEqual([]); // not at once again
  at.now_ms += HOUR_MS;
  await keeper.look();
  expect(keeper.keeping()).toMatchObject({ failed: null, isOld: false, disk: { isNearlyFull: false } });
  at.free = 100e6;
  await expect(keeper.now()).rejects.toThrow("nearly full");
  expect(keeper.keeping().disk).toEqual({ free_bytes: 100e6, isNearlyFull: true });
});

test("before the first page the disk and the copies are known, and nothing is made for it", async () => {
  const { at, keeper, names } = keeping();
  at.free = 100e6;
  expect(keeper.keeping().disk).toBeNull();
  await keeper.first();
  expect(keeper.keeping().disk).toEqual({ free_bytes: 100e6, isNearlyFull: true });
  expect(names()).toEqual([]);
});

test("what somebody asked for stays beside what the plan makes and lets go", async () => {
  const { at, keeper, names } = keeping();
  await keeper.now();
  for (let n = 1; n <= 3; n++) {
    at.now_ms += 61 * 60_000;
    at.changed_ms = at.now_ms;
    await keeper.look();
  }
  at.now_ms += 400 * 24 * HOUR_MS;
  at.changed_ms = at.now_ms;
  await keeper.look();
  expect(names()).toEqual([`here-${nameByPlan(at.now_ms)}`, `here-${nameByHand(MORNING_MS)}`]);
});

test("what was entered since a backup of the day before yesterday is said as old; what nobody has added to is not", async () => {
  const { at, keeper } = keeping();
  await keeper.look();
  at.now_ms += 50 * HOUR_MS;
  expect(keeper.keeping().isOld).toBe(false);
  at.changed_ms = at.now_ms - HOUR_MS;
  expect(keeper.keeping().isOld).toBe(true);
});

test("a second place that is not there, or is another folder of the same name, is said; the first copy is made all the same", async () => {
  const { at, keeper } = keeping();
  expect(() => chooseSecond("disk", folder)).toThrow("whole path");
  expect(() => chooseSecond(join(second, "none"), folder)).toThrow("no such folder");
  expect(() => chooseSecond(join(folder, "backups", ".."), folder)).toThrow("data folder");
  at.chosen = second; // never chosen: it bears no mark
  await keeper.look();
  expect(keeper.keeping()).toMatchObject({
    failed: null,
    second: { folder: second, failed: expect.stringContaining("not there") as string },
  });
  expect(readdirSync(second)).toEqual([]);
  chooseSecond(second, folder);
  at.now_ms += HOUR_MS;
  await keeper.now();
  expect(keeper.keeping().second).toEqual({ folder: second, failed: null });
  expect(readdirSync(second)).toContain(nameByHand(at.now_ms));
});

test("a look into a copy says what would come and go, and touches neither", async () => {
  rmSync(databaseFile(folder));
  const shop = await openShop(folder);
  const first = await testJob(shop.ctx);
  const copy = join(folder, "copy.sqlite");
  backupTo(databaseFile(folder), copy);
  await recordEntry(shop.ctx, { panelId: first.panelId, kind: "note", body: { text: "later" }, by: "a" });
  const { panelId } = await testJob(shop.ctx);
  const job = await shop.ctx.db.selectFrom("panel").select("job_id as id").where("id", "=", panelId).executeTakeFirstOrThrow();
  const looked = await lookInto(copy, shop.ctx);
  expect(looked.same).toBe(0);
  expect(looked.jobs.map((j) => [j.id === job.id, j.then, j.now]).sort()).toEqual([
    [false, 0, 1],
    [true, null, 0],
  ]);
  expect(looked.newest.then_ms).toBeNull();
  await expect(lookInto(join(folder, "none.sqlite"), shop.ctx)).rejects.toThrow("There is no data file");
  writeFileSync(copy, "not a shop at all, but long enough to be looked at as if it might be one: ".repeat(4));
  await expect(lookInto(copy, shop.ctx)).rejects.toThrow("damaged");
  await shop.close();
});
