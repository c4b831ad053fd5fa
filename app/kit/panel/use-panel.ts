import { useOutletContext } from "react-router";
import type { PanelView } from "#server/views/panel-view";
import type { SectionPreview } from "./film-section";

export interface PanelContext {
  view: PanelView;
  base: string;
  /** What the page would do to the film; the section shows it at once. */
  setPreview: (preview: SectionPreview) => void;
}
export const usePanel = () => useOutletContext<PanelContext>();
