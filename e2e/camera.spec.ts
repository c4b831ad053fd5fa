import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import sharp from "sharp";
import config from "../playwright.config";
import { photographNibs } from "../stand-ins/camera";
import { expect, test } from "./fixture";
import { axeByDayAndNight } from "./look-over";
import { panelPath } from "./page-list";
import { open, watchConsole } from "./support";

/** What the made-up camera sees: a panel with twelve nibs in even light, as a film of one frame. */
async function filmOfNibs(folder: string): Promise<string> {
  const { picture } = photographNibs({
    width: 1280,
    height: 960,
    scale_m_px: 0.15e-3,
    nibs: 12,
    seed: 4,
    diameters_m: [1e-3],
    contrasts: [0.3],
  });
  const raw = { width: picture.width, height: picture.height, channels: 4 } as const;
  const file = join(folder, "panel.mjpeg");
  writeFileSync(file, await sharp(Buffer.from(picture.rgba), { raw }).jpeg({ quality: 95 }).toBuffer());
  return file;
}

test("the device's camera: what it sees is judged while it is held, a picture is looked at, used and counted in", async ({
  playwright,
  baseURL,
}) => {
  test.setTimeout(180_000);
  const folder = mkdtempSync(join(tmpdir(), "yakamoz-camera-"));
  const { args = [], ...launch } = config.use!.launchOptions!;
  const fake = ["--use-fake-device-for-media-stream", `--use-file-for-fake-video-capture=${await filmOfNibs(folder)}`];
  const browser = await playwright.chromium.launch({ ...launch, args: [...args, ...fake] });
  try {
    const context = await browser.newContext({ baseURL, viewport: { width: 1280, height: 800 }, serviceWorkers: "block" });
    const page = await context.newPage();
    const said = watchConsole(page);
    const path = await panelPath(page, "Imbat", "Side panel", "inspect/photo");

    await open(page, path);
    const start = page.getByRole("button", { name: "Take a picture" });
    await start.click();
    await expect(page.getByRole("alert")).toContainText("not allowed to use the camera");
    await page.keyboard.press("Escape");
    await context.grantPermissions(["camera"]);
    await start.press("Enter");
    await expect(page.getByTestId("camera-says")).toHaveText("Light and view will do.");
    expect(await axeByDayAndNight(page)).toEqual({ booth: [], night: [] });
    await page.keyboard.press("Enter"); // takes it
    await page.getByRole("button", { name: "Take it again" }).click();
    await expect(page.getByRole("button", { name: "Take it", exact: true })).toBeFocused();
    await page.keyboard.press("Enter");
    await expect(page.getByRole("button", { name: "Use it" })).toBeFocused();
    await page.keyboard.press("Enter");
    await expect(start).toBeFocused();
    await page.getByRole("button", { name: "Count the nibs" }).click();
    await expect(page.getByTestId("nib-sentence")).toContainText(/1[1-4] nibs marked/);
    await page.getByRole("button", { name: /^Keep 1\d nibs/ }).click();
    await expect(page.getByTestId("nib-sentence")).toContainText("Photograph the panel");

    // A panel without a tube in it is told from what is seen, before a picture is taken of it.
    await open(page, path.replace("photo", "reflection"));
    await page.getByRole("button", { name: "Take a picture of this panel" }).click();
    await expect(page.getByTestId("camera-says")).toContainText("No bright tube is seen");
    await page.getByRole("button", { name: "Close" }).click();

    expect(said).toEqual([]);

    // Over plain http a browser lends no page the camera: the device's own program is asked.
    await page.addInitScript(() => delete (Navigator.prototype as { mediaDevices?: unknown }).mediaDevices);
    await open(page, path);
    const chooser = page.waitForEvent("filechooser");
    await page.getByRole("button", { name: "Take a picture" }).click();
    await (
      await chooser
    ).setFiles({ name: "p.jpg", mimeType: "image/jpeg", buffer: await sharp(join(folder, "panel.mjpeg")).jpeg().toBuffer() });
    await expect(page.getByRole("button", { name: "Count the nibs" })).toBeEnabled();
  } finally {
    await browser.close();
    rmSync(folder, { recursive: true, force: true });
  }
});
