import type { Page } from "@playwright/test";

/** What a page says and offers on its first screen. */
export interface FirstScreen {
  /** Words of sentences (text of five words or more; labels, figures and tables, what the page lists as such among them, apart) that stand on it. */
  words: number;
  /** The same before the first action, wherever that is. */
  before: number;
  /** Height from which on the page cannot be seen, and where main action and first field end; null: the page has none. */
  fold: number;
  action: number | null;
  field: number | null;
  /** Header and clocks together. */
  fixed: number;
  /** How far anything reaches beyond the right edge. */
  beyond: number;
}

/** Measures the page that is open, scrolled to its top. */
export const firstScreen = (page: Page): Promise<FirstScreen> =>
  page.evaluate(() => {
    const scroller = document.getElementById("page")!;
    scroller.scrollTo(0, 0);
    scrollTo(0, 0);
    const main = scroller.querySelector("main") ?? scroller;
    const seen = (e: Element) => {
      const r = e.getBoundingClientRect();
      return r.width > 2 && r.height > 2 && e.checkVisibility({ checkVisibilityCSS: true });
    };
    const feet = [...document.querySelectorAll("[aria-label=Clocks], [aria-label=Places]")].map((e) => e.getBoundingClientRect());
    const fold = Math.min(innerHeight, ...feet.filter((r) => r.width > innerWidth / 2).map((r) => r.top));
    const ACTION = "[data-kind=main], input:not([type=hidden]), select, textarea";
    const offered = (of: string) => [...main.querySelectorAll(of)].find((e) => seen(e) && !e.closest("nav"));
    const action = offered(ACTION) ?? offered(".press");
    const press = offered("[data-kind=main]") ?? offered(".press");
    const field = offered("input:not([type=hidden]):not([type=file]), select, textarea");
    const SKIP =
      "table, svg, button, select, label, legend, dt, summary, option, script, style, nav, aside[aria-label=Section], .press, .small-label, [hidden], .sr-only, [role=radiogroup], [data-figures]";
    const blocks = new Map<Element, string>();
    const tree = document.createTreeWalker(main, NodeFilter.SHOW_TEXT);
    while (tree.nextNode()) {
      const node = tree.currentNode as Text;
      const parent = node.parentElement!;
      if (parent.closest(SKIP) || !seen(parent)) continue;
      let block = parent;
      while (getComputedStyle(block).display.startsWith("inline") && block !== main) block = block.parentElement!;
      blocks.set(block, `${blocks.get(block) ?? ""} ${node.data}`);
    }
    let words = 0;
    let before = 0;
    for (const [block, text] of blocks) {
      const n = text.split(/\s+/).filter((w) => /\p{L}/u.test(w)).length;
      if (n < 5) continue;
      if (block.getBoundingClientRect().top < fold) words += n;
      if (action && action.compareDocumentPosition(block) & Node.DOCUMENT_POSITION_PRECEDING) before += n;
    }
    const bottom = (e: Element | undefined) => (e ? Math.round(e.getBoundingClientRect().bottom) : null);
    const header = document.querySelector("#page header")?.getBoundingClientRect().height ?? 0;
    const clocks = document.querySelector("[aria-label=Clocks]")!.getBoundingClientRect().height;
    return {
      words,
      before,
      fold: Math.round(fold),
      action: bottom(press),
      field: bottom(field),
      fixed: Math.round(header + clocks),
      beyond: Math.max(0, document.documentElement.scrollWidth - innerWidth, scroller.scrollWidth - scroller.clientWidth),
    };
  });
