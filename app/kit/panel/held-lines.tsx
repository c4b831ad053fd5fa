import { Link } from "react-router";
import { type BlockedBy, stops } from "#core/judge/blocked-by";
import type { PanelView } from "#server/views/panel-view";
import { showWait } from "#core/kernel/units/format";
import { useUnits } from "~/kit/root/use-root";
import { holdWords } from "~/kit/words/hold-words";

/** All that holds a work on this panel back, each in a sentence with what comes first. */
export function HeldLines({
  held,
  left_s = 0,
  view: { job, panel },
}: {
  held: readonly BlockedBy[];
  /** Until the clear is hard. */
  left_s?: number;
  view: Pick<PanelView, "job" | "panel">;
}) {
  const units = useUnits();
  if (held.length === 0) return null;
  const words = (h: BlockedBy): string => {
    switch (h.by) {
      case "matte":
        return "Matte cannot be sanded or polished: any of these steps means refinishing the whole part.";
      case "uncured":
        return `Not before it is hard: ${showWait(left_s)} to go. Soft clear tears and loads the paper; no plan on it is called safe.`;
      case "inTheWay":
        return "Not called safe while an entry of the ledger is left out of the figures: put it right or take it out first.";
      case "doubtful":
        return "Not called safe while readings cannot be right together: see above which.";
      case "fault":
        return holdWords(h.fault, panel.shape, units);
    }
  };
  return (
    <ul className="mb-3 max-w-[75ch]" data-testid="held">
      {held.map((h, i) => (
        <li key={i} className={`font-semibold ${stops(h) ? "text-stop-ink" : "text-amber-ink"}`} data-held={h.by}>
          {words(h)}
        </li>
      ))}
      {held.some((h) => h.by === "fault") && (
        <li className="text-ink2">
          Seen to since, or marked by mistake?{" "}
          <Link to={`/jobs/${job.id}/panels/${panel.id}/inspect/defects`} className="underline underline-offset-4">
            Say so at its mark
          </Link>
        </li>
      )}
    </ul>
  );
}
