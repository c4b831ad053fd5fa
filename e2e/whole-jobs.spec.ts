import type { Browser, Page } from "@playwright/test";
import { expect, test } from "./fixture";
import { type Hand, hand } from "./hand";
import { open, ownServer } from "./support";

const MIN_MS = 60_000;
const BELOW = ["92 93 91", "90 91 90", "94 93 94", "91 91 92", "93 92 93", "90 90 91"];
const ABOVE = ["145 146 145", "142 142 143", "147 147 148", "144 145 144", "145 146 145", "139 140 139"];

interface Shop {
  page: Page;
  h: Hand;
  /** Time passes: the page is as it stands when somebody looks at it again. */
  later: (minutes: number) => Promise<void>;
}

/** A shop of the test's own, with the demo's shelf or an empty one, whose clock is moved; what the hand spent is told at the end. */
async function inShop(browser: Browser, like: string | undefined, work: (shop: Shop) => Promise<void>): Promise<void> {
  const server = await ownServer(like);
  await server.start();
  const page = await browser.newPage({ baseURL: server.url });
  page.setDefaultTimeout(15_000);
  const h = hand(page);
  const later = async (minutes: number) => {
    await server.advance(minutes * MIN_MS);
    await open(page, page.url());
  };
  try {
    await open(page, "/");
    await work({ page, h, later });
  } finally {
    console.log(`${h.touches()} touches: ${h.told()}`);
    await page.close();
    await server.stop("SIGKILL");
  }
}

test("two plastic caps that no gauge reads, together, to both reports: at most 25 touches", async ({ browser }) => {
  test.setTimeout(180_000);
  await inShop(browser, process.env.E2E_DEMO, async ({ page, h, later }) => {
    const here = page.getByTestId("step-here");
    const title = page.getByRole("heading", { level: 1 });
    h.part("new job");
    await h.follow("New job");
    await h.type("Vehicle or part", "Caps touched");
    await h.press("Mirror cap");
    await h.press("Mirror cap");
    await h.choose("What lies below", "Plastic or composite");
    await h.press("Start this job");
    await expect(title).toHaveText("Caps touched, mirror cap");
    h.part("mix, coats");
    await h.press("Mirror cap 2");
    await h.press(/one pot is in$/);
    for (const coat of [1, 2]) {
      await h.press(new RegExp(`coat ${coat} is on, as planned$`));
      await expect(page.getByText(new RegExp(`coat ${coat} is on; its clock runs`)).first()).toBeVisible();
      await later(15);
    }
    await later(3 * 24 * 60);
    for (const cap of ["Mirror cap", "Mirror cap 2"]) {
      h.part(cap);
      if (cap === "Mirror cap 2") await h.follow(cap);
      await expect(title).toHaveText(`Caps touched, ${cap.toLowerCase()}`);
      if ((await here.getAttribute("data-step-here")) === "inspect" && cap === "Mirror cap") await h.press(/nothing found$/i);
      await expect(here).toHaveAttribute("data-step-here", "hand over");
      await Promise.all([page.waitForEvent("download"), h.follow("Report, PDF")]);
      await h.press(/^Hand it over/);
      await expect(page.getByTestId("course-now")).toHaveText("Handed over. Nothing is left to do.");
    }
    expect(h.touches()).toBeLessThanOrEqual(25);
  });
});

