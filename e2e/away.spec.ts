import { type Server, type Socket, connect, createServer } from "node:net";
import { once } from "node:events";
import type { Browser, Page } from "@playwright/test";
import { METRIC } from "../core/kernel/units/quantities";
import config from "../playwright.config";
import { expect, test } from "./fixture";
import { keptRows, open, ownServer, startJob, typeReadings } from "./support";

/** Until the device keeps such rows: they are followed a moment after a page has settled. */
const keeps = (page: Page, what: RegExp) => expect.poll(() => keptRows(page), { timeout: 20_000 }).toMatch(what);

/** Until the device keeps the program too. */
const keepsProgram = (page: Page) =>
  page.waitForFunction(
    () => navigator.serviceWorker.controller !== null && navigator.serviceWorker.controller.state === "activated",
    null,
    {
      timeout: 60_000,
    },
  );

/** A device's way to the server, that can be cut: what is on it breaks off, and nothing comes through until it is whole again. */
async function wayTo(url: string): Promise<{ url: string; cut(): void; mend(): void; end(): void }> {
  const { port, hostname } = new URL(url);
  let isCut = false;
  const open = new Set<Socket>();
  const server: Server = createServer((socket) => {
    if (isCut) return void socket.destroy();
    const on = connect(Number(port), hostname);
    for (const s of [socket, on]) {
      open.add(s);
      s.on("error", () => s.destroy());
      s.on("close", () => {
        open.delete(s);
        socket.destroy();
        on.destroy();
      });
    }
    socket.pipe(on).pipe(socket);
  }).listen(0, "127.0.0.1");
  await once(server, "listening");
  const at = server.address() as { port: number };
  const cut = () => {
    isCut = true;
    for (const s of open) s.destroy();
  };
  return { url: `http://127.0.0.1:${at.port}`, cut, mend: () => (isCut = false), end: () => (cut(), server.close()) };
}

/** A device of its own, that may keep the program. */
async function device(browser: Browser, url: string) {
  const context = await browser.newContext({ baseURL: url, serviceWorkers: "allow" });
  return { context, page: await context.newPage() };
}
const notYet = (page: Page) => page.getByTestId("away");
const allSent = (page: Page) => expect(page.getByTestId("away")).toHaveCount(0, { timeout: 60_000 });

test("a server that dies between two coats: two tablets go on, also opened cold, and all is with the shop once, in order, when it is back", async ({
  browser,
}) => {
  test.setTimeout(300_000);
  const server = await ownServer();
  await server.start();
  const [one, two, pc] = [await device(browser, server.url), await device(browser, server.url), await device(browser, server.url)];
  const logged = (page: Page, number: number) => page.getByRole("button", { name: `Log coat ${number}`, exact: true });
  try {
    const bonnet = await startJob(one.page, { vehicle: "Lodos offline" });
    const door = await startJob(two.page, { vehicle: "Poyraz offline", shape: "door", coats: "3" });
    await open(one.page, `${bonnet}/spray`);
    await typeReadings(one.page, "before", ["92 93 91", "90 91 89"]);
    await expect(one.page.getByTestId("spots-read")).toHaveText("2 of 8");
    await logged(one.page, 1).click();
    await expect(logged(one.page, 2)).toBeVisible();
    await open(two.page, `${door}/spray`);
    await logged(two.page, 1).click();
    await expect(logged(two.page, 2)).toBeVisible();
    for (const { page } of [one, two]) {
      await keeps(page, /"reading"/);
      await keeps(page, /Poyraz offline/);
      await keepsProgram(page);
    }
    await one.page.waitForTimeout(3000); // each has heard of the other's coat

    await server.stop("SIGKILL");
    await logged(one.page, 2).click();
    await expect(notYet(one.page)).toContainText("1 entry not yet with the shop", { timeout: 30_000 });
    const coatAt = Date.now(); // the door's, whose clock is looked at below
    await logged(two.page, 2).click();
    await expect(notYet(two.page)).toContainText("1 entry not yet with the shop", { timeout: 30_000 });
    await two.page.getByLabel("Mixed, ml").fill("400");
    await two.page.getByRole("button", { name: "Start pot clock" }).click();
    await expect(notYet(two.page)).toContainText("2 entries not yet with the shop");
    await open(one.page, `${bonnet}/inspect`); // cold: this document comes from the device
    await typeReadings(one.page, "after", ["142 143", "140 141", "139 142", "144 143", "141 140", "143 142"]);
    await expect(notYet(one.page)).toContainText("7 entries not yet with the shop");
    await one.page.reload();
    await expect(notYet(one.page)).toContainText("7 entries not yet with the shop");
    const said = async () => (await one.page.locator("main").innerText()).replace(/\d+:\d\d/g, "");
    const whileAway = await said();
    expect(whileAway).toContain("µm");
    await open(two.page, `${door}/ledger`);
    const waits = two.page.getByRole("main").getByRole("listitem");
    await expect(waits.filter({ hasText: "not yet with the shop" })).toHaveCount(2); // the coat and the pot, of three entries
    await expect(waits).toHaveCount(3);
    await two.page.goto("/waiting");
    await expect(two.page.getByRole("list", { name: "Not yet with the shop" }).getByRole("listitem")).toHaveCount(2);
    await expect(two.page.getByRole("list", { name: "Not yet with the shop" })).toContainText("coat 2");

    await server.start();
    await allSent(one.page);
    await allSent(two.page);
    await open(one.page, `${bonnet}/inspect`);
    await expect.poll(said).toBe(whileAway);
    await open(pc.page, `${bonnet}/ledger`);
    await expect(pc.page.getByText("not yet with the shop")).toHaveCount(0);
    const lines = pc.page.getByRole("main").getByRole("listitem");
    await expect(lines.filter({ hasText: /^.*coat coat \d/ })).toHaveCount(2);
    await expect(lines.filter({ hasText: /reading/ })).toHaveCount(8); // two before, six after
    await open(pc.page, `${door}/spray`);
    // The flash runs from when the coat was sprayed, not from when it was sent.
    const left = (await pc.page.getByTestId("clock-left").allTextContents()).filter((text) => /^\d+:\d\d$/.test(text));
    const seconds = left.map((text) => text.split(":").reduce((sum, part) => 60 * sum + Number(part), 0));
    const wanted = 600 - (Date.now() - coatAt) / 1000;
    expect(Math.min(...seconds.map((s) => Math.abs(s - wanted)))).toBeLessThan(6);
  } finally {
    for (const { context } of [one, two, pc]) await context.close();
    await server.stop("SIGKILL");
  }
});

