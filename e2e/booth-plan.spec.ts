import { readFileSync } from "node:fs";
import { expect, test } from "./fixture";
import { open, settled, startJob, watchConsole } from "./support";

test("the day's plan: chosen parts, a coat fixed by dragging and by key, a rule that has to give way, a calendar file", async ({
  page,
}) => {
  const said = watchConsole(page);
  const base = await startJob(page, { vehicle: "Plan coupé", shape: "door", coats: "3" });
  const id = /panels\/([^/]+)/.exec(base)![1]!;
  await open(page, "/booth-plan");
  for (const box of await page.getByRole("checkbox").all()) await box.uncheck();
  await page.locator(`input[value="${id}"]`).check();
  await page.locator(`[name="spray-${id}"]`).fill("6");
  const now = new Date();
  const later = (min: number) => new Date(now.getTime() + min * 60_000).toTimeString().slice(0, 5);
  await page.getByLabel("Start", { exact: true }).fill(later(20));
  await page.getByRole("button", { name: "Plan these" }).click();
  const sentence = page.getByTestId("booth-sentence");
  // 5 min of mixing, 3 × 6 min at the gun, 2 × 10 min of flash.
  await expect(sentence).toContainText("43 min from the start, 1 pot to mix. No plan within these rules is shorter.");

  // Dragged, then moved by a key: it stays where it was put, the next coats follow.
  const coat = page.getByTestId(/^coat-.*-1$/);
  await coat.scrollIntoViewIfNeeded();
  const box = (await coat.boundingBox())!;
  await page.mouse.move(box.x + box.width / 2, box.y + 20);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width / 2 + 120, box.y + 20, { steps: 6 });
  await page.mouse.up();
  await expect(page.getByRole("button", { name: /^Let go of/ })).toHaveCount(1);
  await expect(coat).toHaveAttribute("aria-label", /fixed$/);
  // What the drag changed is stored and planned anew before the next hand is laid on it.
  await settled(page);
  const before = await coat.getAttribute("aria-label");
  await coat.press("ArrowRight");
  await expect(coat).not.toHaveAttribute("aria-label", before!);
  await page.getByRole("button", { name: /^Let go of/ }).click();
  await expect(sentence).toContainText("43 min from the start");

  // Too short a day: which rule would have to give way, and how far.
  await page.getByLabel("Booth free until").fill(later(50));
  await page.getByRole("button", { name: "Plan these" }).click();
  await expect(sentence).toContainText("No plan keeps every rule");
  await expect(page.getByTestId("booth-relax")).toContainText("Let the day end at");
  await page.getByLabel("Booth free until").fill("");
  await page.getByLabel("Mixing").fill("a lot");
  await page.getByRole("button", { name: "Plan these" }).click();
  await expect(page.getByRole("alert").first()).toBeVisible();
  await expect(page.getByLabel("Mixing")).toHaveValue("a lot");
  await page.getByLabel("Mixing").fill("5");
  await page.getByRole("button", { name: "Plan these" }).click();
  await expect(sentence).toContainText("43 min from the start");
  const [file] = await Promise.all([page.waitForEvent("download"), page.getByRole("link", { name: "Calendar file" }).click()]);
  const ics = readFileSync(await file.path(), "utf8");
  expect(ics.match(/BEGIN:VEVENT/g)).toHaveLength(4);
  expect(said.filter((s) => !s.includes("422"))).toEqual([]); // the refused form is answered with 422, which the browser notes itself
});
