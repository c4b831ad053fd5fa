import { existsSync, mkdirSync, readdirSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { expect, test } from "@playwright/test";
import { open, ownServer, settled, startJob } from "./support";

test("a backup is made, looked into and brought back while another window is open; what was there lies aside and can be brought back the same way", async ({
  browser,
}) => {
  test.setTimeout(180_000);
  const server = await ownServer();
  await server.start();
  const context = await browser.newContext({ baseURL: server.url });
  const page = await context.newPage();
  const other = await context.newPage();
  const title = page.getByTestId("inside");
  const copies = page.getByRole("list", { name: "Copies" }).getByRole("listitem");
  try {
    await startJob(page, { vehicle: "Lodos kept" });
    await open(page, "/house");
    await page.getByRole("link", { name: "Look at them, bring one back" }).click();
    await expect(page.getByTestId("newest")).toHaveText("None has been made yet.");
    await page.getByRole("button", { name: "Make one now" }).click();
    await expect(page.getByTestId("newest")).toHaveText("The last one was made just now.");
    await startJob(page, { vehicle: "Poyraz after it" });
    await open(other, "/");
    await expect(other.getByText("Poyraz after it").first()).toBeVisible();

    await open(page, "/house/backups");
    await copies
      .first()
      .getByRole("link", { name: /^Look into it/ })
      .click();
    await expect(title).toHaveText("1 job would go; 1 would stay as it is.");
    await expect(page.getByRole("row", { name: "Poyraz after it" })).toContainText("not there");
    await page.getByRole("button", { name: /^Bring it back/ }).click();
    await page.getByRole("button", { name: /^Put it in the place/ }).click();
    await expect(page.getByTestId("newest")).toBeVisible();
    await expect(copies).toHaveCount(2);
    await expect(other.getByText("Poyraz after it")).toHaveCount(0); // the other window looks again by itself
    await expect(other.getByText("Lodos kept").first()).toBeVisible();

    // What is entered from now on stays, and the shop that was there comes back by the same press.
    await startJob(page, { vehicle: "Imbat since" });
    await open(page, "/house/backups");
    await expect(copies.getByText("what was there before a restore")).toHaveCount(1);
    await copies
      .filter({ hasText: "what was there before a restore" })
      .getByRole("link", { name: /^Look into it/ })
      .click();
    await expect(title).toHaveText("1 job would go, 1 job would come back; 1 would stay as it is.");
    await page.getByRole("button", { name: /^Bring it back/ }).click();
    await page.getByRole("button", { name: /^Put it in the place/ }).click();
    await expect(copies).toHaveCount(3);
    await open(page, "/jobs");
    await expect(page.getByText("Poyraz after it").first()).toBeVisible();
    await expect(page.getByText("Imbat since")).toHaveCount(0);
    expect(readdirSync(join(server.folder, "set-aside"))).toHaveLength(2);

    // It is all there after a stop and a start, by the same file.
    await server.stop("SIGTERM");
    await server.start();
    await open(page, "/jobs");
    await expect(page.getByText("Poyraz after it").first()).toBeVisible();
  } finally {
    await context.close();
    await server.stop("SIGTERM");
  }
});

test("a second place is chosen and used; one that cannot be is said at the field, and a backup that is damaged is never offered as whole", async ({
  browser,
}) => {
  const server = await ownServer();
  await server.start();
  const context = await browser.newContext({ baseURL: server.url });
  const page = await context.newPage();
  const field = page.getByLabel("Folder on another disk");
  try {
    await open(page, "/house/backups");
    await field.fill("backups");
    await page.getByRole("button", { name: "Keep every backup there too" }).click();
    await expect(page.getByText("Give the whole path of a folder on this computer, from its root")).toBeVisible();
    await expect(field).toHaveValue("backups");
    const second = join(server.folder, "..", `${server.folder.split("/").at(-1)}-second`);
    mkdirSync(second);
    await field.fill(second);
    await page.getByRole("button", { name: "Keep every backup there too" }).click();
    await settled(page);
    await page.getByRole("button", { name: "Make one now" }).click();
    await expect(page.getByRole("list", { name: "Copies" }).getByRole("listitem")).toHaveCount(2);
    await expect(page.getByText("; second place")).toHaveCount(1);
    const away = page.getByRole("listitem").filter({ hasText: "; second place" });
    await away.getByRole("button", { name: /^Let it go/ }).click();
    await away.getByRole("button", { name: /^For good/ }).click();
    await expect(page.getByText("; second place")).toHaveCount(0);
    await page.getByRole("button", { name: "Make one now" }).click();
    await expect(page.getByText("; second place")).toHaveCount(1);
    expect(readdirSync(second).filter((name) => name.endsWith(".sqlite"))).toHaveLength(1); // the other one was let go

    writeFileSync(join(server.folder, "backups", "yakamoz-20260102-030405.sqlite"), "no shop, only words: ".repeat(20));
    await open(page, "/house/backups");
    await page.getByRole("link", { name: /^Look into it of 2 Jan 2026/ }).click();
    await expect(page.getByTestId("inside")).toHaveText("This copy cannot be used.");
    await expect(page.getByRole("button", { name: /Bring it back/ })).toHaveCount(0);
    expect((await page.request.get("/house/backups/here-..%2Fyakamoz.sqlite")).status()).toBe(404);
    expect(existsSync(join(server.folder, "yakamoz.sqlite"))).toBe(true);
  } finally {
    await context.close();
    await server.stop("SIGTERM");
  }
});
