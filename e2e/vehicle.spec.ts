import { expect, test } from "./fixture";
import { panelPath } from "./page-list";
import { open } from "./support";

test.use({ ownShop: true });

test("a whole vehicle in one go, its wet edge: the best order, moved by hand and by dragging, taken for booth view; a second window is told", async ({
  page,
}) => {
  test.setTimeout(180_000);
  const at = (await panelPath(page, "Lodos", "Front door", "x")).replace(/panels\/.*$/, "vehicle");
  await open(page, at);
  await page.getByRole("button", { name: "All of it" }).click();
  await page.getByRole("button", { name: /^Add 10 parts/ }).click();
  await expect(page.getByTestId("vehicle-sentence")).toContainText("13 panels");
  await expect(page.getByRole("link", { name: /^Roof:/ })).toBeVisible(); // on the map
  await page.getByRole("link", { name: /Wet edge/ }).click();
  const sentence = page.getByTestId("walk-sentence");
  await expect(sentence).toContainText("12 parts");
  const other = await page.context().newPage();
  await open(other, `${at}/wet-edge`);
  await expect(other.getByTestId("walk-order")).toBeVisible();
  const moved = other.getByRole("button", { name: / later$/ }).first();
  await moved.click(); // an order of its own, upon what stands there now

  await page.getByRole("button", { name: "Take the best order" }).click({ timeout: 60_000 });
  await expect(sentence).toHaveAttribute("data-dry", "0");
  await expect(page.getByRole("button", { name: "This is the best order" })).toBeVisible();
  const order = page.getByTestId("walk-order").getByRole("listitem");
  const names = async () => Promise.all((await order.all()).map(async (row) => (await row.locator("b").textContent())!));
  const best = await names();

  // By its press, and by the hand.
  await page.getByRole("button", { name: `${best[0]!} later`, exact: true }).click();
  expect((await names()).slice(0, 2)).toEqual([best[1], best[0]]);
  const grip = order.nth(0).locator(".cursor-grab");
  await grip.scrollIntoViewIfNeeded();
  const [from, to] = [(await grip.boundingBox())!, (await order.nth(2).boundingBox())!];
  await page.mouse.move(from.x + 20, from.y + 20);
  await page.mouse.down();
  await page.mouse.move(from.x + 20, to.y + to.height / 2, { steps: 8 });
  await page.mouse.up();
  await expect.poll(async () => (await names()).indexOf(best[1]!)).toBe(2);

  await page.getByRole("button", { name: "Spray in this order" }).click();
  await expect(page.getByText("Order taken: booth view and lists go by it")).toBeVisible();
  const taken = await names();
  // The other window was ordered upon what stood there before, whether it has looked again or not: it is told, now and after the next look, and
  // nothing of what was taken is lost.
  await other.getByRole("button", { name: "Spray in this order" }).click();
  const told = other.getByText(/another window|meanwhile|changed/i).first();
  await expect(told).toBeVisible();
  await other.waitForTimeout(3000);
  await expect(told).toBeVisible();
  await page.reload();
  await expect(sentence).toContainText("12 parts");
  await expect.poll(names).toEqual(taken);
});

test("shuts and two colours: shuts go on first, the lower colour too; where a line lies and which edges are blended is said, and another window's is not written over", async ({
  page,
}) => {
  const at = (await panelPath(page, "Lodos", "Front door", "x")).replace(/panels\/.*$/, "vehicle");
  await open(page, at);
  await page.getByRole("button", { name: "Shuts and jambs too" }).click();
  await page.getByRole("button", { name: "All of it" }).click();
  await page.getByRole("button", { name: "Add 16 parts" }).click();
  await expect(page.getByTestId("vehicle-sentence")).toContainText("19 panels");

  await page.getByRole("link", { name: /Wet edge/ }).click();
  const sentence = page.getByTestId("walk-sentence");
  await expect(sentence).toContainText("6 parts"); // shuts by themselves
  await page.getByText("Body (12)").click();
  await expect(sentence).toContainText("12 parts");
  await page.getByText("All in one go (18)").click();
  await expect(page.getByText("Of more than 14 parts at once no best order is worked out", { exact: false })).toBeVisible();
  // By hand: the front door before its shut is said to be wrong, until it stands behind it.
  await expect(sentence).toContainText("A shut comes after its part is wet");
  await page.getByText("Shuts first (6)").click();
  await page
    .getByRole("button", { name: "Take the best order" })
    .or(page.getByRole("button", { name: "This is the best order" }))
    .waitFor();
  await page.getByRole("button", { name: "Front door shut, left later" }).click();
  const first = (await page.getByTestId("walk-order").getByRole("listitem").first().locator("b").textContent())!;
  await page.getByRole("button", { name: "Spray in this order" }).click();
  await expect(page.getByText("Order taken: booth view and lists go by it")).toBeVisible();
  await open(page, at);
  await expect(page.locator("section[aria-labelledby=panels-title] li b").first()).toHaveText(first);

  await page.getByRole("link", { name: "Colours and joints" }).click();
  const says = page.getByTestId("colours-sentence");
  await expect(says).toContainText("One colour.");
  const other = await page.context().newPage();
  await open(other, `${at}/colours`);
  await other.getByLabel("Second colour").fill("sea grey");
  await page.getByLabel("Second colour").fill("fog white");
  await page.getByText("solid", { exact: true }).click();
  await page.getByLabel("Roof", { exact: true }).selectOption("second");
  await page.getByLabel("Rear door", { exact: true }).selectOption({ label: "both, a line through it" });
  await page.getByRole("button", { name: "Keep the colours" }).click();
  await expect(says).toContainText("Deep teal pearl first: it lies lower.");
  await expect(page.getByTestId("colour-order").getByRole("listitem")).toHaveCount(6);
  await expect(page.getByTestId("joints")).toContainText("Rear door: fine line across it");
  await expect(page.getByTestId("joints")).toContainText("Roof – rear quarter, left: fine line along the seam");
  await other.getByRole("button", { name: "Keep the colours" }).click();
  await expect(other.getByText("changed in another window meanwhile", { exact: false })).toBeVisible();
  await expect(other.getByLabel("Second colour")).toHaveValue("sea grey");
  await other.close();
  await page.getByRole("link", { name: "Parts and where they lie" }).click();
  await page.getByRole("link", { name: /^Roof/ }).first().click();
  await expect(page.getByText("fog white", { exact: false }).first()).toBeVisible();
});
