import { expect, test } from "./fixture";
import { open, startJob, watchConsole } from "./support";

test("how much do I mix: three panels agree with the hand calculation, and nonsense is told at its field", async ({ page }) => {
  const said = watchConsole(page);
  await open(page, "/ask/mix");
  await page.getByLabel("Clear", { exact: true }).selectOption({ label: "Clear 21" });
  const rows = page.getByRole("listitem").filter({ has: page.getByLabel("Part") });
  for (const [i, [w, h]] of [
    ["1100", "700"],
    ["1100", "700"],
    ["1400", "1200"],
  ].entries()) {
    await rows.nth(i).getByLabel("Part").selectOption("rectangle");
    await rows.nth(i).getByLabel("Width").fill(w!);
    await rows.nth(i).getByLabel("Height").fill(h!);
  }
  for (const [label, value] of Object.entries({
    "Reducer, %": "10",
    "Film a coat, dry, µm": "28",
    "Waste, %": "0",
    "Stays in gun and cup, ml": "0",
  }))
    await page.getByLabel(label, { exact: true }).fill(value);
  // Strokes 125 mm apart, 100 mm past either edge: 6 × 1.3 + 6 × 1.3 + 10 × 1.6 = 31.6 m at 0.34 m/s and 230 ml/min, twice: 712.5 ml;
  // clear 431.8, hardener 215.9, reducer 64.8 ml; at .99, 1.05 and .87 g/ml. By area: 3.22 m² × 56 µm ÷ .65 ÷ .48 × 1.1 = 635.7 ml.
  await expect(page.getByTestId("mix-sentence")).toContainText("713 ml");
  await expect(page.getByText("by area alone 636")).toBeVisible();
  const parts = page.getByTestId("mix-parts");
  await expect(parts.getByRole("row").nth(1)).toContainText("432427.5427.5");
  await expect(parts.getByRole("row").nth(2)).toContainText("216226.7654.2");
  await expect(parts.getByRole("row").nth(3)).toContainText("6556.4710.6");
  await page.getByRole("radio", { name: "of all" }).click();
  await expect(page.getByTestId("mix-sentence")).toContainText("713 ml");
  await page.getByLabel("Ratio by volume").fill("2:0");
  await expect(page.getByText("Every part must be above 0")).toBeVisible();
  await page.getByLabel("Reducer, %", { exact: true }).fill("101");
  await expect(page.getByText("Between 0 % and 90 %")).toBeVisible();
  await expect(page.getByLabel("Ratio by volume")).toHaveValue("2:0");
  expect(said).toEqual([]);
});

