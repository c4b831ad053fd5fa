import { expect, test } from "./fixture";
import { firstScreen } from "./first-screen";
import { PAGES, panelPath, readBesideSimulated, today } from "./page-list";
import { open } from "./support";

test.use({ ownShop: true });

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

/** So long after a coat the course also says what a break asks for. */
const BREAK_MS = 25 * 60_000;

test("no page asks for more than sixty words on its first screen, or forty before its first press; header and clocks are one line each", async ({
  page,
  server,
}) => {
  test.setTimeout(600_000);
  const wrong: string[] = [];
  const beside = today(
    PAGES.filter(([name]) => !WORK.includes(name)),
    3,
  );
  const again = (state: string) =>
    PAGES.filter(([name]) => ["Course", "Spray"].includes(name)).map(([name, pathOf]) => [`${name}, ${state}`, pathOf] as const);
  const simulated = again("partly simulated");
  const later = again("partly simulated, after a break");
  for (const [name, pathOf] of [...PAGES.filter(([name]) => WORK.includes(name)), ...beside, ...simulated, ...later]) {
    if (name === simulated[0]![0]) await readBesideSimulated(page);
    if (name === later[0]![0]) await server.shiftClock(BREAK_MS);
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
  await server.shiftClock(0); // other files of this worker go on with it
  expect(wrong).toEqual([]);
});
