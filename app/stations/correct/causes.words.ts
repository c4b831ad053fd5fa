import type { RankedCause } from "#core/models/defects/diagnose";
import { CAUSES, type Cause } from "#core/models/defects/causes";
import type { CausesView } from "#server/views/causes-view";
import type { Working } from "~/kit/ui/figure";

const SURE = { 1: "sure", 2: "fairly sure", 3: "a guess" } as const;

/** How a cause's share came about. */
export function causeWorking(c: RankedCause, { kind, finalWords }: CausesView): Working {
  const cause: Cause | null = c.id && CAUSES[c.id];
  const words = c.id ? (finalWords[c.id] ?? 0) : 0;
  return {
    title: c.name,
    formula:
      "How often it is behind such a defect, times how often each finding goes with it, against all other causes. A share is kept for what is not in the list.",
    inputs: [
      ...(cause ? [{ name: "weight in the list", shown: String(cause.of[kind] ?? 0) }] : []),
      { name: "this shop's final words for it", shown: String(words) },
      ...[...c.speaksFor, ...c.speaksAgainst].map((s) => ({
        name: s.words,
        shown: s.times > 1 ? `${s.times.toFixed(1)} × likelier` : `${(1 / s.times).toFixed(1)} × less likely`,
      })),
      ...(cause ? [{ name: "the trade is", shown: SURE[cause.confidence] }] : []),
    ],
    sources: ["common-practice", "yakamoz-default", "job-record"],
    changesMost: "The question that is asked next.",
  };
}
