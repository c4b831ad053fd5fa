import { startTransition, useEffect } from "react";
import type { SectionPreview } from "./film-section";
import { usePanel } from "./use-panel";

/** What a page would do to the film, drawn on the section beside it a frame after the hand, for as long as the page stands: it goes with the page. */
export function usePreview(preview: SectionPreview | null): void {
  const { setPreview } = usePanel();
  const drawn = JSON.stringify(preview ?? {}); // the figures decide, not the object made anew with each render
  useEffect(() => startTransition(() => setPreview(JSON.parse(drawn) as SectionPreview)), [drawn, setPreview]);
  useEffect(() => () => setPreview({}), [setPreview]);
}
