import { expect, test } from "@playwright/test";
import { open, ownServer, startJob, watchConsole } from "./support";

test("will it run: the trade's known results each show, with the reason", async ({ page }) => {
  const said = watchConsole(page);
  await open(page, "/ask/run");
  const sentence = page.getByTestId("flow-sentence");
  const set = (label: string, value: string) => page.getByLabel(label, { exact: true }).fill(value);
  await expect(sentence).toHaveAttribute("data-class", "flows");
  await set("Distance, mm", "120");
  await expect(sentence).toHaveAttribute("data-class", "runs");
  await expect(page.getByTestId("flow-reasons")).toContainText("the film piles up unless the hand is faster");
  await set("Hand speed, m/s", "0.5");
  await expect(sentence).not.toHaveAttribute("data-class", "runs");
  await set("Hand speed, m/s", "0.34");
  await set("Distance, mm", "250");
  await expect(sentence).toHaveAttribute("data-class", "peels");
  await expect(page.getByTestId("flow-reasons")).toContainText("the drops dry on the way");
  await set("Distance, mm", "175");
  await set("Flash before it, min", "0");
  await expect(sentence).toHaveAttribute("data-class", "runs");
  await expect(page.getByTestId("flow-reasons")).toContainText("next coat too soon");
  await page.getByRole("radio", { name: "lying" }).click();
  await expect(sentence).not.toHaveAttribute("data-class", "runs");
  await page.getByRole("radio", { name: "upright" }).click();
  await set("Flash before it, min", "10");
  await set("Air, °C", "33");
  await page.getByRole("radio", { name: "fast" }).click();
  await expect(sentence).toHaveAttribute("data-class", "peels");
  await expect(page.getByTestId("flow-reasons")).toContainText("hot air and fast hardener");
  await set("Air, °C", "22");
  await page.getByRole("radio", { name: "medium" }).click();
  await set("Material, if colder, °C", "10");
  await expect(page.getByTestId("flow-reasons")).toContainText("cold material");
  await set("Fluid, ml/min", "no");
  await expect(page.getByText('"no" is not a number')).toBeVisible();
  expect(said).toEqual([]);
});

test("the window's point is moved by mouse and by keyboard and the settings follow; a flow coat is compared", async ({ page }) => {
  await open(page, "/");
  await page
    .locator("li", { hasText: "Lodos" })
    .getByRole("link", { name: /Front door/ })
    .click();
  await page.getByRole("link", { name: "Will it run?" }).click();
  const point = page.getByRole("slider", { name: /Today's settings/ });
  await expect(page.getByText("runs", { exact: true })).toBeVisible();
  const distance = page.getByLabel("Distance, mm", { exact: true });
  await expect(distance).toHaveValue("175");
  const rows = page.getByTestId("flow-coats").getByRole("row");
  await expect(rows).toHaveCount(5);
  const texture = async (name: string) => Number(await rows.filter({ hasText: name }).getByRole("cell").nth(1).textContent());
  expect(await texture("Flat and re-clear")).toBeLessThan(await texture("Leave it"));
  await point.focus();
  await page.keyboard.press("ArrowLeft");
  await expect(distance).toHaveValue("171");
  const box = (await point.boundingBox())!;
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await page.mouse.down();
  await page.mouse.move(box.x - 90, box.y + 60, { steps: 6 });
  await page.mouse.up();
  await expect(page.getByTestId("flow-sentence")).toHaveAttribute("data-class", /runs|lean/);
  expect(Number(await distance.inputValue())).toBeLessThan(160);
  await page.getByRole("button", { name: "a tenth faster" }).click();
});

test("cure: the sheet's own times in the air, sooner with a bake, said when the sheet has no bake", async ({ page }) => {
  const base = await startJob(page, { vehicle: "Cure estate", shape: "door" });
  await open(page, `${base}/spray/cure`);
  await expect(page.getByTestId("cure-sentence")).toContainText("Ready to sand 16 h 00 after the last coat, in the air.");
  await expect(page.getByText("The sheet gives no bake", { exact: false })).toBeVisible();
  await page.getByRole("radio", { name: "bake it" }).click();
  await page.getByLabel("Air before heat, min", { exact: true }).fill("5");
  await expect(page.getByText("Heat before 15 min of booth air traps solvent", { exact: false })).toBeVisible();
  await page.getByLabel("Hold, min", { exact: true }).fill("-1");
  await expect(page.getByText("Between 1 min and 240 min")).toBeVisible();
});

test("booth view: two panels × three coats, the server killed between coats, nothing lost and the clocks right", async ({ browser }) => {
  test.setTimeout(150_000);
  const server = await ownServer();
  await server.start();
  const page = await browser.newPage({ baseURL: server.url });
  const base = await startJob(page, { vehicle: "Booth estate", shape: "door", coats: "3" });
  await page.getByRole("link", { name: "Add a panel" }).click();
  await page.getByLabel("Shape").selectOption("wing");
  await page.getByLabel("Coats", { exact: true }).fill("3");
  await page.getByRole("button", { name: "Add this panel" }).click();
  await expect(page).toHaveURL(/\/plan$/);
  const booth = base.replace(/\/panels\/.*$/, "/booth");
  await open(page, booth);
  const next = page.getByTestId("booth-next");
  const spray = async (coat: number) => {
    await page
      .getByRole("button", { name: new RegExp(`^Start coat ${coat}`) })
      .first()
      .click();
    await expect(next).toContainText(`coat ${coat} is running.`);
    await page.getByRole("button", { name: `Stop coat ${coat}` }).click();
    await expect(next).not.toContainText("is running.");
  };
  await spray(1);
  await expect(next).toContainText(/coat 1/);
  await spray(1);
  await expect(next).toContainText("Wait.");
  await page.getByRole("button", { name: /^Start coat 2 too soon/ }).click();
  await expect(next).toContainText("coat 2 is running.");
  await server.stop("SIGKILL");
  await server.start();
  await open(page, booth);
  await expect(next).toContainText("coat 2 is running.");
  await page.getByRole("button", { name: "Stop coat 2" }).click();
  await expect(page.getByTestId("clock").filter({ hasText: "flash, coat 2" })).toHaveCount(1);
  const left = async () => (await page.getByTestId("clock").filter({ hasText: "flash, coat 2" }).getByTestId("clock-left").textContent())!;
  expect(await left()).toMatch(/^(10:00|9:5\d)$/);
  await spray(2);
  await spray(3);
  await spray(3);
  await expect(next).toContainText("All coats are on.");
  await open(page, `${base}/spray`);
  await expect(page.getByRole("list", { name: "Coats sprayed" }).getByRole("listitem")).toHaveCount(3);
  await page.close();
  await server.stop("SIGTERM");
});
