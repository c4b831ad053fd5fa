import { test } from "./fixture";
import { PAGES } from "./page-list";
import { open } from "./support";
test("words", async ({ page }) => {
  test.setTimeout(900_000);
  const want = (process.env.WANT ?? "").split(";");
  await page.setViewportSize({ width: +(process.env.W ?? 1280), height: +(process.env.H ?? 800) });
  for (const [name, path] of PAGES.filter(([n]) => want.includes(n))) {
    await open(page, await path(page));
    await page.waitForTimeout(400);
    const texts = await page.evaluate(() => {
      const scroller = document.getElementById("page")!;
      const main = scroller.querySelector("main") ?? scroller;
      const SKIP =
        "table, svg, button, select, label, legend, dt, summary, option, script, style, nav, aside[aria-label=Section], .press, .small-label, [hidden], .sr-only, [role=radiogroup], [data-figures]";
      const blocks = new Map<Element, string>();
      const tree = document.createTreeWalker(main, NodeFilter.SHOW_TEXT);
      const seen = (e: Element) => {
        const r = e.getBoundingClientRect();
        return r.width > 2 && r.height > 2 && e.checkVisibility({ checkVisibilityCSS: true });
      };
      while (tree.nextNode()) {
        const node = tree.currentNode as Text;
        const parent = node.parentElement!;
        if (parent.closest(SKIP) || !seen(parent)) continue;
        let block = parent;
        while (getComputedStyle(block).display.startsWith("inline") && block !== main) block = block.parentElement!;
        blocks.set(block, `${blocks.get(block) ?? ""} ${node.data}`);
      }
      return [...blocks]
        .filter(([b, t]) => b.getBoundingClientRect().top < innerHeight - 56 && t.split(/\s+/).filter((w) => /\p{L}/u.test(w)).length >= 5)
        .map(([b, t]) => `${b.tagName}.${(b.className + "").slice(0, 30)} | ${t.trim().replace(/\s+/g, " ")}`);
    });
    console.log(`== ${name}\n${texts.join("\n")}`);
  }
});
