import { expect, test } from "./fixture";
import { open, startJob } from "./support";

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

  await floor.getByRole("button", { name: "Archive Poyraz for deletion" }).click();
  await away.getByRole("button", { name: "Delete Poyraz for deletion" }).click();
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
