import type { Page } from "@playwright/test";
import { METRIC } from "../core/kernel/units/quantities";
import { expect } from "./fixture";
import { open } from "./support";

/** Panels of a server that were looked up before: their addresses stay. */
const known = new Map<string, string>();
export async function panelPath(page: Page, vehicle: string, panel: string, station: string): Promise<string> {
  const { href: server } = new URL((await page.request.get("/healthz")).url());
  const asked = `${server} ${vehicle} ${panel}`;
  let href = known.get(asked);
  if (!href) {
    await open(page, "/");
    const link = page.locator("li", { hasText: vehicle }).getByRole("link", { name: new RegExp(panel) });
    href = (await link.first().getAttribute("href"))!;
    known.set(asked, href);
  }
  return href.replace(/[^/]+$/, station);
}
/** Where the first coat of a demo panel is put right. */
async function putRightPath(page: Page): Promise<string> {
  await open(page, await panelPath(page, "Lodos", "Front door", "spray"));
  return (await page.getByRole("link", { name: "Put right coat 1" }).getAttribute("href"))!;
}
/** A look into the newest backup, made where there is none. */
async function backupPath(page: Page): Promise<string> {
  await open(page, "/house/backups");
  const look = page.getByRole("link", { name: /^Look into it/ }).first();
  if ((await look.count()) === 0) await page.getByRole("button", { name: "Make one now" }).click();
  return (await look.getAttribute("href"))!;
}
/** Reads a spot of the front door, whose others a stand-in filled in: every page of it says so from then on. */
export async function readBesideSimulated(page: Page): Promise<void> {
  const panelId = (await panelPath(page, "Lodos", "Front door", "x")).split("/").at(-2)!;
  const fields = { intent: "reading", phase: "after", spot: "1", x_m: "0.5", y_m: "0.4", gauge: "typed", age_s: "0", value: "101.4" };
  const form = { ...fields, units: JSON.stringify(METRIC), clientKey: "beside-simulated" };
  expect((await page.request.post(`/do/panels/${panelId}/readings`, { form })).status()).toBe(200);
  await open(page, await panelPath(page, "Lodos", "Front door", "course"));
  await expect(page.getByRole("heading", { name: "Part of these films is simulated" })).toBeVisible();
}

