import { show, showSpan } from "#core/kernel/units/format";
import type { UnitPreferences } from "#core/kernel/units/quantities";
import { type Go, type Round, isOfGo } from "#core/vehicle/round-walk";
import type { Shade } from "#core/models/colour/job-colours";
import { BORDER_WEIGHT } from "#core/vehicle/vehicles";
import type { BorderMet, Walk } from "#core/vehicle/walk";
import type { Working } from "~/kit/ui/figure";
import { counted } from "~/kit/words/when";

/** What lies between two parts, as it is said. */
export const MEETS = { surface: "one surface", gap: "a gap", trim: "a gap with trim", turn: "round the edge" } as const;

export const isDry = (border: Pick<BorderMet, "ratio">): boolean => border.ratio > 1;

/** A border's two parts by name, the one sprayed first in front. */
export function borderName({ parts, borders }: Round, { border, first }: BorderMet): string {
  const { a, b } = borders[border]!;
  const later = first === a ? b : a;
  return `${parts[first]!.name} – ${parts[later]!.name.toLowerCase()}`;
}

/** How a walk comes out, in a few words. */
export const walkWords = ({ borders, total_s }: Pick<Walk, "borders" | "total_s">): string => {
  const dry = borders.filter(isDry).length;
  const met = borders.length === 0 ? "" : dry === 0 ? "every border met wet, " : `${counted(dry, "border", "borders")} dry, `;
  return `${met}${showSpan(total_s)} min`;
};

/** Where a border that is dry can lie best: at what costs least of those that are. */
export const dryAt = (round: Round, walk: Walk): string =>
  walk.borders
    .filter(isDry)
    .map((b) => `${borderName(round, b)} (${MEETS[round.borders[b.border]!.meets]})`)
    .join("; ");

export function walkWorking(round: Round, walk: Walk, units: UnitPreferences): Working {
  return {
    title: "Wet edge",
    formula:
      "A border stays open until half of its film no longer moves, by the drying of the flow model. Its age is counted from when the first part's rows left it to when the other part's rows reach it. " +
      "Every order is thought of: fewest dry borders first, a dry one on a surface that goes on counts double that at a gap; then the youngest oldest border; then the shortest walk.",
    inputs: [
      ...walk.order.map((p) => {
        const part = round.parts[p]!;
        const v = show("volume", part.volume_m3, units);
        return { name: part.name, shown: `rows ${showSpan(part.spray_s)}, ${v.text} ${v.unit}, open ${showSpan(part.open_s)}` };
      }),
      {
        name: "weights",
        shown: Object.entries(BORDER_WEIGHT)
          .map(([k, w]) => `${MEETS[k as keyof typeof MEETS]} ${w}`)
          .join(", "),
      },
    ],
    sources: ["orchard-flow", "common-practice", "yakamoz-default"],
    changesMost: "The hardener, then the air in the booth.",
  };
}

/** What is sprayed in one go, with how many parts it has. */
export function goName(go: Go, { round, shades: [first, second = first] }: { round: Round; shades: readonly [Shade, ...Shade[]] }): string {
  const n = round.parts.filter((part) => isOfGo(part, go)).length;
  const names: Record<Go, string> = {
    shuts: "Shuts first",
    body: "Body",
    first: first.name || "First colour",
    second: second.name || "Second colour",
    all: "All in one go",
  };
  return `${names[go]} (${n})`;
}

export const GO_WORDS: Record<Go, string> = {
  shuts: "Taken apart, or masked from behind afterwards; their edge stays soft.",
  body: "Shuts are on and masked from behind.",
  first: "The other colour is masked, or not on yet.",
  second: "The other colour is masked, or not on yet.",
  all: "Each shut before the part that closes over it.",
};

/** Panels of a round by their ids, go by go. */
export const inGoes = (round: Round, goes: readonly Go[]): string[] => [
  ...new Set(goes.flatMap((go) => round.parts.flatMap((part) => (isOfGo(part, go) ? [part.id] : [])))),
];

/** Some of a list in another order, where they stood in it; the others stay. */
export function amidst(all: readonly string[], some: readonly string[]): string[] {
  const moved = new Set(some);
  const next = [...some];
  return all.map((id) => (moved.has(id) ? next.shift()! : id));
}
