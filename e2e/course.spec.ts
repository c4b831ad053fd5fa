import { type Page, expect, test } from "@playwright/test";
import { KEY_HEADER } from "#server/sent-headers";
import { open, ownServer, settled, startJob } from "./support";

const MIN_MS = 60_000;

/** What both journeys do again and again: the course some minutes later, and a coat logged as it is offered. */
function handOn(page: Page, server: Awaited<ReturnType<typeof ownServer>>, base: string) {
  return {
    course: async (minutes = 0) => {
      if (minutes > 0) await server.advance(minutes * MIN_MS);
      await open(page, `${base}/course`);
    },
    logCoat: async (n: number) => {
      await open(page, `${base}/spray`);
      await page.getByRole("button", { name: `Log coat ${n}` }).click();
      await expect(page.getByText(`Coat ${n} logged`)).toBeVisible();
    },
  };
}

test("three, sand, three by a moved clock: each wait, the night, sanding flat, and the next build without a wait", async ({ browser }) => {
  test.setTimeout(180_000);
  const server = await ownServer();
  await server.start();
  const page = await browser.newPage({ baseURL: server.url });
  const base = await startJob(page, { vehicle: "Course coupé", way: "Three, sand, three" });
  const now = page.getByTestId("course-now");
  const { course, logCoat } = handOn(page, server, base);
  await expect(now).toHaveText("Read the film below the clear now.");
  await open(page, `${base}/spray`);
  for (const v of ["92 93 91", "90 91 90", "94 93 94"]) {
    await page.locator("#reading-before").fill(v);
    await page.locator("#reading-before").press("Enter");
  }
  await expect(page.getByTestId("spots-read")).toHaveText("3 of 8");
  await course();
  await expect(now).toHaveText("Coat 1 of 6 now.");
  for (const n of [1, 2]) {
    await logCoat(n);
    await course();
    await expect(now).toContainText(`Flash after coat ${n} until`);
    await course(11);
    await expect(now).toHaveText(`Coat ${n + 1} of 6 now.`);
  }
  await logCoat(3);
  await course(11);
  // Not a fourth coat in minutes: it cures, here and in the strip and in the booth view.
  await expect(now).toContainText("Cure before sanding flat until");
  await expect(page.getByTestId("clock")).toContainText("Cure before sanding flat after coat 3");
  await open(page, `${base.replace(/\/panels\/.*$/, "")}/booth`);
  await expect(page.getByTestId("booth-next")).toContainText("cure, then sand it flat.");
  await expect(page.getByRole("button", { name: /^Start/ })).toHaveCount(0);
  await course(17 * 60);
  await expect(now).toHaveText("Sand flat, P800, and clean now.");
  await page.getByLabel("Came off, if read", { exact: false }).fill("9");
  await page.getByRole("button", { name: "Sanded flat and clean" }).click();
  await expect(now).toHaveText("Coat 4 of 6 now.");
  await logCoat(4);
  await course();
  await expect(now).toContainText("Flash after coat 4 until");
  await page.close();
  await server.stop("SIGTERM");
});

test("two faces: the back first, turned over when it may be touched, then the front; only the front adds film", async ({ browser }) => {
  test.setTimeout(180_000);
  const server = await ownServer();
  await server.start();
  const page = await browser.newPage({ baseURL: server.url });
  const base = await startJob(page, { vehicle: "Two faces", shape: "bootLid", faces: "2" });
  const now = page.getByTestId("course-now");
  const { course, logCoat } = handOn(page, server, base);
  await logCoat(1);
  await server.advance(11 * MIN_MS);
  await logCoat(2);
  await course();
  await expect(now).toContainText("Let it set before touching until");
  const section = page.getByRole("complementary", { name: "Section" });
  await expect(section).toContainText("Below the clear");
  await course(120);
  await expect(now).toHaveText("Turn the part over now.");
  await page.getByRole("button", { name: "Front up, laid flat" }).click();
  await expect(now).toHaveText("Coat 1 of 2, front now.");
  await open(page, `${base}/spray`);
  await expect(page.getByRole("heading", { name: "Coat 1, front, full wet" })).toBeVisible();
  await page.getByRole("button", { name: /^Log coat/ }).click();
  await course();
  await expect(now).toContainText("Flash after coat 1, front until");
  await expect(section).toContainText("As sprayed, predicted");
  await page.close();
  await server.stop("SIGTERM");
});

test("two quick taps store once: a job, a mix, a coat, and nothing of the step that follows at their place", async ({ browser }) => {
  test.setTimeout(120_000);
  const server = await ownServer();
  await server.start();
  const page = await browser.newPage({ baseURL: server.url });
  /** Two taps of a finger at one place, so far apart, whatever has come to stand there meanwhile. */
  const twice = async (name: RegExp, apart_ms: number) => {
    const press = page.getByRole("button", { name }).first();
    await press.scrollIntoViewIfNeeded();
    await page.waitForTimeout(600); // an eye finds it first
    const box = (await press.boundingBox())!;
    const at = [box.x + box.width / 2, box.y + box.height / 2] as const;
    await page.mouse.click(...at);
    await page.waitForTimeout(apart_ms);
    await page.mouse.click(...at);
    await settled(page);
  };
  const base = await startJob(page, { vehicle: "Twice", coats: "3" });
  await open(page, `${base}/course`);
  const ledger = async (kind: RegExp) => {
    const csv = await (await page.request.get(`/do/panels/${base.split("/").at(-1)!}/ledger.csv`)).text();
    return csv.split("\n").filter((line) => kind.test(line)).length;
  };
  await page.locator("#reading-before").fill("92 93 91");
  await page.locator("#reading-before").press("Enter");
  await page.getByRole("button", { name: /go on$/ }).click();
  await twice(/ml is in$/, 60);
  expect(await ledger(/,mix,/)).toBe(1);
  for (const [n, apart_ms] of [
    [1, 60],
    [2, 350],
  ] as const) {
    await twice(new RegExp(`^Coat ${n} is on, as planned$`), apart_ms);
    await expect(page.getByText(new RegExp(`Coat ${n} is on; its clock runs`)).first()).toBeVisible();
    await page.waitForTimeout(500);
    expect(await ledger(/,coat,/)).toBe(n);
  }
  // The second tap comes before the page has learnt of the first: what is sent again is answered in the words of the first.
  await page.route(/\/course\.data/, async (route) => {
    if (route.request().method() !== "POST") return route.fallback(); // a look at what is stored
    const headers = { ...route.request().headers(), [KEY_HEADER]: "a-request-of-its-own" };
    expect((await route.fetch({ headers })).ok()).toBe(true);
    await route.fulfill({ response: await route.fetch() });
  });
  await page.getByRole("button", { name: /^Coat 3 is on, as planned$/ }).click();
  await expect(page.getByText(/^Coat 3 is on; its clock runs, though: not before/)).toBeVisible();
  expect(await ledger(/,coat,/)).toBe(3);
  await page.unrouteAll({ behavior: "wait" });
  await open(page, "/jobs/new");
  await page.getByLabel("Vehicle or part").fill("Twice again");
  await twice(/^Start this job$/, 80);
  await open(page, "/jobs");
  await expect(page.getByRole("link", { name: "Twice again" })).toHaveCount(1);
  await page.close();
  await server.stop("SIGTERM");
});
