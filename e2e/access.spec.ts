import { type Browser, type BrowserContext, type Page, expect, test } from "@playwright/test";
import { TrialServer, ownFolder } from "../scripts/trial/harness";
import { hand } from "./hand";
import { NOTHING_FOUND, WIDE, axeByDayAndNight, outAndSmallAtSizes } from "./look-over";
import { keptRows, open, settled, watchConsole } from "./support";

/** Other machines of the network are other addresses of this one. */
const TABLET = "Mozilla/5.0 (Linux; Android 14; Tablet) Chrome/140";

let server: TrialServer;
const at = (machine: number, path = "/") => `http://127.0.0.${machine}:${server.port}${path}`;

test.beforeEach(async () => {
  server = new TrialServer(ownFolder(process.env.E2E_DEMO), { HOST: "127.0.0.1,127.0.0.2" }, ["--lan"]);
  if (!(await server.start())) throw new Error(server.said);
});
test.afterEach(() => server.stop("SIGKILL"));

const machine = (browser: Browser, userAgent?: string): Promise<BrowserContext> =>
  browser.newContext({ viewport: WIDE, ...(userAgent ? { userAgent } : {}) });

/** What is wrong with how a page looks, at three sizes and in both themes. */
async function lookedOver(page: Page, name: string): Promise<void> {
  const found = { name, ...(await axeByDayAndNight(page)), ...(await outAndSmallAtSizes(page)) };
  expect(found).toEqual({ name, ...NOTHING_FOUND });
  await page.setViewportSize(WIDE);
}

test("owner, a second tablet, a painter's PIN: at most 15 touches, by the pages alone; every page of it can be read by everybody", async ({
  browser,
}) => {
  test.setTimeout(240_000);
  const pc = await (await machine(browser)).newPage();
  const tablet = await (await machine(browser, TABLET)).newPage();
  const said = [...[pc, tablet].map(watchConsole)];
  const owner = hand(pc);
  await open(pc, at(1));
  await lookedOver(pc, "Owner");
  await owner.type("Passcode", "harbour-9-clear");
  await owner.press("I am the owner");
  await expect(pc.getByRole("heading", { name: "People and devices" })).toBeVisible();
  await owner.press("Pair a device");
  const code = (await pc.getByTestId("code").innerText()).replace(/\s/g, "");
  await lookedOver(pc, "People and devices, with a code");

  const glove = hand(tablet);
  await open(tablet, at(2));
  await lookedOver(tablet, "Pair");
  await open(tablet, at(2, `/pair?code=${code}`)); // as its camera reads it off the owner's screen
  await glove.press("Pair this device");
  await expect(tablet).toHaveURL(/sign-in/);

  await owner.type("Name", "Painter A");
  await owner.type("PIN", "4071");
  await owner.press("Add");
  await expect(pc.getByText("Painter A, painter")).toBeVisible();
  await lookedOver(pc, "People and devices");

  await open(tablet, at(2, "/sign-in?to=/jobs"));
  await lookedOver(tablet, "Sign in");
  await glove.press(/^Painter A/);
  await expect(tablet.getByRole("heading", { name: "Hello Painter A." })).toBeVisible();
  await lookedOver(tablet, "PIN");
  await glove.type("PIN", "4071");
  await glove.press("Come in");
  await expect(tablet.getByRole("heading", { name: "Jobs", exact: true })).toBeVisible();
  const touches = owner.touches() + 1 + glove.touches(); // the camera is one
  console.log(`set up on the network: ${touches} touches`);
  expect(touches).toBeLessThanOrEqual(15);

  await lookedOver(tablet, "Jobs, with who is there");
  await tablet.goto(at(2, "/house/people"));
  await expect(tablet.getByText("As painter you cannot say who may come in")).toBeVisible();
  await open(tablet, at(2, "/trust"));
  await tablet.getByText("Android tablet or telephone").click();
  await lookedOver(tablet, "The safe address");
  await pc.getByRole("link", { name: "Change Painter A" }).click();
  await expect(pc.getByRole("heading", { name: "Painter A" })).toBeVisible();
  await lookedOver(pc, "A person");
  expect(said.flat().filter((s) => !s.includes("403"))).toEqual([]);
});