test("mix of a panel: the section follows, an over-pour is mended or the pot is too small, and the pot clock runs", async ({ page }) => {
  const base = await startJob(page, { vehicle: "Mix estate" });
  await open(page, `${base}/plan/mix`);
  const section = page.getByRole("complementary", { name: "Section" }).getByRole("img");
  await expect(section).toHaveAccessibleName(/2 coats would add 56\.\d µm/);
  await page.getByLabel("Coats", { exact: true }).fill("3");
  await expect(section).toHaveAccessibleName(/3 coats would add 84\.\d µm/);
  await page.getByLabel("Coats", { exact: true }).fill("2");
  await page.getByLabel("Hardener", { exact: true }).selectOption({ label: "Hardener H medium" });
  // Clear T has no density on its sheet: by weight says so instead of guessing.
  await expect(page.getByText("no density for Clear T")).toBeVisible();
  await page.goto("/shelf");
  await page.getByRole("link", { name: /^Clear T/ }).click();
  await page.getByLabel("Density, g/ml", { exact: true }).fill("1,00");
  await page.getByRole("button", { name: "Save as a new revision" }).click();
  await expect(page.getByRole("link", { name: /^Clear T rev\. 2/ })).toBeVisible();
  const again = await startJob(page, { vehicle: "Mix estate two" });
  await open(page, `${again}/plan/mix`);
  await page.getByLabel("Hardener", { exact: true }).selectOption({ label: "Hardener H medium" });
  await page.getByLabel("Reducer, %", { exact: true }).fill("10");
  const target = async (row: number) =>
    Number(await page.getByTestId("mix-parts").getByRole("row").nth(row).getByRole("cell").nth(2).textContent());
  const [clear, hardener] = [await target(1), await target(2)];
  await page.getByRole("button", { name: "Open the pour guide" }).click();
  await page.getByRole("button", { name: "Tare with the pot on" }).click();
  const shows = page.getByLabel("Or type what the scale shows");
  await shows.fill(String(clear));
  await page.getByRole("button", { name: "Clear T is in" }).click();
  await shows.fill((clear + hardener + 8).toFixed(1));
  await expect(page.getByTestId("pour-now")).toContainText("8.0g too much".replace("g", " g"));
  await expect(page.getByTestId("pour-correction")).toContainText(
    `Clear T to ${((clear * (hardener + 8)) / hardener).toFixed(1).slice(0, -2)}`,
  );
  await page.getByLabel("Pot holds").fill("360");
  await expect(page.getByTestId("pour-correction")).toContainText("The pot is too small to mend this");
  await page.getByLabel("Pot holds").fill("2000");
  await page.getByRole("button", { name: "Hardener H medium is in" }).click();
  const reducer = await page
    .getByRole("listitem")
    .filter({ hasText: "Reducer R medium" })
    .getByText(/target/)
    .textContent();
  await shows.fill((clear + hardener + 8 + Number(/[\d.]+/.exec(reducer!)![0])).toFixed(1));
  await page.getByRole("button", { name: "Reducer R medium is in" }).click();
  // Back to the clear: what is still missing of it goes in last.
  const more = (clear * 8) / hardener;
  await expect(page.getByTestId("pour-now")).toContainText("g to go");
  await shows.fill((clear + hardener + 8 + Number(/[\d.]+/.exec(reducer!)![0]) + more).toFixed(1));
  await page.getByRole("button", { name: "Clear T is in" }).click();
  await expect(page.getByTestId("pour-now")).toContainText("All in:");
  await page.getByRole("button", { name: "Keep it and start the pot clock" }).click();
  await expect(page.getByText("Mix kept; its pot clock runs")).toBeVisible();
  await expect(page.getByTestId("clock").filter({ hasText: "Mix estate two" })).toContainText("Pot of Clear T");
});

test("the stand-in scale is poured on, overshoots a little, and says that it is simulated", async ({ page }) => {
  const said = watchConsole(page);
  await open(page, "/ask/mix");
  await page.getByRole("button", { name: "Open the pour guide" }).click();
  await page.getByRole("button", { name: "Tare with the pot on" }).click();
  const guide = page.getByTestId("pour-guide");
  await expect(guide.getByText("simulated")).toBeVisible();
  const left = async () =>
    Number(/[\d.]+ ?g/.exec((await page.getByTestId("pour-now").textContent()) ?? "")?.[0].replace(/ ?g/, "") ?? NaN);
  await expect.poll(left).toBeGreaterThan(100);
  const before = await left();
  await guide.getByRole("button", { name: "Pour", exact: true }).click();
  await expect.poll(left).toBeLessThan(before - 20);
  await guide.getByRole("button", { name: "Stop" }).click();
  await expect(guide.getByRole("button", { name: /is in$/ })).toBeEnabled();
  expect(said).toEqual([]);
});

