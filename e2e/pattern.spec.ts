import { expect, test } from "./fixture";
import { open } from "./support";

const MENDS: Record<string, RegExp> = {
  even: /^Even/,
  crescent: /^Clean the air cap/,
  split: /^Less air/,
  "wet middle": /^Less fluid/,
  spits: /^Tighten/,
};

test("guns tried on paper: each look has its mend, a heavy end is told by half a turn of the cap; a wrong mend changes nothing", async ({
  page,
}) => {
  await open(page, "/practice/pattern");
  const sentence = page.getByTestId("pattern-sentence");
  const bursts = page.getByTestId("burst");
  const told = async (n: number) => (await bursts.nth(n).getAttribute("aria-label"))!.replace(/^[^:]*: /, "");
  const seen = new Set<string>();
  for (let round = 0; round < 14; round++) {
    const first = await told(0);
    let mend = MENDS[first];
    if (!mend) {
      await page.getByRole("button", { name: /^Turn the cap/ }).click();
      await expect(bursts).toHaveCount(2);
      mend = (await told(1)) === first ? /^Clean tip/ : /^Clean the air cap/;
      expect(first).toMatch(/^heavy end, the (upper|lower) one$|^crescent, its middle to the (left|right)$/);
      if (first.startsWith("crescent")) expect(await told(1)).not.toBe(first);
    }
    seen.add(first.split(",")[0]!);
    if (round === 0) {
      const other = page.getByRole("list", { name: "What mends it" }).getByRole("button").filter({ hasNotText: mend }).first();
      await other.click();
      await expect(sentence).toContainText("It sprays as before");
      await expect(other).toBeDisabled();
    }
    await page.getByRole("button", { name: mend }).click();
    await expect(sentence).toContainText(/^(Mended|Right)\./);
    await page.getByRole("button", { name: "Another gun" }).click();
    await expect(sentence).toContainText("What is wrong with this gun?");
  }
  expect(seen.size).toBeGreaterThan(2);
  await expect(page.getByTestId("pattern-kept")).toHaveText("13 of 14 at the first try");
});