test("on a tablet: two taps to somebody else, who is told what is not theirs; a PIN that has run out loses nothing; an ended tablet is out at once", async ({
  browser,
}) => {
  test.setTimeout(120_000);
  const pc = await (await machine(browser)).newPage();
  await open(pc, at(1));
  await pc.getByLabel("Passcode").fill("harbour-9-clear");
  await pc.getByRole("button", { name: "I am the owner" }).click();
  await expect(pc.getByRole("heading", { name: "People and devices" })).toBeVisible();
  for (const [name, role, pin] of [
    ["Painter A", "painter", "4071"],
    ["Apprentice", "apprentice", "5082"],
  ] as const) {
    await pc.getByLabel("Name").fill(name);
    await pc.getByLabel("Role").selectOption(role);
    await pc.getByLabel("PIN").fill(pin);
    await pc.getByRole("button", { name: "Add", exact: true }).click();
    await expect(pc.getByText(`${name}, ${role}`)).toBeVisible();
    await settled(pc);
  }
  await pc.getByRole("button", { name: "Pair a device" }).click();
  const code = (await pc.getByTestId("code").innerText()).replace(/\s/g, "");

  const tablet = await (await machine(browser, TABLET)).newPage();
  await open(tablet, at(2, `/pair?code=${code}`));
  await tablet.getByRole("button", { name: "Pair this device" }).click();
  const comeIn = async (name: string, pin: string) => {
    await tablet.getByRole("button", { name: new RegExp(`^${name}`) }).click();
    for (const figure of pin) await tablet.getByRole("button", { name: figure, exact: true }).click();
    await tablet.getByRole("button", { name: "Come in" }).click();
    await tablet.getByRole("navigation", { name: "Places" }).waitFor();
  };
  await comeIn("Apprentice", "5082");
  await tablet.getByRole("link", { name: /is at this screen/ }).click();
  await comeIn("Painter A", "4071");
  await expect(tablet.getByRole("link", { name: /Painter A/ })).toBeVisible();
  // Two taps, and nothing typed: the apprentice's PIN was given here.
  await open(tablet, at(2, "/jobs"));
  await expect(tablet.getByRole("button", { name: /^Archive/ }).first()).toBeVisible();
  await tablet.getByRole("link", { name: /is at this screen/ }).click();
  await tablet.getByRole("button", { name: /^Apprentice/ }).click();
  await expect(tablet).toHaveURL(at(2, "/jobs"));
  await expect(tablet.getByRole("link", { name: /Apprentice/ })).toBeVisible();
  await expect(tablet.getByRole("button", { name: /^Archive/ })).toHaveCount(0);
  await open(tablet, at(2, "/house"));
  await expect(tablet.getByLabel("An hour of work costs")).toHaveCount(0);
  await expect.poll(() => keptRows(tablet), { timeout: 20_000 }).toContain('"shop"');
  await expect.poll(() => keptRows(tablet), { timeout: 20_000 }).not.toMatch(/labourPerHour|argon2/); // nor does the tablet keep them

  await open(tablet, at(2, "/jobs/new"));
  await tablet.getByLabel("Vehicle or part").fill("Karayel pickup");
  // The page is pressed before it has heard by itself that nobody is signed in any more.
  let pressed = () => {};
  const heldBack = new Promise<void>((go) => (pressed = go));
  const asksAgain = tablet.waitForRequest("**/do/events");
  await tablet.route("**/do/events", (route) => heldBack.then(() => route.continue()));
  await server.shiftClock(13 * 3_600_000);
  await tablet.getByRole("button", { name: "Start this job" }).click();
  await expect(tablet.getByText("Nobody is signed in on this device any more").first()).toBeVisible();
  await expect(tablet.getByLabel("Vehicle or part")).toHaveValue("Karayel pickup");
  await asksAgain;
  pressed();
  await expect(tablet.getByRole("heading", { name: "Who is here?" })).toBeVisible(); // it has heard
  await comeIn("Painter A", "4071");
  await expect(tablet).toHaveURL(at(2, "/jobs/new"));
  await expect(tablet.getByLabel("Vehicle or part")).toHaveValue("Karayel pickup");

  await open(pc, at(1, "/house/people")); // the owner's passcode has run out too
  await pc.getByRole("button", { name: /^Owner/ }).click();
  await pc.getByLabel("Passcode").fill("harbour-9-clear");
  await pc.getByRole("button", { name: "Come in" }).click();
  await pc.getByRole("button", { name: /^End it.*Tablet/ }).click();
  await pc.getByRole("button", { name: /^It has to be paired again.*Tablet/ }).click();
  await expect(tablet.getByRole("heading", { name: "This device is not let in yet." })).toBeVisible();
  await expect.poll(() => keptRows(tablet), { timeout: 20_000 }).toBe("[]"); // and keeps nothing of the shop any more
});