test("tank and two side covers in matte, both faces, from a row of cards to the gloss they go out by: at most 70 touches", async ({
  browser,
}) => {
  test.setTimeout(240_000);
  await inShop(browser, process.env.E2E_DEMO, async ({ page, h, later }) => {
    const here = page.getByTestId("step-here");
    const title = page.getByRole("heading", { level: 1 });
    const spots = async () => Number(/of (\d+)/.exec((await page.getByTestId("spots-read").textContent())!)![1]);
    const at = async (name: string) => {
      await h.follow(name);
      await expect(title).toHaveText(`Kite touched, ${name.toLowerCase()}`);
    };
    /** The part at hand is read whole, then the others. */
    const readAll = async (phase: "before" | "after", lines: readonly string[], others: readonly string[]) => {
      for (const [k, part] of ["", ...others].entries()) {
        if (k > 0) await at(part);
        await h.read(phase, lines.slice(0, await spots()));
      }
      await h.press(/spots read: go on/);
    };
    h.part("new job");
    await h.follow("New job");
    await h.type("Vehicle or part", "Kite touched");
    for (const part of ["Tank", "Mirror cap", "Mirror cap"]) await h.press(part);
    await h.tap(page.getByRole("radio", { name: "Matte, two closed" }));
    await h.type(/^Gloss wanted at 60°/, "12");
    await h.choose("Faces", "both, the back first");
    await h.press("Start this job");
    await expect(title).toHaveText("Kite touched, tank");

    h.part("cards");
    await h.follow("Plan");
    await h.follow("Gloss");
    await h.tap(page.getByText("Read a row of cards"));
    for (const [i, gloss] of ["47", "38", "28", "19", "12"].entries()) await h.type(`Card ${i + 1}, gloss at 60°, GU`, gloss);
    await h.press("Keep these cards");
    await expect(page.getByText("5 cards in the library").first()).toBeVisible();
    await expect(page.getByTestId("matte-sentence")).toContainText(/matting component gives 12 GU/);
    await h.press(/^Take .* for this job$/);
    await expect(page.getByText(/% taken: it stands in the mix/)).toBeVisible();
    await h.tap(page.getByRole("link", { name: /^Course/ }).first());

    h.part("film below");
    await expect(here).toHaveAttribute("data-step-here", "before");
    await readAll("before", BELOW, ["Mirror cap", "Mirror cap 2"]);

    h.part("mix, coats");
    await h.press("Tank");
    await h.press("Mirror cap");
    const coats = async (face: string, then_min: number) => {
      await h.press(/one pot is in$/);
      await expect(page.getByText(/mixed; the pot clock runs/).first()).toBeVisible();
      for (const n of [1, 2]) {
        await h.press(new RegExp(`coat ${n} is on, as planned$`));
        await expect(page.getByText(new RegExp(`coat ${n} is on; its clock runs`)).first()).toBeVisible();
        await later(n === 1 ? 17 : then_min);
      }
      await expect(page.getByTestId("course-done").getByText(new RegExp(`^Coat \\d of 2, ${face}$`))).toHaveCount(2);
    };
    await coats("back", 25 * 60); // so long that its pot is over: the front wants one of its own
    await h.press(/front up, hung$/);
    await expect(page.getByText(/turned$/).first()).toBeVisible();
    await coats("front", 3 * 24 * 60);

    h.part("film after");
    await expect(here).toHaveAttribute("data-step-here", "after");
    await readAll("after", ABOVE, ["Tank", "Mirror cap"]);
    await h.press(/nothing found$/);
    await expect(page.getByText(/ooked over: nothing found/).first()).toBeVisible();

    h.part("gloss, hand over");
    for (const [k, part] of ["Mirror cap", "Mirror cap 2", "Tank"].entries()) {
      if (k > 0) await at(part);
      await expect(here).toHaveAttribute("data-step-here", "hand over");
      await h.type(/^At 60°/, "12.4 11.9 12.6");
      await h.press("Keep it");
      await expect(page.locator("[data-point='gloss']")).toContainText("12.4 GU at 60°, wanted 12.0");
      await Promise.all([page.waitForEvent("download"), h.follow("Report, PDF")]);
      await h.press(/^Hand it over/);
      await expect(page.getByTestId("course-now")).toHaveText("Handed over. Nothing is left to do.");
    }
    expect(h.touches()).toBeLessThanOrEqual(70);
    await open(page, `${new URL(page.url()).pathname.replace(/\/panels\/.*$/, "")}/pots`);
    await expect(page.getByTestId("pot")).toHaveCount(2);
    await expect(page.getByTestId("pot").getByText(/, coat [12]/)).toHaveCount(12);
  });
});

/** Worked through, step by step, as the plan says. */
async function workThrough(page: Page, h: Hand): Promise<void> {
  const at = page.getByTestId("work-here").locator("p").first();
  const through = page.getByRole("button", { name: "Worked through: go on" });
  await expect(at).toBeVisible();
  while (await at.isVisible()) {
    const name = await at.textContent();
    await h.press(/^Done/);
    await expect(at.or(through)).not.toHaveText(name!);
  }
  await h.press("Worked through: go on");
}

