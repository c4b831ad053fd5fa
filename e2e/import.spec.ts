import { expect, test } from "./fixture";
import { open, startJob, watchConsole } from "./support";

const file = (name: string, text: string) => ({ name, mimeType: "text/csv", buffer: Buffer.from(text) });

test("a bad file is refused whole with line and reason, a good one is imported, also with 10,000 rows", async ({ page }) => {
  test.setTimeout(120_000);
  const base = await startJob(page, { vehicle: "Import van", shape: "door" });
  await open(page, `${base}/inspect`);
  await page.getByRole("button", { name: "Paste or import" }).click();
  const choose = page.locator("input[type=file]");
  const doImport = () => page.getByRole("button", { name: /^Import \d/ }).click();

  await choose.setInputFiles(file("text.csv", "spot,film\n1,131\n2,thick\n"));
  await doImport();
  await expect(page.getByText("Nothing was imported.")).toBeVisible();
  await expect(page.getByText('Line 3, film: "thick" is not a number')).toBeVisible();

  await choose.setInputFiles(file("negative.csv", "spot,film\n1,-4\n"));
  await doImport();
  await expect(page.getByText('Line 2, film: Film cannot be below zero ("-4")')).toBeVisible();

  await choose.setInputFiles(file("column.csv", "spot,remark\n1,good\n"));
  await expect(page.getByRole("cell", { name: "good" })).toBeVisible();
  await page.getByLabel("remark").selectOption("film");
  await doImport();
  await expect(page.getByText('Line 2, remark: "good" is not a number')).toBeVisible();
  await page.getByLabel("remark").selectOption("ignore");
  await doImport();
  await expect(page.getByText("No column is matched to film readings")).toBeVisible();

  await choose.setInputFiles(file("bom.csv", "\uFEFFspot;film 1;film 2\r\n1;131;129,5\r\n2;128;127\r\n"));
  await doImport();
  await expect(page.getByText("4 readings imported")).toBeVisible();
  await expect(page.getByRole("cell", { name: "1", exact: true }).first()).toBeVisible();

  await page.getByRole("button", { name: "Paste or import" }).click();
  await choose.setInputFiles(
    file("large.csv", `spot,film\n${Array.from({ length: 10_000 }, (_, i) => `${(i % 8) + 1},${125 + (i % 9)}`).join("\n")}`),
  );
  await expect(page.getByText("10000 rows; the first 6 are shown")).toBeVisible();
  await doImport();
  await expect(page.getByText("10000 readings imported")).toBeVisible({ timeout: 30_000 });
  await open(page, `${base}/inspect`);
  await expect(page.locator("main").getByText("Inferred, not measured", { exact: true })).toBeVisible();
});

test("pasted readings go to the spots in order, and come out again as CSV", async ({ page }) => {
  const said = watchConsole(page);
  const base = await startJob(page, { vehicle: "Paste van", shape: "door" });
  await open(page, `${base}/inspect`);
  await page.getByRole("button", { name: "Paste or import" }).click();
  await page.getByLabel("Or paste here").fill("131\n132\n133");
  await page.getByRole("button", { name: "Import 3 rows" }).click();
  await expect(page.getByText("3 readings imported")).toBeVisible();
  await open(page, `${base}/hand-over`);
  const [download] = await Promise.all([page.waitForEvent("download"), page.getByRole("link", { name: "Readings as CSV" }).click()]);
  const text = await (await download.createReadStream()).toArray();
  expect(Buffer.concat(text as Buffer[]).toString()).toContain("spot,x mm,y mm,phase,film µm,entered,unit,simulated,at");
  expect(said).toEqual([]);
});
