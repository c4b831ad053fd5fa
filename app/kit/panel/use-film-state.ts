import { useMemo } from "react";
import { type FilmState, filmOf } from "#core/course/film-phase";
import { useNow } from "~/kit/shell/now";
import { usePanel } from "./use-panel";

/** Cure goes by minutes. */
const MINUTE_MS = 60_000;

/** How far the panel's clear is now. */
export function useFilmState(): FilmState {
  const { view } = usePanel();
  const now_ms = Math.floor(useNow() / MINUTE_MS) * MINUTE_MS;
  return useMemo(() => filmOf(view, now_ms), [view, now_ms]);
}
