import { writeFileSync } from "node:fs";
import { test } from "./fixture";
import { firstScreen } from "./first-screen";
import { PAGES } from "./page-list";
import { open } from "./support";
test("measure", async ({ page }) => {
  test.setTimeout(900_000);
  const rows: string[] = [];
  for (const [name, path] of PAGES) {
    const at = await path(page);
    const cells = [];
    for (const [w, h] of [
      [1280, 800],
      [820, 1180],
      [390, 844],
    ] as const) {
      await page.setViewportSize({ width: w, height: h });
      await open(page, at);
      await page.waitForTimeout(300);
      const f = await firstScreen(page);
      cells.push(
        `${f.words}/${f.before} act ${f.action} fld ${f.field} fold ${f.fold} fix ${f.fixed}${f.beyond ? ` BEYOND ${f.beyond}` : ""}`,
      );
    }
    rows.push(`${name.padEnd(22)} | ${cells.join(" | ")}`);
    writeFileSync(process.env.OUT ?? "/tmp/w/measure.txt", rows.join("\n"));
  }
});
