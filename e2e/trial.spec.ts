import { expect, test } from "@playwright/test";
import { demoFolder } from "../scripts/trial/demo-folder";
import { tryAccess } from "../scripts/trial/access";
import { accepted } from "../scripts/trial/accepted";
import { tryDoors } from "../scripts/trial/doors";
import { tryFiles } from "../scripts/trial/files";
import { fuzz } from "../scripts/trial/fuzz";
import { oddFiles } from "../scripts/trial/odd-files";
import { oneField } from "../scripts/trial/one-field";
import { killAgain } from "../scripts/trial/kills";
import { backupAndRestore, badStarts, clockBack, fullDisk } from "../scripts/trial/storage";

/** The campaign of `npm run trial` in a short form: the same code, fewer of everything. */
test.describe("a short trial of the built program", () => {
  test.setTimeout(240_000);
  let demo: ReturnType<typeof demoFolder>;
  test.beforeAll(() => {
    demo = demoFolder();
  });

  test("no page of another site and no name but ours gets into any route, read or write", async () => {
    const { tried, in: inside } = await tryDoors(demo.folder, demo.ids);
    expect(inside).toEqual([]);
    expect(tried).toBeGreaterThan(1500);
  });

  test("on the network every route lets in whom the table says, guesses and copied cookies nobody; others are answered meanwhile", async () => {
    const { tried, faults } = await tryAccess(demo.folder, demo.ids, { pins: 60, codes: 120, streams: 230, bodyMB: 20 });
    expect(faults).toEqual([]);
    expect(tried).toBeGreaterThan(1000);
  });

  test("odd requests are answered, none with a fault, and every page is there afterwards", async () => {
    const { faults, unanswered, byStatus } = await fuzz(demo.folder, demo.ids, { requests: 1500, seed: 23 });
    expect(faults).toEqual([]);
    expect(unanswered).toBe(0);
    expect(byStatus[200]).toBeGreaterThan(100);
  });

  test("whatever is accepted can be shown, and taken out: random entries of all kinds, then every page", async () => {
    const { entries, refused, pages, faults } = await accepted(demo.folder, { entries: 60, seed: 23, each: 20, html: 0.5 });
    expect(faults).toEqual([]);
    expect(entries - refused).toBeGreaterThan(40);
    expect(pages).toBeGreaterThan(120);
  });

  test("whatever a file brings can be shown, and taken out: job files and tables with something changed", async () => {
    const jobs = [...new Set(demo.panels.map((p) => p.jobId))];
    const { entries, refused, pages, faults } = await oddFiles(demo.folder, jobs, { files: 8, seed: 23 });
    expect(faults).toEqual([]);
    expect(refused).toBeLessThan(8);
    expect(entries).toBeGreaterThan(50);
    expect(pages).toBeGreaterThan(100);
  });

  test("whole forms of every page with one field changed are answered without a fault, and so are the pages after them", async () => {
    const { forms, accepted: taken, byFault } = await oneField(demo.folder, demo.panels, demo.shop, { forms: 150, seed: 23 });
    expect(byFault).toEqual({});
    expect(forms).toBe(150);
    expect(taken).toBeGreaterThan(5);
  });

  test("a file that is small on the disk and large in memory is answered in words", async () => {
    const tries = await tryFiles(demo.folder, { large: false });
    expect(tries.map((t) => [t.name, t.status])).toEqual(tries.map((t) => [t.name, 200]));
    expect(tries.length).toBeGreaterThan(5);
  });

  test("killed again and again under every kind of write, with backups: nothing lost, doubled, half or broken", async () => {
    const kills = 8;
    const { acknowledged, lost, doubled, half, brokenBackups } = await killAgain(demo.folder, { kills, seed: 23 });
    expect({ lost, doubled, half, brokenBackups }).toEqual({ lost: [], doubled: [], half: [], brokenBackups: [] });
    // Every kill falls after the first answer of its round; how many more there are is the machine's speed.
    expect(acknowledged).toBeGreaterThanOrEqual(kills);
  });

  test("a disk that fills up is told to whoever types; nothing acknowledged is missing, and with room it goes on", async () => {
    const full = await fullDisk(demo.folder, demo.ids);
    test.skip(full === null, "this machine lets nobody mount a small disk");
    expect(full!.faults).toEqual([]);
    expect(full!.refused).toBeGreaterThan(0);
  });

  test("a second server, a corrupt file, a file of tomorrow, an open door: refused in a sentence before anybody is let in", async () => {
    expect(await badStarts(demo.folder)).toEqual([]);
  });

  test("a clock put back two hours changes no order; a backup, a wreck and a restore give the same figures", async () => {
    expect(await clockBack(demo.folder, demo.ids)).toEqual([]);
    expect(await backupAndRestore(demo.folder, demo.ids)).toEqual([]);
  });
});
