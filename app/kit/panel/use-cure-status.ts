import { useMemo } from "react";
import { type CureStatus, filmOf, minuteOf } from "#core/course/cure-status";
import type { PanelView } from "#server/views/panel-view";
import { useNow } from "~/kit/shell/now";
import { usePanel } from "./use-panel";

/** How far a panel's clear is now. */
export function useFilmStateOf(view: PanelView): CureStatus {
  const now_ms = minuteOf(useNow());
  return useMemo(() => filmOf(view, now_ms), [view, now_ms]);
}

/** The same of the panel whose page this is. */
export const useCureStatus = (): CureStatus => useFilmStateOf(usePanel().view);
