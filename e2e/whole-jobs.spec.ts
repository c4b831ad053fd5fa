import { expect, test } from "./fixture";
import { hand } from "./hand";
import { open, ownServer } from "./support";

const MIN_MS = 60_000;
const BELOW = ["92 93 91", "90 91 90", "94 93 94", "91 91 92", "93 92 93", "90 90 91"];
const ABOVE = ["145 146 145", "142 142 143", "147 147 148", "144 145 144", "145 146 145", "139 140 139"];

test("a production job of two panels, from the Floor to both reports, without leaving the course: at most 45 touches besides its readings", async ({
  browser,
}) => {
  test.setTimeout(240_000);
  const server = await ownServer(process.env.E2E_DEMO);
  await server.start();
  const page = await browser.newPage({ baseURL: server.url });
  page.setDefaultTimeout(15_000);
  const h = hand(page);
  const here = page.getByTestId("step-here");
  const title = page.getByRole("heading", { level: 1 });
  /** Time passes: the page is as it stands when somebody looks at it again. */
  const later = async (minutes: number) => {
    await server.advance(minutes * MIN_MS);
    await open(page, page.url());
  };
  try {
    await open(page, "/");
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
    await expect(page.getByTestId("work-here")).toBeVisible();
    while (await page.getByTestId("work-here").isVisible()) {
      const name = await page.getByTestId("work-here").locator("p").first().textContent();
      await h.press(/^Done/);
      await expect(
        page
          .getByTestId("work-here")
          .locator("p")
          .first()
          .or(page.getByRole("button", { name: "Worked through: go on" })),
      ).not.toHaveText(name!);
    }
    await h.press("Worked through: go on");

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
  } finally {
    console.log(h.touches(), h.told());
    await page.screenshot({ path: "/tmp/w/job.png" });
    await page.close();
    await server.stop("SIGKILL");
  }
});