test("which matte mix: five cards give .623 for 25 GU, a card out of order is named, two cards refuse a fit", async ({ page }) => {
  const card = (productName: string, matting: string, gloss60: string) =>
    page.request.post("/cards/new/edit", {
      maxRedirects: 0,
      headers: { Origin: new URL(page.url()).origin },
      multipart: {
        name: `${productName} ${matting}`,
        productName,
        matting,
        gloss60,
        orientation: "vertical",
        coats: "2",
        cure: "air",
        colour: "open",
        glossVerdict: "open",
        texture: "open",
        base: "grey",
      },
    });
  await open(page, "/cards");
  const LADDER = [
    ["0", "90"],
    ["25", "62"],
    ["50", "34"],
    ["75", "18"],
    ["100", "9"],
  ] as const;
  for (const [m, g] of LADDER) expect((await card("Matte five", m, g)).status()).toBe(302);
  for (const [m, g] of LADDER) await card("Matte odd", m, m === "75" ? "38" : g);
  for (const [m, g] of LADDER.slice(0, 2)) await card("Matte two", m, g);
  await open(page, "/ask/matte");
  await page.getByLabel("Product").selectOption("Matte five");
  await page.getByLabel("Target at 60°").fill("25");
  await expect(page.getByTestId("matte-sentence")).toContainText("62.3 % matting component gives 25 GU; between 60");
  await page.getByRole("button", { name: /matting component: 62 .*Show the working/ }).click();
  await expect(page.getByText("cards of different mix")).toBeVisible();
  await page.keyboard.press("Escape");
  await page.getByLabel("Product").selectOption("Matte odd");
  await expect(page.getByText(/card \d+ stands against the order/).first()).toBeVisible();
  await page.getByLabel("Product").selectOption("Matte two");
  await expect(page.getByTestId("matte-sentence")).toContainText("2 cards of this kind: too few to fit.");
  await page.getByLabel("Product").selectOption("Matte M");
  await page.getByLabel("Substrate or base").selectOption("graphite base");
  await page.getByLabel("Cure", { exact: true }).selectOption("forced, baked");
  await expect(page.getByTestId("matte-sentence")).toContainText(
    "1 card of this kind: too few to fit. The sheet’s nearest level is 55.0 %, 30 GU.",
  );
  await page.getByLabel("Target at 60°").fill("none");
  await expect(page.getByText('"none" is not a number')).toBeVisible();
});

test("a matte panel: vehicle's gloss by the stand-in meter becomes the target; rules are ticked", async ({ page }) => {
  await open(page, "/");
  await page
    .locator("li", { hasText: "Poyraz" })
    .getByRole("link", { name: /Box lid/ })
    .click();
  await expect(page).toHaveURL(/panels/);
  const base = page.url().replace(/\/[^/]+$/, "");
  await open(page, `${base}/plan/gloss`);
  await page.getByRole("textbox", { name: "Place" }).fill("box, left");
  await page.getByRole("button", { name: "Take 5 with the stand-in meter" }).click();
  await expect(page.getByText("Read with the stand-in meter: simulated")).toBeVisible();
  await expect(page.getByLabel("Target at 60°")).not.toHaveValue("");
  await page.getByLabel(/Mix by weight on a scale/).check();
  await page.getByRole("button", { name: "Store the check list" }).click();
  await expect(page.getByRole("heading", { name: "Before spraying matte: 8 to tick" })).toBeVisible();
});

test("shelf: a dying can stands on the Floor, a bad file is refused whole, a good one is read, a label carries a code", async ({
  page,
}) => {
  await open(page, "/");
  await expect(page.getByRole("link", { name: /Hardener H medium use today/ })).toBeVisible();
  await open(page, "/shelf");
  await expect(page.getByRole("heading", { name: /Take the Hardener H medium first: use today/ })).toBeVisible();
  const file = page.getByLabel("Shelf file");
  await file.setInputFiles({
    name: "bad.csv",
    mimeType: "text/csv",
    buffer: Buffer.from("name,kind,density g/ml\nHardener X,hardener,heavy\n"),
  });
  await expect(page.getByText('Row 2, density g/ml: "heavy" is not a number')).toBeVisible();
  await expect(page.getByRole("link", { name: /^Hardener X/ })).toHaveCount(0);
  await file.setInputFiles({
    name: "good.csv",
    mimeType: "text/csv",
    buffer: Buffer.from("name,kind,density g/ml\nHardener X,hardener,1.04\n"),
  });
  await expect(page.getByText("1 new, 0 with a new revision, 0 unchanged.")).toBeVisible();
  await expect(page.getByRole("link", { name: /^Hardener X/ })).toBeVisible();
  await page.getByRole("link", { name: /Hardener H medium.*use today/ }).click();
  await page.getByLabel("Left in it").fill("9999");
  await page.getByRole("button", { name: "Save" }).click();
  await expect(page.getByText("More is left than the can holds").first()).toBeVisible();
  await page.getByRole("link", { name: "Print its label" }).click();
  await expect(page.getByRole("img", { name: /Code for \/shelf\/cans\// }).locator("svg")).toBeVisible();
});