test("what the shop has otherwise meanwhile is shown beside what was entered, and a person decides; nothing is dropped by itself", async ({
  browser,
}) => {
  test.setTimeout(240_000);
  const server = await ownServer();
  await server.start();
  const way = await wayTo(server.url);
  const [tablet, pc] = [await device(browser, way.url), await device(browser, server.url)];
  const rows = tablet.page.getByRole("list", { name: "Not taken" }).getByRole("listitem");
  try {
    const base = new URL(await startJob(tablet.page, { vehicle: "Imbat twice" })).pathname;
    await open(tablet.page, `${base}/spray`);
    await tablet.page.getByRole("button", { name: "Log coat 1" }).click();
    await expect(tablet.page.getByRole("button", { name: "Log coat 2" })).toBeVisible();
    await keeps(tablet.page, /"coat"/);
    await keepsProgram(tablet.page);
    way.cut();
    // Both take the same coat out, one of them without the shop.
    await open(tablet.page, `${base}/ledger`);
    await tablet.page.getByRole("button", { name: "Take out coat" }).click();
    await expect(notYet(tablet.page)).toContainText("1 entry not yet with the shop", { timeout: 30_000 });
    await open(pc.page, `${base}/ledger`);
    await pc.page.getByRole("button", { name: "Take out coat" }).click();
    await expect(pc.page.getByRole("button", { name: "Put back coat" })).toBeVisible();
    way.mend();
    await expect(notYet(tablet.page)).toContainText("The shop did not take 1 entry as entered", { timeout: 60_000 });
    await tablet.page.getByRole("link", { name: "Look at it" }).click();
    await expect(rows).toHaveCount(1);
    await expect(rows).toContainText(/Imbat twice, bonnet: coat 1.*, taken out/i);
    await expect(rows).toContainText("The shop says");
    await expect(rows).toContainText(/There nowcoat 1.*, taken out/i);
    await rows.getByRole("button", { name: "Send it again" }).click();
    await expect(rows).toHaveCount(1);
    await rows.getByRole("button", { name: "Leave it out" }).click();
    await rows.getByRole("button", { name: /^For good/ }).click();
    await expect(tablet.page.getByTestId("kept-here")).toHaveText("Everything of this device is with the shop.");
  } finally {
    for (const { context } of [tablet, pc]) await context.close();
    way.end();
    await server.stop("SIGKILL");
  }
});

