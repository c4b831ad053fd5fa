import axe, { type RunOnly } from "axe-core";
import type { Page } from "@playwright/test";

/** The two themes differ in their colours alone. */
const RULES = ["wcag2a", "wcag2aa", "wcag21a", "wcag21aa", "wcag22aa"];
const SIZES = [
  [1280, 800],
  [820, 1180],
  [390, 844],
] as const;
export const WIDE = { width: SIZES[0][0], height: SIZES[0][1] };

/** What axe finds on a page by day and by night. It is brought into the page once, looks in the page itself and gathers what it finds alone: half the work. */
export async function axeByDayAndNight(page: Page): Promise<Record<"booth" | "night", string[]>> {
  await page.evaluate(axe.source);
  const found = (theme: "booth" | "night", runOnly: RunOnly) =>
    page.evaluate(
      async ({ theme, runOnly }) => {
        document.documentElement.dataset.theme = theme;
        const { axe } = window as unknown as { axe: typeof import("axe-core") };
        const { violations } = await axe.run(document, { runOnly, resultTypes: ["violations"] });
        return violations.map((v) => `${v.id}: ${v.nodes[0]?.html}`);
      },
      { theme, runOnly },
    );
  const booth = await found("booth", { type: "tag", values: RULES });
  return { booth, night: await found("night", { type: "rule", values: ["color-contrast"] }) };
}

/** At each size how far the page runs out of the side, and which controls a glove misses. */
export async function outAndSmallAtSizes(page: Page): Promise<Record<number, ReturnType<typeof outAndSmall>>> {
  const found: Record<number, ReturnType<typeof outAndSmall>> = {};
  for (const [width, height] of SIZES) {
    await page.setViewportSize({ width, height });
    found[width] = await page.evaluate(outAndSmall);
  }
  return found;
}

const NOTHING = { over: 0, small: [] };
export const NOTHING_FOUND = { booth: [], night: [], 1280: NOTHING, 820: NOTHING, 390: NOTHING };

/** How far the page runs out of the side, and controls that a glove misses. */
function outAndSmall() {
  const small = [...document.querySelectorAll<HTMLElement>(".press, .field, .choice, nav a, nav button")].flatMap((e) => {
    const { width: w, height: h } = e.getBoundingClientRect();
    const clipped = e.classList.contains("sr-only");
    const name = e.textContent?.trim().slice(0, 30);
    if (w === 0 || clipped) return [];
    // What stands in a press stands inside it: else it lies over its neighbour.
    const out = e.matches(".press, nav a") && e.scrollWidth > e.clientWidth + 1;
    return [
      ...(h < 43.5 || w < 43.5 ? [`${name} ${w.toFixed(0)}×${h.toFixed(0)}`] : []),
      ...(out ? [`${name} runs out of its press`] : []),
    ];
  });
  const page = document.getElementById("page")!;
  return { over: Math.max(0, document.documentElement.scrollWidth - innerWidth, page.scrollWidth - page.clientWidth), small };
}
