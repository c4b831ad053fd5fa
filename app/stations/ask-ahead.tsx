import { useMemo } from "react";
import { mapQuestion, optionQuestion } from "#core/judge/questions";
import type { PanelView } from "#server/views/panel-view";
import { useFilmStateOf } from "~/kit/panel/use-cure-status";
import { useUnits } from "~/kit/root/use-root";
import { useAskAhead } from "~/kit/run/use-run";
import { firstPlan } from "./correct/plan-choice";

/** Beside Inspect the map and the plan are one tap away: worked out while the page rests. */
export function AheadOfInspect({ view }: { view: PanelView }) {
  useAskAhead(
    "map",
    "mapPanel",
    useMemo(() => mapQuestion(view), [view]),
  );
  useFirstPlan(view);
  return null;
}

/** Beside Correct the plan and the options. */
export function AheadOfCorrect({ view }: { view: PanelView }) {
  const film = useFilmStateOf(view);
  useAskAhead(
    "map",
    "options",
    useMemo(() => (view.rates === null ? null : optionQuestion(view, { ...film, rates: view.rates })), [view, film]),
  );
  useFirstPlan(view);
  return null;
}

function useFirstPlan(view: PanelView): void {
  const units = useUnits();
  useAskAhead(
    "verdict",
    "plan",
    useMemo(() => firstPlan(view, units), [view, units]),
  );
}
