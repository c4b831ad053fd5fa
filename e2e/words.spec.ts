import { expect, test } from "./fixture";
import { PAGES, today } from "./page-list";
import { open } from "./support";

const IMPERIAL = { film: "mil", length: "in", temperature: "°F", pressure: "psi", volume: "fl oz" };

/**
 * Names of things that carry a metric figure in every country: flow cups, nozzles, viscosity, VOC limits; and what a person typed or chose
 * himself: names of panels, notes, the units one may choose, readings in the ledger as they were entered.
 */
const EVERYWHERE = /ISO \d mm|DIN \d mm|mm²\/s|g\/l|^,? ?mm$|^spot .*, (?:before clear|after clear|after sanding): /;

test("in a shop of mils no page shows a metric unit, nor a plural of one", async ({ page }) => {
  test.setTimeout(300_000);
  await page.request.post("/do/prefs", { data: { units: IMPERIAL } });
  const found: Record<string, string[]> = {};
  for (const [name, path] of today(PAGES, 2)) {
    await open(page, await path(page));
    await page.waitForTimeout(400); // answers of the worker that come at once
    const said = await page.evaluate(() => {
      const out: string[] = [];
      const bad =
        /µm|\bm²|cm²|°C|\bbar\b|\bml\b|\d\s?cm\b|\bmm\b|\bm\/s\b|\d m\b|\b1 (?:spots|coats|nibs|panels|readings|places|entries|cans|cards|minutes|hours|days)\b/;
      const tree = document.createTreeWalker(document.getElementById("page")!, NodeFilter.SHOW_TEXT);
      while (tree.nextNode()) {
        const node = tree.currentNode as Text;
        // A choice between units names them all.
        if (node.parentElement!.closest("script, style, [hidden], [role=radiogroup], option")) continue;
        if (bad.test(node.data)) out.push(node.data.trim().slice(0, 120));
      }
      for (const e of document.querySelectorAll("#page [aria-label], #page [title], #page [alt]"))
        for (const a of ["aria-label", "title", "alt"]) if (bad.test(e.getAttribute(a) ?? "")) out.push(e.getAttribute(a)!.slice(0, 120));
      return out;
    });
    const wrong = said.filter((t) => !EVERYWHERE.test(t));
    if (wrong.length > 0) found[name] = wrong;
  }
  expect(found).toEqual({});
});