test("a restoration: three coats, overnight, sanded flat, three more, polished, to its report: at most 45 touches", async ({ browser }) => {
  test.setTimeout(240_000);
  await inShop(browser, process.env.E2E_DEMO, async ({ page, h, later }) => {
    const here = page.getByTestId("step-here");
    h.part("new job");
    await h.follow("New job");
    await h.type("Vehicle or part", "Restored touched");
    await h.press("Bonnet");
    await h.tap(page.getByRole("radio", { name: "Three, sand, three" }));
    await h.press("Start this job");
    h.part("film below");
    await h.read("before", BELOW);
    await h.press(/spots are enough: go on/);
    h.part("mix, coats");
    await h.press(/is in$/);
    const coat = async (n: number) => {
      await h.press(new RegExp(`^Coat ${n} is on, as planned$`));
      await expect(page.getByText(new RegExp(`coat ${n} is on; its clock runs`, "i")).first()).toBeVisible();
    };
    for (const n of [1, 2, 3]) {
      await coat(n);
      await later(n < 3 ? 15 : 18 * 60);
    }
    h.part("flat, coats");
    await h.press("Sanded flat and clean");
    await expect(page.getByText("Sanded flat; the next coat begins a new build").first()).toBeVisible();
    for (const n of [4, 5, 6]) {
      await coat(n);
      await later(n < 6 ? 15 : 4 * 24 * 60);
    }
    h.part("film after");
    await h.read("after", ["221 222 221", "218 219 218", "224 223 224", "220 221 220", "222 221 222", "214 215 214"]);
    await h.press(/spots are enough: go on/);
    h.part("look over, decide");
    await h.press("Nothing found");
    await expect(here).toHaveAttribute("data-step-here", "correct");
    await h.tap(page.getByRole("radio", { name: "Short sanding" }));
    await expect(page.getByTestId("verdict")).toHaveAttribute("data-verdict", /safe|caution|stop/);
    await h.press(/^Use this plan/);
    h.part("work");
    await workThrough(page, h);
    h.part("film again, hand over");
    await h.read("recheck", ["206 207 206", "203 204 203", "209 208 209", "205 206 205", "207 206 207", "199 200 199"]);
    await h.press(/spots are enough: go on/);
    await Promise.all([page.waitForEvent("download"), h.follow("Report, PDF")]);
    await h.press(/^Hand it over/);
    await expect(page.getByTestId("course-now")).toHaveText("Handed over. Nothing is left to do.");
    expect(h.touches()).toBeLessThanOrEqual(45);
  });
});

test("an empty shop, led by its own pages, to the first verdict on a real panel: at most 35 touches", async ({ browser }) => {
  test.setTimeout(180_000);
  await inShop(browser, undefined, async ({ page, h, later }) => {
    h.part("shop");
    await h.type("Name of the shop", "Harbour Five");
    await h.press("Keep it");
    await expect(page.getByTestId("first-hour").locator("[data-step='0']")).toHaveAttribute("data-done", "true");
    h.part("clear");
    await h.press("2:1, high solids");
    await expect(page.getByTestId("first-hour").locator("[data-step='1']")).toHaveAttribute("data-done", "true");
    h.part("job");
    await h.follow("Start a job");
    await h.type("Vehicle or part", "First bonnet");
    await h.press("Bonnet");
    await h.press("Start this job");
    h.part("film and coats");
    await h.read("before", BELOW.slice(0, 4));
    await h.press(/spots are enough: go on/);
    for (const coat of [1, 2]) {
      await h.press(new RegExp(`^Coat ${coat} is on, as planned$`));
      await expect(page.getByText(new RegExp(`coat ${coat} is on; its clock runs`, "i")).first()).toBeVisible();
      await later(15);
    }
    await later(2 * 24 * 60);
    await h.read("after", ABOVE.slice(0, 4));
    await h.press(/spots are enough: go on/);
    h.part("verdict");
    await page.getByTestId("step-here").getByText("Nothing found").waitFor();
    await h.press(/^Not now: correct/);
    await h.tap(page.getByRole("radio", { name: "Short sanding" }));
    await expect(page.getByTestId("verdict")).toHaveAttribute("data-verdict", /safe|caution|stop/);
    expect(h.touches()).toBeLessThanOrEqual(35);
  });
});

