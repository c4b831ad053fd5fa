import { expect, test } from "./fixture";
import { NOTHING_FOUND, WIDE, axeByDayAndNight, outAndSmallAtSizes } from "./look-over";
import { open, startJob, watchConsole } from "./support";
import { virtualSerial } from "./virtual-serial";

test("a gauge on a serial port: its lines are shown, the number is tapped, its readings go to the spots, also after it was pulled out", async ({
  page,
}) => {
  test.setTimeout(120_000);
  const said = watchConsole(page);
  const gauge = await virtualSerial(page);
  await open(page, "/house/devices");
  await page.getByRole("button", { name: "Choose its port" }).click();
  await expect(page.getByText("Nothing has come yet")).toBeVisible();
  await gauge.print("No 17  TOT");
  await gauge.print("AL 131.5 um\r\nBASE 44.0 um\r\n");
  await expect(page.getByLabel("The last lines")).toContainText("TOTAL 131.5 um");
  await expect(page.getByTestId("reads")).toHaveText("It reads 44.0 µm.");
  await page.getByLabel("Only lines with").fill("TOTAL");
  await expect(page.getByTestId("reads")).toHaveText("It reads 17.0 µm.");
  await page.getByRole("radiogroup", { name: "The film is" }).getByRole("radio", { name: "131.5" }).check({ force: true });
  await expect(page.getByTestId("reads")).toHaveText("It reads 131.5 µm.");
  const found = { ...(await axeByDayAndNight(page)), ...(await outAndSmallAtSizes(page)) };
  expect(found).toEqual(NOTHING_FOUND);
  await page.setViewportSize(WIDE);
  await page.getByLabel("What it is called").fill("Gauge 2");
  await page.getByRole("button", { name: "Read it from now on" }).click();
  await expect(page.getByText("Gauge 2, film gauge")).toBeVisible();
  await expect(page.getByText("open, nothing read yet")).toBeVisible();
  await gauge.print("No 18 TOTAL 96.0 um\r\n");
  await expect(page.getByText("96.0 µm")).toBeVisible();
  await gauge.unplug();
  await expect(page.getByText(/lost|not plugged in here/)).toBeVisible();
  await gauge.plugIn();
  await expect(page.getByText("96.0 µm")).toBeVisible();

  // On another page, after a load: the port is open again by itself, and what it prints goes to the spot in turn.
  await open(page, `${await startJob(page, { vehicle: "Meltem by wire" })}/inspect`);
  await page.getByText("Gauge, places, template").click();
  await page.getByLabel("Take what a bridged gauge sends").check();
  const read = page.getByTestId("spots-read");
  const before = await read.innerText();
  await page.waitForTimeout(1500); // the stream of the gauge's readings is open by then
  for (const film of ["118.0", "119.0", "117.5"]) await gauge.print(`No 19 BASE 12.0 um\r\nNo 19 TOTAL ${film} um\r\n`); // three a spot
  await expect(read).not.toHaveText(before);
  await expect(page.getByText("3 readings after clear")).toBeVisible();
  expect(said).toEqual([]);
});
