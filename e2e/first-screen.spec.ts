import type { Page } from "@playwright/test";
import { METRIC } from "../core/kernel/units/quantities";
import { expect, test } from "./fixture";
import { firstScreen } from "./first-screen";
import { PAGES, panelPath, today } from "./page-list";
import { open } from "./support";

const SIZES = [
  { width: 1280, height: 800 },
  { width: 820, height: 1180 },
  { width: 390, height: 844 },
] as const;

/** The pages of work: what a glove is at while the job goes on. */
const WORK = [
  "Can I sand this?",
  "Course",
  "Mix",
  "Spray",
  "Ready",
  "Inspect",
  "Inspect, inferred",
  "Defects",
  "Correct",
  "Booth view",
  "Work, booth view",
  "Hand over",
];

/** Reads a spot of the front door, whose others a stand-in filled in: every page of it says so from then on. */
async function readBesideSimulated(page: Page): Promise<void> {
  const panelId = (await panelPath(page, "Lodos", "Front door", "x")).split("/").at(-2)!;
  const fields = { intent: "reading", phase: "after", spot: "1", x_m: "0.5", y_m: "0.4", gauge: "typed", age_s: "0", value: "101.4" };
  const form = { ...fields, units: JSON.stringify(METRIC), clientKey: "first-screen-1" };
  expect((await page.request.post(`/do/panels/${panelId}/readings`, { form })).status()).toBe(200);
  await open(page, await panelPath(page, "Lodos", "Front door", "course"));
  await expect(page.getByRole("heading", { name: "Part of these films is simulated" })).toBeVisible();
}

test("no page asks for more than sixty words on its first screen, or forty before its first press; header and clocks are one line each", async ({
  page,
}) => {
  test.setTimeout(600_000);
  const wrong: string[] = [];
  const beside = today(
    PAGES.filter(([name]) => !WORK.includes(name)),
    3,
  );
  const again = PAGES.filter(([name]) => ["Course", "Spray"].includes(name)).map(
    ([name, pathOf]) => [`${name}, partly simulated`, pathOf] as const,
  );
  for (const [name, pathOf] of [...PAGES.filter(([name]) => WORK.includes(name)), ...beside, ...again]) {
    if (name === again[0]![0]) await readBesideSimulated(page);
    const path = name === "Hand over" ? await panelPath(page, "Lodos", "Front door", "hand-over") : await pathOf(page);
    // Pages beside the work, a third of them a day, at the size of a desk; all sizes of all pages in the long search.
    for (const size of WORK.includes(name) || process.env.SEARCH ? SIZES : SIZES.slice(0, 1)) {
      await page.setViewportSize(size);
      await open(page, path);
      await page.waitForTimeout(150);
      const { words, before, fold, action, field, fixed, beyond } = await firstScreen(page);
      const at = `${name}, ${size.width}`;
      if (words > 60 || before > 40) wrong.push(`${at}: ${words} words, ${before} before the first press`);
      if (beyond > 0) wrong.push(`${at}: ${beyond} px beyond the edge`);
      if (size.width === 1280 || !WORK.includes(name)) continue;
      if (fixed > 120) wrong.push(`${at}: header and clocks ${fixed} px`);
      if (action !== null && action > fold) wrong.push(`${at}: its press ends at ${action} of ${fold}`);
      if (field !== null && field > fold) wrong.push(`${at}: its first field ends at ${field} of ${fold}`);
    }
  }
  expect(wrong).toEqual([]);
});
