import { expect, test } from "@playwright/test";
import { panelPath } from "./page-list";
import { open, ownServer, watchConsole } from "./support";

test("level only that half: chosen, drawn, worked, and only there the film is thinner; craters are filled before they are levelled", async ({
  browser,
}) => {
  test.setTimeout(180_000);
  const server = await ownServer(process.env.E2E_DEMO);
  await server.start();
  const page = await browser.newPage({ baseURL: server.url });
  const said = watchConsole(page);
  try {
    const base = (await panelPath(page, "Meltem", "Rear quarter", "x")).replace(/\/x$/, "");
    const clear = async () => {
      await open(page, `${base}/inspect`);
      return page.locator("main").innerText();
    };
    expect(await clear()).toContain("µm");

    // A half, at its own school; the whole is more work.
    await open(page, `${base}/correct?school=fine`);
    const use = page.getByRole("button", { name: /^Use this plan/ });
    await expect(use).toBeEnabled({ timeout: 30_000 });
    const minutes = async () => Number(/about ([\d.]+)/.exec((await page.getByText(/^Order of work, about/).textContent())!)![1]);
    const whole = await minutes();
    await page.getByLabel("Where", { exact: true }).selectOption("upper");
    await expect(page.getByText(/% of the panel; runs and nibs elsewhere/)).toBeVisible();
    await expect(use).toBeEnabled({ timeout: 30_000 });
    await expect.poll(minutes).toBeLessThan(whole);
    await page.getByLabel("Where", { exact: true }).selectOption("marked");
    await expect(page.getByRole("heading", { name: /No area is marked/ })).toBeVisible();
    await expect(use).toBeDisabled();

    // Two craters, noted with no size: options fill them, and the plan they open does.
    await open(page, `${base}/inspect/defects`);
    await page.getByLabel("From the left, mm", { exact: true }).fill("300");
    await page.getByLabel("From the top, mm", { exact: true }).fill("300");
    await page.getByLabel("Kind").selectOption("crater");
    await page.getByRole("button", { name: "Place it" }).click();
    await expect(page.getByText("Crater placed")).toBeVisible();
    await open(page, `${base}/correct/options`);
    const fill = page.getByTestId("option-dropFill");
    await expect(fill).toBeVisible({ timeout: 30_000 });
    await fill.getByRole("link", { name: "Plan it" }).click();
    await expect(page.getByText("Drop of clear").first()).toBeVisible({ timeout: 30_000 });
    await expect(page.getByLabel(/Fill what is crater or hole/)).toBeChecked();
    await expect(use).toBeEnabled({ timeout: 30_000 });
    await use.click();
    await expect(page.getByText("Drop of clear").first()).toBeVisible({ timeout: 20_000 });
    await expect(page).not.toHaveURL(/fill=/);
    expect(said).toEqual([]);
  } finally {
    await page.close();
    await server.stop("SIGTERM");
  }
});