const fixed = (path: string) => () => Promise.resolve(path);
/** Every main page with demo data, and how its address is found. */
export const PAGES: [string, (page: Page) => Promise<string>][] = [
  ["Floor", fixed("/")],
  ["Can I sand this?", fixed("/ask/sand")],
  ["Jobs", fixed("/jobs")],
  ["New job", fixed("/jobs/new")],
  ["Shelf", fixed("/shelf")],
  ["New product", fixed("/shelf/new")],
  ["New part", fixed("/shelf/parts/new")],
  ["New can", fixed("/shelf/cans/new")],
  ["Booth plan", fixed("/booth-plan")],
  ["Cards", fixed("/cards")],
  ["New card", fixed("/cards/new/edit")],
  ["Will it run?", fixed("/ask/run")],
  ["How much do I mix?", fixed("/ask/mix")],
  ["Which matte mix?", fixed("/ask/matte")],
  ["Practice", fixed("/practice")],
  ["Pattern test", fixed("/practice/pattern")],
  ["Practice bench", fixed("/practice/door-edge")],
  ["House", fixed("/house")],
  ["Backups", fixed("/house/backups")],
  ["Devices", fixed("/house/devices")],
  ["Not yet with the shop", fixed("/waiting")],
  ["Backup", backupPath],
  ["House ways", fixed("/house/ways")],
  ["House way", fixed("/house/ways/second-heavier")],
  ["Shortcuts", fixed("/keys")],
  ["Words", fixed("/words")],
  ["Course", (p) => panelPath(p, "Lodos", "Front door", "course")],
  ["Course, handed over", (p) => panelPath(p, "Lodos", "Bonnet", "course")],
  ["Plan", (p) => panelPath(p, "Meltem", "Rear quarter", "plan")],
  ["Put right", putRightPath],
  ["Change", (p) => panelPath(p, "Lodos", "Front door", "change")],
  ["Mix", (p) => panelPath(p, "Lodos", "Front door", "plan/mix")],
  ["Gloss, matte", (p) => panelPath(p, "Poyraz", "Cowl", "plan/gloss")],
  ["Pots", async (p) => (await panelPath(p, "Lodos", "Front door", "x")).replace(/panels\/.*$/, "pots")],
  ["Spray", (p) => panelPath(p, "Lodos", "Front door", "spray")],
  ["Below", (p) => panelPath(p, "Lodos", "Front door", "spray/below")],
  ["Guided card", (p) => panelPath(p, "Lodos", "Front door", "spray/mend?card=dirtInBase")],
  ["Ready", (p) => panelPath(p, "Lodos", "Front door", "spray/ready")],
  ["Gun", (p) => panelPath(p, "Lodos", "Front door", "spray/gun")],
  ["Coat plan", (p) => panelPath(p, "Lodos", "Rear door", "spray/coat-plan")],
  ["Vehicle", async (p) => (await panelPath(p, "Lodos", "Front door", "x")).replace(/panels\/.*$/, "vehicle")],
  ["Wet edge", async (p) => (await panelPath(p, "Lodos", "Front door", "x")).replace(/panels\/.*$/, "vehicle/wet-edge")],
  ["Dial", (p) => panelPath(p, "Lodos", "Front door", "spray/dial")],
  ["Path", (p) => panelPath(p, "Lodos", "Rear door", "spray/path")],
  ["Neighbour", (p) => panelPath(p, "Lodos", "Front door", "plan/neighbour")],
  ["Flow window", (p) => panelPath(p, "Lodos", "Front door", "spray/window")],
  ["Cure", (p) => panelPath(p, "Lodos", "Front door", "spray/cure")],
  ["Inspect", (p) => panelPath(p, "Lodos", "Bonnet", "inspect")],
  ["Inspect, inferred", (p) => panelPath(p, "Imbat", "Side panel", "inspect")],
  ["Film map", (p) => panelPath(p, "Meltem", "Rear quarter", "inspect/map")],
  ["Film through time", (p) => panelPath(p, "Lodos", "Bonnet", "inspect/time")],
  ["Defects", (p) => panelPath(p, "Imbat", "Side panel", "inspect/defects")],
  ["Count nibs", (p) => panelPath(p, "Imbat", "Side panel", "inspect/photo")],
  ["Reflection", (p) => panelPath(p, "Imbat", "Side panel", "inspect/reflection")],
  ["Causes", (p) => panelPath(p, "Meltem", "Rear quarter", "correct/causes")],
  ["Options", (p) => panelPath(p, "Meltem", "Rear quarter", "correct/options")],
  ["Flow coat", (p) => panelPath(p, "Meltem", "Boot lid", "correct/flow")],
  ["Next time", (p) => panelPath(p, "Lodos", "Bonnet", "hand-over/next-time")],
  ["Gauge", (p) => panelPath(p, "Lodos", "Bonnet", "inspect/gauge")],
  ["Correct", (p) => panelPath(p, "Meltem", "Rear quarter", "correct")],
  ["Correct, at work", (p) => panelPath(p, "Meltem", "Boot lid", "correct")],
  ["Booth view", async (p) => (await panelPath(p, "Lodos", "Front door", "x")).replace(/panels\/.*$/, "booth")],
  ["Work, booth view", async (p) => (await panelPath(p, "Meltem", "Boot lid", "")).replace("/panels/", "/booth/").replace(/\/$/, "")],
  ["Ledger", (p) => panelPath(p, "Lodos", "Bonnet", "ledger")],
  ["Hand over", (p) => panelPath(p, "Lodos", "Bonnet", "hand-over")],
  ["Choose what hangs", fixed("/practice/choose")],
  ["Colours and joints", async (p) => (await panelPath(p, "Lodos", "Front door", "x")).replace(/panels\/.*$/, "vehicle/colours")],
];

/** One page in so many, others each day; all of them in the long search, and one that is named is always looked at. */
export const today = <T>(pages: readonly T[], every: number): readonly T[] => {
  const day = Math.floor(Date.now() / 86_400_000);
  return pages.filter((_, i) => pages.length === 1 || process.env.SEARCH || (i + day) % every === 0);
};
