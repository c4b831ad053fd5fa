import { expect, test } from "./fixture";
import { open, ownServer, startJob, typeReadings } from "./support";

const seconds = (text: string) => {
  const [m = "0", s = "0"] = text.split(":");
  return Number(m) * 60 + Number(s);
};

test("a server killed outright loses nothing acknowledged, and its clock comes back with the right time left", async ({ browser }) => {
  test.setTimeout(150_000);
  const server = await ownServer();
  await server.start();
  const context = await browser.newContext({ baseURL: server.url });
  const page = await context.newPage();
  try {
    const base = await startJob(page, { vehicle: "Kill test" });
    await open(page, `${base}/spray`);
    await typeReadings(page, "before", ["92 93 91", "90 91 89"]);
    await expect(page.getByTestId("spots-read")).toHaveText("2 of 8");
    await page.getByRole("button", { name: "Log coat 1" }).click();
    const left = page.getByTestId("clock-left");
    await expect(left).toHaveText(/^9:5\d$/);
    const started = Date.now();
    await open(page, `${base}/inspect`);

    await server.stop("SIGKILL");
    await typeReadings(page, "after", ["144"]);
    await expect(page.getByText("The server does not answer: 1 reading waits here and will be sent again")).toBeVisible();
    await page.reload().catch(() => {}); // the page is gone with the server, the reading is not
    await server.start();
    await open(page, `${base}/inspect`);
    const spot = page.getByText(/^2 readings to go here/); // typed, not acknowledged: sent again by itself and stored once
    await expect(spot).toBeVisible();
    await page.reload();
    await expect(spot).toBeVisible();

    await open(page, `${base}/spray`);
    await expect(page.getByRole("button", { name: "Log coat 2" })).toBeVisible();
    await expect(page.getByText("Readings before clear")).toHaveCount(0); // they are there: the page no longer asks for them
    const wanted = 600 - (Date.now() - started) / 1000;
    expect(Math.abs(seconds((await left.textContent())!) - wanted)).toBeLessThan(4);

    expect(await server.stop("SIGTERM")).toBe(0); // a clean stop, with an event stream open
    await server.start();
    await open(page, `${base}/spray`);
    await expect(left).toHaveText(/^\d:\d\d$/);
  } finally {
    await context.close();
    await server.stop("SIGKILL");
  }
});

test("a second window follows within a second", async ({ page, context }) => {
  const base = await startJob(page, { vehicle: "Two windows" });
  await open(page, `${base}/spray`);
  const other = await context.newPage();
  await open(other, "/");
  await expect(other.getByRole("link", { name: /Two windows/ })).toBeVisible();
  await other.waitForTimeout(500); // its event stream is open
  await page.getByRole("button", { name: "Log coat 1" }).click();
  await expect(page.getByText("Coat 1 logged")).toBeVisible();
  const clock = other.getByTestId("clock").filter({ hasText: "Two windows" });
  await expect(clock).toBeVisible({ timeout: 1000 });
  await clock.getByRole("button", { name: /Stop the flash clock/ }).click();
  await expect(page.getByTestId("clock").filter({ hasText: "Two windows" })).toHaveCount(0, { timeout: 1500 });
  await other.getByRole("button", { name: "Undo" }).click();
  await expect(page.getByTestId("clock").filter({ hasText: "Two windows" })).toHaveCount(1);
});

test("with the server away a link leaves the page as it is and says so; with the server back it leads on", async ({ browser }) => {
  const server = await ownServer();
  await server.start();
  const context = await browser.newContext({ baseURL: server.url });
  const page = await context.newPage();
  try {
    const base = await startJob(page, { vehicle: "Away" });
    await open(page, `${base}/spray/gun`);
    const name = page.locator('input[name="name"]').first();
    await name.fill("Gun of the day");
    await server.stop("SIGKILL");
    await page.waitForTimeout(500); // the window's stream breaks off
    await page.getByRole("link", { name: "Shop floor" }).click();
    await expect(page.getByText("You are still on this page")).toBeVisible();
    await page.getByRole("button", { name: "Keep this gun" }).click();
    await expect(page.getByText("it is still here. Try again").first()).toBeVisible();
    await expect(name).toHaveValue("Gun of the day");
    await server.start();
    await page.getByRole("link", { name: "Shop floor" }).click();
    await expect(page.getByRole("link", { name: /Away/ }).first()).toBeVisible();
  } finally {
    await context.close();
    await server.stop("SIGKILL");
  }
});
