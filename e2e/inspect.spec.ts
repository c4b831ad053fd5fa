import { expect, test } from "./fixture";
import { open, startJob, typeReadings, watchConsole } from "./support";

test("fourteen spots by the stand-in gauge in fourteen presses; the map, its risk slider, the next place, and film through time", async ({
  page,
}) => {
  const said = watchConsole(page);
  const base = await startJob(page, { vehicle: "Map estate" });
  await open(page, `${base}/inspect/map`);
  await expect(page.getByText("so there is no map")).toBeVisible();
  await open(page, `${base}/spray`);
  await page.getByRole("button", { name: "All spots" }).click();
  await page.getByRole("button", { name: "Fill them, simulated" }).click();
  await expect(page.getByTestId("spots-read")).toHaveText("8 of 8");
  for (const n of [1, 2]) {
    await page.getByRole("button", { name: `Log coat ${n}` }).click();
    await expect(page.getByText(`Coat ${n} logged`)).toBeVisible();
  }
  await open(page, `${base}/inspect`);
  await page.getByText("Gauge, places, template").click();
  await page.getByLabel("Places to read").selectOption("14");
  await expect(page.getByTestId("spots-read")).toHaveText("0 of 14");
  const press = page.getByRole("button", { name: "Take 3 here with the practice (simulated) gauge" });
  for (let i = 1; i <= 14; i++) {
    await press.click();
    await expect(page.getByTestId("spots-read")).toHaveText(`${i} of 14`);
  }
  await expect(press).toBeDisabled();
  await page.getByRole("link", { name: "Film map" }).click();
  const verdict = page.getByTestId("map-verdict");
  await expect(verdict).toContainText("of clear on average", { timeout: 60_000 });
  await expect(page.getByTestId("settle")).toContainText(/safe|readings/);
  const slider = page.getByRole("slider", { name: /Take off/ });
  await slider.focus();
  await page.keyboard.press("Home");
  // The film would bear it; sprayed a moment ago it is not hard, and the page says so.
  await expect(verdict).toHaveAttribute("data-verdict", "caution");
  await expect(page.getByTestId("held")).toContainText("Not before it is hard");
  await page.keyboard.press("End");
  await expect(verdict).toHaveAttribute("data-verdict", "stop");
  await expect(page.getByTestId("settle")).toContainText("More readings will not make this removal safe");
  await page.getByRole("radio", { name: "Risk below the minimum" }).click();
  const map = page.getByRole("application", { name: /Chance to end below the minimum/ });
  await map.focus();
  await page.keyboard.press("ArrowRight");
  await expect(page.getByTestId("place-figure")).toContainText("to be below the minimum clear");
  await expect(page.getByRole("complementary", { name: "Section" })).toContainText("At the ");
  await page.getByRole("button", { name: "Put it on the walk" }).click();
  await expect(page.getByText("Place +1 is on the walk")).toBeVisible();
  await page.getByText("Acceptance label, if asked for").click();
  await page.getByLabel("Least, µm").fill("10");
  await page.getByLabel("Most, µm").fill("200");
  await expect(page.getByTestId("acceptance")).toContainText("Accepted");
  await page.getByLabel("Least, µm").fill("150");
  await expect(page.getByTestId("acceptance")).toContainText("Not accepted");
  await page.getByRole("link", { name: "Through time" }).click();
  await expect(page.getByRole("heading", { level: 2 })).toContainText("Predicted");
  await page.getByLabel("Where").selectOption("Spot 3");
  await expect(page.getByRole("row", { name: /Read after clear/ })).toContainText("±");
  expect(said).toEqual([]);
});

test("two readings give no map but the reason; a gauge check is judged, a wrong one told at its field; a bridged gauge fills the spots", async ({
  page,
  request,
}) => {
  const said = watchConsole(page);
  const base = await startJob(page, { vehicle: "Gauge coupe" });
  await open(page, `${base}/inspect`);
  await typeReadings(page, "after", ["150 150 150", "148 149 150"]);
  await expect(page.getByTestId("spots-read")).toHaveText("2 of 8");
  await page.getByRole("link", { name: "Film map" }).click();
  await expect(page.getByTestId("map-verdict")).toContainText("2 of at least 3 spots read");
  await page.getByRole("link", { name: "Gauge", exact: true }).click();
  const fill = async (values: Record<string, string>) => {
    for (const [label, value] of Object.entries(values)) await page.getByLabel(label, { exact: true }).fill(value);
  };
  await fill({ Gauge: "Gauge 2", "Foil, µm": "148", "On bare metal, µm": "0 1 0", "On the foil, µm": "foil" });
  await page.getByRole("button", { name: "Keep this check" }).click();
  await expect(page.getByText('"foil" is not a number')).toBeVisible();
  await expect(page.getByLabel("On bare metal, µm", { exact: true })).toHaveValue("0 1 0");
  await fill({ "On the foil, µm": "149 147 148" });
  await page.getByRole("button", { name: "Keep this check" }).click();
  await expect(page.getByRole("heading", { level: 2 })).toContainText("reads zero and foil as it should");
  await fill({ "On bare metal, µm": "9 9 9", "On the foil, µm": "160 160 160" });
  await page.getByRole("button", { name: "Keep this check" }).click();
  await expect(page.getByRole("heading", { level: 2 })).toContainText("has drifted");
  await page.getByRole("link", { name: "Read", exact: true }).click();
  await page.getByText("Gauge, places, template").click();
  await page.getByLabel("Take what a bridged gauge sends").check();
  await page.waitForTimeout(500);
  const send = (lines: string) => request.post("/do/devices/gauge", { headers: { "Content-Type": "application/x-ndjson" }, data: lines });
  expect(
    (
      await send(
        '{"total_m": 0.000151, "device": "Gauge 2"}\n{"total_m": 0.000152, "device": "Gauge 2"}\n{"total_m": 0.00015, "device": "Gauge 2"}\n',
      )
    ).ok(),
  ).toBe(true);
  await expect(page.getByTestId("spots-read")).toHaveText("3 of 8");
  const wrong = await send('{"total_m": 0.000151}\n{"film": 1}\n');
  expect(wrong.status()).toBe(400);
  expect(await wrong.text()).toContain("line 2");
  // The browser itself reports an answer of 422, which is how a wrong figure is told.
  expect(said.filter((s) => !s.includes("status of 422"))).toEqual([]);
});
