import { type PanelContext, usePanel } from "./use-panel";
import { Tag } from "~/kit/ui/tag";

/** How far the clear may be believed where it was not measured on the part. */
export function InferredTag() {
  const panel = usePanel() as PanelContext | undefined; // a quick question has none
  const how = panel?.view.state.film.how;
  const words =
    how === "forecast"
      ? "By forecast alone, not measured"
      : how === "by a strip beside it"
        ? "By a strip beside it"
        : "Inferred, not measured";
  return <Tag kind="caution">{words}</Tag>;
}