test("a production job of two panels, from the Floor to both reports, without leaving the course: at most 45 touches besides its readings", async ({
  browser,
}) => {
  test.setTimeout(240_000);
  await inShop(browser, process.env.E2E_DEMO, async ({ page, h, later }) => {
    const here = page.getByTestId("step-here");
    const title = page.getByRole("heading", { level: 1 });
    h.part("new job");
    await h.follow("New job");
    await h.type("Vehicle or part", "Imbat touched");
    await h.press("Door");
    await h.press("Wing");
    await h.press("Start this job");
    await expect(title).toHaveText("Imbat touched, door");
    expect(h.touches()).toBeLessThanOrEqual(6);

    h.part("film below");
    await h.read("before", BELOW);
    await h.follow("Wing");
    await expect(title).toHaveText("Imbat touched, wing");
    await h.read("before", BELOW);
    await h.press(/spots are enough: go on/);

    h.part("mix, coats");
    await h.press("Door"); // ticked: from now on they go together
    await h.press(/one pot is in$/);
    await expect(page.getByText(/mixed; the pot clock runs/).first()).toBeVisible();
    await h.press(/coat 1 is on, as planned$/);
    await expect(page.getByText(/coat 1 is on; its clock runs/).first()).toBeVisible();
    await later(15);
    await h.press(/coat 2 is on, as planned$/);
    await expect(page.getByText(/coat 2 is on; its clock runs/).first()).toBeVisible();

    h.part("bake");
    await later(25);
    await h.press(/heat on$/);
    await expect(page.getByText(/heat is on; its clock runs/).first()).toBeVisible();
    await later(31);
    await h.press(/heat off$/);
    await expect(page.getByText(/baked; it cools now/).first()).toBeVisible();
    await later(24 * 60);

    h.part("film after");
    await h.read("after", ABOVE);
    await h.press(/spots are enough: go on/);

    h.part("look over");
    await expect(here).toHaveAttribute("data-step-here", "inspect");
    const drawing = page.getByRole("application");
    await h.tapAt(drawing, 0.4, 0.25);
    await h.press("Run");
    await h.press(/^thin paper/);
    await h.press("Keep it, go on looking");
    await expect(page.getByText("Run placed").first()).toBeVisible();
    await h.press("Nib");
    for (const x of [0.3, 0.5, 0.6, 0.7]) await h.tapAt(drawing, x, 0.3);
    await h.press("Keep it, go on looking");
    await expect(page.getByText("Nib placed").first()).toBeVisible();
    await h.press("Nothing else: done");

    h.part("decide, work");
    await expect(here).toHaveAttribute("data-step-here", "correct");
    await h.press(/^Use this plan/);
    await workThrough(page, h);

    h.part("film again");
    await expect(here).toHaveAttribute("data-step-here", "again");
    await h.read("recheck", ["142 142 143", "140 140 141", "143 144 143", "141 141 142", "142 143 142", "137 138 137"]);
    await h.press(/spots are enough: go on/);

    const handOver = async () => {
      await expect(here).toHaveAttribute("data-step-here", "hand over");
      await Promise.all([page.waitForEvent("download"), h.follow("Report, PDF")]);
      await h.press(/^Hand it over/);
      await expect(page.getByTestId("course-now")).toHaveText("Handed over. Nothing is left to do.");
    };
    h.part("hand over");
    await handOver();

    h.part("the other panel");
    await h.follow("Door");
    await expect(title).toHaveText("Imbat touched, door");
    await h.read("after", ABOVE);
    await h.press(/spots are enough: go on/);
    await h.press("Nothing found");
    await expect(page.getByText("Looked over: nothing found").first()).toBeVisible();
    await handOver();
    expect(h.touches()).toBeLessThanOrEqual(45);
    expect(new URL(page.url()).pathname).toMatch(/\/course$/);
  });
});
