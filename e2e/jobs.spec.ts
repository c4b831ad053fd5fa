import { expect, test } from "./fixture";
import { messagesGone, open, startJob } from "./support";

test("a job is put away, deleted, taken back in by Undo, and deleted for good with its file; every step can be searched and says itself", async ({
  page,
}) => {
  await startJob(page, { vehicle: "Poyraz for deletion" });
  await open(page, "/jobs");
  const floor = page.getByRole("region", { name: "On the floor" });
  const away = page.getByRole("region", { name: "Archive" });
  const deleted = page.getByRole("region", { name: "Deleted" });
  await floor.getByRole("button", { name: "Archive Poyraz for deletion" }).click();
  await expect(page.getByText("Poyraz for deletion is archived")).toBeVisible();
  await away.getByRole("button", { name: "Delete Poyraz for deletion" }).click();
  await expect(page.getByText("Poyraz for deletion is deleted; its job file is kept below")).toBeVisible();
  await expect(deleted.getByText("Poyraz for deletion")).toHaveCount(4); // its name, and in the names of its three buttons
  await page.locator("[data-sonner-toast]", { hasText: "is deleted" }).getByRole("button", { name: "Undo" }).click();
  await expect(floor.getByRole("link", { name: "Poyraz for deletion" })).toBeVisible();
  await expect(deleted).toHaveCount(0);

  await messagesGone(page);
  await floor.getByRole("button", { name: "Archive Poyraz for deletion" }).click();
  await expect(page.getByText("Poyraz for deletion is archived")).toBeVisible();
  await messagesGone(page);
  await away.getByRole("button", { name: "Delete Poyraz for deletion" }).click();
  await expect(page.getByText("Poyraz for deletion is deleted; its job file is kept below")).toBeVisible();
  await messagesGone(page);
  const [file] = await Promise.all([
    page.waitForEvent("download"),
    deleted.getByRole("link", { name: "Job file of Poyraz for deletion" }).click(),
  ]);
  expect(file.suggestedFilename()).toBe("Poyraz for deletion.yakamoz.json");
  await deleted.getByRole("button", { name: /Let the file go too/ }).click();
  await deleted.getByRole("button", { name: /For good/ }).click();
  await expect(deleted).toHaveCount(0);

  await floor.getByRole("button", { name: "Vehicle" }).click();
  await expect(page).toHaveURL(/open\.sort=vehicle/);
  await expect(async () => {
    const names = await floor.getByRole("row").locator("td:first-child").allInnerTexts();
    expect(names).toEqual([...names].sort((a, b) => a.localeCompare(b)));
  }).toPass();
});

test("a coat logged on the wrong door moves to the right one; the door that was added twice is removed, kept, and taken back", async ({
  page,
}) => {
  const base = await startJob(page, { vehicle: "Two doors too many", shape: "door" });
  const job = base.replace(/\/panels\/.*$/, "");
  const title = page.getByRole("heading", { level: 1 });
  await open(page, `${job}/add-panel`);
  await page.getByLabel("Shape").selectOption("door");
  await page.getByLabel("Call it").fill("Rear door");
  await page.getByRole("button", { name: "Add this panel" }).click();
  await expect(title).toHaveText("Two doors too many, rear door");
  const rear = page.url().replace(/\/course$/, "");

  await open(page, `${base}/spray`);
  await page.getByRole("button", { name: "Log coat 1" }).click();
  await expect(page.getByText("Coat 1 logged").first()).toBeVisible();
  await page.getByRole("link", { name: "Put right coat 1" }).click();
  await page.getByLabel("Belongs to").selectOption("Rear door");
  await page.getByRole("button", { name: "Put it right" }).click();
  await expect(page).toHaveURL(`${rear}/spray`);
  await expect(page.getByRole("list", { name: "Coats sprayed" })).toContainText("Coat 1");
  await open(page, `${base}/spray`);
  await expect(page.getByRole("button", { name: "Log coat 1" })).toBeVisible();

  await open(page, `${rear}/change`);
  await page.getByRole("button", { name: "Remove Rear door from this job" }).click();
  await page.getByRole("button", { name: "Yes, remove Rear door" }).click();
  const removed = page.getByRole("list", { name: "Removed from this job" });
  await expect(removed).toContainText("Rear door");
  await expect(title).toHaveText("Change Two doors too many, door");
  expect((await page.request.get(`${rear}/course`)).status()).toBe(404);
  await removed.getByRole("button", { name: "Take back" }).click();
  await expect(removed).toHaveCount(0);
  await open(page, `${rear}/spray`);
  await expect(page.getByRole("list", { name: "Coats sprayed" })).toContainText("Coat 1");
});
