import { type ChildProcess, spawn } from "node:child_process";
import { once } from "node:events";
import { mkdtempSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { type Page, expect } from "@playwright/test";
import { freePort, listens, ownFolder } from "../scripts/trial/harness";

/** Collects what the console should never say. */
export function watchConsole(page: Page): string[] {
  const said: string[] = [];
  page.on("console", (m) => {
    if (m.text().startsWith("Service Worker registration blocked")) return; // by this test's own browser
    if (m.type() === "error" || m.type() === "warning") said.push(`${m.type()}: ${m.text()}`);
  });
  page.on("pageerror", (e) => said.push(String(e)));
  return said;
}

/**
 * Opens a page and waits until its scripts run, what followed the document stands in its place (until then it is there twice, once hidden) and
 * every control of it has been taken over by the scripts (until then what is typed reaches nobody).
 */
export async function open(page: Page, path: string): Promise<void> {
  await page.goto(path);
  await page.locator("html[data-live]").waitFor({ state: "attached" });
  await expect(page.locator('body > div[hidden][id^="S:"]')).toHaveCount(0);
  await page.waitForFunction(() =>
    [...document.querySelectorAll("main :is(input, select, textarea, button)")].every((e) =>
      Object.keys(e).some((key) => key.startsWith("__reactProps")),
    ),
  );
}

/** Waits until the page has sent and taken in everything it was about to: no form on its way, no page, no second look at its data. */
export async function settled(page: Page): Promise<void> {
  const underWay = () =>
    page.evaluate(() => {
      const router = (window as unknown as { __reactRouterDataRouter?: { state: RouterState } }).__reactRouterDataRouter;
      if (!router) return ["the page itself"];
      const { state } = router;
      const sent = [...state.fetchers.values()].filter((f) => f.state !== "idle").map((f) => f.formAction ?? "fetcher");
      return [...sent, ...[state.navigation.state, state.revalidation].filter((s) => s !== "idle")];
    });
  await expect.poll(underWay, { message: "what the page still has under way" }).toEqual([]);
  await page.evaluate(() => new Promise((drawn) => requestIdleCallback(drawn, { timeout: 2000 }))); // what came is drawn when nothing is left to do
}
/** Waits until no message stands over the foot of the page: one that slides in takes the press that was meant for what lies under it. */
export async function messagesGone(page: Page): Promise<void> {
  await page.mouse.move(2, 2); // a message that is pointed at stays
  await expect(page.locator("[data-sonner-toast]")).toHaveCount(0);
}
type RouterState = { navigation: { state: string }; revalidation: string; fetchers: Map<string, { state: string; formAction?: string }> };

/** A server of the test's own on an empty data folder, or a copy of one, to be killed and started again; its clock can be moved. */
export async function ownServer(like?: string, more: Record<string, string> = {}) {
  const folder = like ? ownFolder(like) : mkdtempSync(join(tmpdir(), "yakamoz-own-"));
  const env = {
    ...process.env,
    YAKAMOZ_DATA: folder,
    PORT: String(await freePort()),
    NODE_ENV: "production",
    ...more,
  };
  let child: ChildProcess | null = null;
  let ahead_ms = 0;
  return {
    folder,
    url: `http://127.0.0.1:${env.PORT}`,
    async start() {
      child = spawn(process.execPath, ["--import", "./e2e/shift-clock.mjs", "server.mjs"], {
        env: { ...env, E2E_AHEAD_MS: String(ahead_ms) },
        stdio: ["ignore", "pipe", "inherit", "ipc"],
      });
      if (!(await listens(child))) throw new Error("the server ended before it listened");
    },
    /** Moves the server's clock on; a page sees it when it is opened again. */
    async advance(ms: number) {
      ahead_ms += ms;
      if (!child) return;
      const heard = once(child, "message");
      child.send({ ahead_ms });
      await heard;
    },
    async stop(signal: NodeJS.Signals) {
      if (!child) return null;
      const gone = once(child, "exit") as Promise<[number | null]>;
      child.kill(signal);
      child = null;
      return (await gone)[0];
    },
  };
}

/** Switches the simulated devices on: a shop of its own begins without them. */
export async function useStandIns(page: Page): Promise<void> {
  await open(page, "/house");
  await page.getByRole("button", { name: "Switch them on" }).click();
  await expect(page.getByRole("button", { name: "Switch them off" })).toBeVisible();
}

/** Puts a product on the shelf and starts a job with one panel; ends on its Course. */
export async function startJob(
  page: Page,
  { vehicle, shape = "bonnet", coats, way, faces }: { vehicle: string; shape?: string; coats?: string; way?: string; faces?: "1" | "2" },
): Promise<string> {
  await open(page, "/shelf");
  if ((await page.getByRole("link", { name: /^Clear T/ }).count()) === 0) {
    await page.getByRole("link", { name: "New product" }).click();
    const figures = {
      Name: "Clear T",
      "Ratio by volume": "2:1",
      "Solids by volume, mixed, %": "48",
      "Film a coat, least, µm": "25",
      "Film a coat, most, µm": "32",
      "Flash, least, min": "10",
      "Flash, most, min": "45",
      "Pot life, min": "90",
      "Sand, min": "960",
    };
    for (const [label, value] of Object.entries(figures)) await page.getByLabel(label, { exact: true }).fill(value);
    await page.getByRole("button", { name: "Put it on the shelf" }).click();
    await expect(page.getByRole("heading", { name: "Shelf", exact: true })).toBeVisible();
  }
  await open(page, "/jobs/new");
  await page.getByLabel("Vehicle or part").fill(vehicle);
  await page.getByLabel("Shape").selectOption(shape);
  await page.getByLabel("Clear from the shelf").selectOption({ label: "Clear T" });
  if (way) await page.getByRole("radio", { name: way }).click();
  if (faces) await page.getByLabel("Faces", { exact: true }).selectOption(faces);
  if (coats) await page.getByLabel("Coats", { exact: true }).fill(coats);
  await page.getByRole("button", { name: "Start this job" }).click();
  await expect(page).toHaveURL(/\/course$/);
  return page.url().replace(/\/course$/, "");
}

/** Goes to a page beside the course of spraying, folded away under *More*. */
export async function beside(page: Page, name: string): Promise<void> {
  await page.getByRole("navigation", { name: "Spray" }).getByText("More", { exact: true }).click();
  await page.getByRole("navigation", { name: "Spray" }).getByRole("link", { name, exact: true }).click();
}

/** Types readings spot by spot, Enter after each, as a gauge that is a keyboard does. */
export async function typeReadings(page: Page, phase: "before" | "after" | "recheck", values: readonly string[]): Promise<void> {
  const input = page.locator(`#reading-${phase}`);
  for (const value of values) {
    await input.fill(value);
    await input.press("Enter");
  }
}

/** What a device keeps of the shop's rows, as one text; empty where it keeps nothing yet. */
export const keptRows = (page: Page): Promise<string> =>
  page.evaluate(async () => {
    if (!(await indexedDB.databases()).some((d) => d.name === "yakamoz-device")) return ""; // opening it would make it
    return new Promise<string>((resolve) => {
      const asked = indexedDB.open("yakamoz-device");
      asked.onerror = () => resolve("");
      asked.onsuccess = () => {
        const db = asked.result;
        if (!db.objectStoreNames.contains("rows")) return resolve("");
        const all = db.transaction("rows").objectStore("rows").getAll();
        all.onsuccess = () => {
          db.close();
          resolve(JSON.stringify(all.result));
        };
      };
    });
  });
