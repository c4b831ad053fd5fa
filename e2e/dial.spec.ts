import { expect, test } from "./fixture";
import { panelPath } from "./page-list";
import { open } from "./support";

test.use({ ownShop: true });

test("the gauge has sagged: what the hand does, taken for the course; in booth view again; another window with its own is told", async ({
  page,
}) => {
  test.setTimeout(120_000);
  const at = await panelPath(page, "Lodos", "Front door", "spray/dial");
  await open(page, at);
  const sentence = page.getByTestId("dial-sentence");
  const rested = () => expect(sentence).toHaveAttribute("data-busy", "false", { timeout: 30_000 });
  await rested();
  await expect(sentence).toContainText("nothing to change");
  await expect(page.getByRole("button", { name: "Set as planned" })).toBeDisabled();
  const other = await page.context().newPage();
  await open(other, at);
  await other.getByRole("button", { name: "Air: more" }).click();

  // What is no figure says so at its field, and is not worked with.
  const gauge = page.getByRole("textbox", { name: /^Gauge/ });
  const planned = Number(await gauge.inputValue());
  await gauge.fill("none");
  await expect(sentence).toContainText("it says where");
  await gauge.fill(String((planned * 0.75).toFixed(2)));
  await expect(sentence).toContainText(/^Coat \d: hand [\d.]+ m\/s at \d+ mm, needle [\d.]+ ml\/min\. It comes out the same\./);
  await rested();
  const cells = async (name: string) =>
    (await page.getByRole("row", { name }).getByRole("cell").allTextContents()).map((t) => Number.parseFloat(t));
  const [film, , , filmSet] = await cells("Film, dry");
  expect(filmSet).toBe(film);
  const [drops, dropsStill, dropsHand, dropsNeedle] = await cells("Drops");
  expect(dropsStill).toBeGreaterThan(1.1 * drops!);
  expect(dropsHand).toBe(dropsStill);
  expect(Math.abs(dropsNeedle! / drops! - 1)).toBeLessThan(0.08);
  await page.getByRole("radio", { name: "Hand alone" }).click();
  await expect(sentence).toContainText("needle as it is");
  await expect(sentence).toContainText("What stays: coarser drops");
  const hand = (await cells("Hand"))[2]!;
  await page.getByRole("button", { name: "Set so" }).click();
  await expect(page.getByText("Set so: course and booth view go by it")).toBeVisible();
  await expect(sentence).toContainText("nothing to change");
  expect((await cells("Hand"))[0]).toBe(hand); // planned so from now on

  // The other window was asked upon what stood there before: it is told, and keeps what was typed.
  await expect(other.getByRole("textbox", { name: /^Gauge/ })).toHaveValue(await gauge.inputValue()); // it has looked again
  await expect(other.getByTestId("dial-sentence")).toHaveAttribute("data-busy", "false", { timeout: 30_000 });
  const air = await other.getByRole("textbox", { name: /^Air/ }).inputValue();
  await other.getByRole("button", { name: "Set so" }).click();
  await expect(other.getByText(/changed in another window meanwhile/)).toBeVisible();
  expect(await other.getByRole("textbox", { name: /^Air/ }).inputValue()).toBe(air);
  await other.close();

  await open(page, at.replace("/dial", ""));
  await expect(page.getByLabel("Hand speed").first()).toHaveValue(String(hand));
});

test("in booth view the gauge that reads otherwise is answered for the hand, and set", async ({ page }) => {
  const booth = (await panelPath(page, "Lodos", "Rear door", "x")).replace(/panels\/.*$/, "booth");
  await open(page, booth);
  await page.getByRole("button", { name: "Gauge reads otherwise" }).click();
  const says = page.getByTestId("booth-dial-says");
  await expect(says).toHaveText("As planned.");
  for (let i = 0; i < 4; i++) await page.getByRole("button", { name: "Gauge, trigger pulled: less" }).click();
  await expect(says).toContainText(/Then hand [\d.]+ m\/s/);
  await page.getByRole("button", { name: "Set so" }).click();
  await expect(page.getByText("Set so: course and booth view go by it")).toBeVisible();
  await expect(says).toHaveText("As planned.");
});