test("over plain http, where no service worker may keep the program, a page that is open goes on as well, and leads on", async ({
  playwright,
}) => {
  test.setTimeout(240_000);
  const name = "yakamoz.local";
  const server = await ownServer(undefined, { YAKAMOZ_HOSTS: name });
  await server.start();
  const { args = [], ...launch } = config.use!.launchOptions!;
  const browser = await playwright.chromium.launch({ ...launch, args: [...args, `--host-resolver-rules=MAP ${name} 127.0.0.1`] });
  try {
    const page = await browser.newPage({ baseURL: server.url.replace("127.0.0.1", name) });
    const base = new URL(await startJob(page, { vehicle: "Imbat plain" })).pathname;
    expect(await page.evaluate(() => [isSecureContext, "serviceWorker" in navigator])).toEqual([false, false]);
    await open(page, `${base}/spray`);
    await keeps(page, /Imbat plain/);
    await page.waitForFunction(() => localStorage.getItem("yakamoz-kept-program") !== null, null, { timeout: 60_000 });
    await server.stop("SIGKILL");
    await page.getByRole("button", { name: "Log coat 1", exact: true }).click();
    await expect(notYet(page)).toContainText("1 entry not yet with the shop", { timeout: 30_000 });
    await page.getByRole("navigation", { name: "Stations" }).getByRole("link", { name: "Inspect" }).click();
    await typeReadings(page, "after", ["142 143", "140 141"]);
    await expect(notYet(page)).toContainText("3 entries not yet with the shop");
    await server.start();
    await allSent(page);
    await open(page, `${base}/ledger`);
    const lines = page.getByRole("main").getByRole("listitem");
    await expect(lines.filter({ hasText: /coat 1/ })).toHaveCount(1);
    await expect(lines.filter({ hasText: /reading/ })).toHaveCount(2);
  } finally {
    await browser.close();
    await server.stop("SIGKILL");
  }
});

/** So many times each tablet's way breaks off: a day's tests take a few, `DISCONNECTIONS=200` the whole. */
const DISCONNECTIONS = Number(process.env.DISCONNECTIONS ?? 8);

test("two tablets that write to one panel while their ways to the server break off at random: nothing is lost, nothing is there twice", async ({
  browser,
}) => {
  test.setTimeout(120_000 + DISCONNECTIONS * 6000);
  const server = await ownServer();
  await server.start();
  const ways = [await wayTo(server.url), await wayTo(server.url)];
  const tablets = [await device(browser, ways[0]!.url), await device(browser, ways[1]!.url)];
  let seed = 20261201;
  const random = () => (seed = (seed * 1103515245 + 12345) % 2 ** 31) / 2 ** 31;
  try {
    const base = await startJob(tablets[0]!.page, { vehicle: "Meltem breaks off" });
    const panelId = base.split("/panels/")[1]!;
    for (const { page } of tablets) {
      await open(page, `${base}/spray`);
      await keeps(page, /Meltem breaks off/);
      await keepsProgram(page);
    }
    /** What every answer said was stored. */
    const stored: number[] = [];
    let n = 0;
    const write = async (of: number) => {
      const batch = Array.from({ length: 1 + Math.floor(3 * random()) }, () => ++n);
      const took = await tablets[of]!.page.evaluate(
        async ({ id, numbers, units }) => {
          const list: number[] = [];
          for (const number of numbers) {
            const fields = { intent: "reading", phase: "before", spot: "1", x_m: "0.5", y_m: "0.4", gauge: "typed", age_s: "0", units };
            const body = new URLSearchParams({ ...fields, value: String(50 + number / 10), clientKey: `${id}-${number}` });
            const { ok } = await fetch(`/do/panels/${id}/readings`, { method: "POST", body }).catch(() => ({ ok: false }));
            if (ok) list.push(number);
          }
          return list;
        },
        { id: panelId, numbers: batch, units: JSON.stringify(METRIC) },
      );
      stored.push(...took);
    };
    for (let i = 0; i < DISCONNECTIONS; i++) {
      const of = i % 2;
      const writing = Promise.all([write(0), write(1)]);
      await new Promise((done) => setTimeout(done, 120 * random()));
      ways[of]!.cut(); // in the middle of what is being sent
      await writing;
      await write(of);
      ways[of]!.mend();
      if (random() < 0.5) await write(1 - of);
    }
    for (const { page } of tablets) await allSent(page);
    const csv = await (await fetch(`${server.url}/do/panels/${panelId}/ledger.csv`)).text();
    const there = csv.split("\n").filter((line) => line.includes("reading")).length;
    console.log(`${DISCONNECTIONS} times broken off: ${n} sent, ${stored.length} answered as stored, ${there} there`);
    expect(there).toBe(stored.length);
    for (const number of stored) expect(csv).toContain(String(50 + number / 10));
    expect(stored.length).toBe(n); // a device that goes on refuses none of them
  } finally {
    for (const { context } of tablets) await context.close();
    for (const way of ways) way.end();
    await server.stop("SIGKILL");
  }
});
