import { expect, test } from "./fixture";
import { panelPath } from "./page-list";
import { open } from "./support";

test.use({ ownShop: true });

test("a path is planned by dragging, keys and the best one found; taken, the course mixes for it, and another window hears of it", async ({
  page,
}) => {
  test.setTimeout(120_000);
  const at = await panelPath(page, "Lodos", "Rear door", "spray/path");
  await open(page, at);
  const sentence = page.getByTestId("path-sentence");
  const rested = () => expect(sentence).toHaveAttribute("data-busy", "false", { timeout: 30_000 });
  const least = async () => Number(/([\d.]+) at the least/.exec((await sentence.textContent())!)![1]);
  await rested();
  const before = await least();
  const litres = async () => Number.parseFloat((await page.getByTestId("path-figures").textContent())!);
  const usual_ml = await litres();

  // The end of the rows, by keys, then dragged.
  const end = page.getByRole("slider", { name: "End of the rows past the edge" });
  await end.focus();
  await page.keyboard.press("Shift+ArrowRight");
  await expect(page.getByRole("textbox", { name: "Past the edge" })).toHaveValue("120");
  const box = (await end.boundingBox())!;
  await page.mouse.move(box.x + 22, box.y + 22);
  await page.mouse.down();
  await page.mouse.move(box.x + 62, box.y + 22, { steps: 5 });
  await page.mouse.up();
  await expect.poll(async () => Number(await page.getByRole("textbox", { name: "Past the edge" }).inputValue())).toBeGreaterThan(150);
  await rested();
  await expect.poll(litres).toBeGreaterThan(1.05 * usual_ml);

  const other = await page.context().newPage();
  await open(other, at);
  await other.getByLabel("Along both ends first").check();

  // What is found is in the fields and not taken.
  await page.getByRole("button", { name: "Find the best path" }).click();
  await expect(page.getByTestId("best-path")).toContainText("tried", { timeout: 30_000 });
  await rested();
  await expect.poll(least).toBeGreaterThan(1.2 * before);
  await page.getByRole("button", { name: "Take this path" }).click();
  await expect(page.getByText("Path taken: course, mix and booth view go by it")).toBeVisible();
  await expect(page.getByRole("button", { name: "This is the path" })).toBeVisible();

  // A second window that planned on what stood there before is told so, keeps what it has, and may take it after all.
  await other.getByRole("button", { name: "Take this path" }).click();
  await expect(other.getByText(/another window|meanwhile|changed/i).first()).toBeVisible();
  await expect(other.getByLabel("Along both ends first")).toBeChecked();
  await page.reload();
  await rested();
  await expect(page.getByLabel("Along both ends first")).not.toBeChecked();
  const ledger = await (await page.request.get(`/do/panels/${at.split("/").at(-3)!}/ledger.csv`)).text();
  expect(ledger.match(/Path taken\. Rows/g)).toHaveLength(1);
});
