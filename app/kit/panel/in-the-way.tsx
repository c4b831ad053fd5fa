import { isPutRight } from "#core/record/put-right";
import type { PanelView } from "#server/views/panel-view";
import { useUnits } from "~/kit/root/use-root";
import { PutRightLink, StrikeButton } from "~/kit/shell/strike-button";
import { entryName, entryWords } from "~/kit/words/entry-words";

/** Entries that no figure of the panel can be worked out with: which, why, and the way to put each right or take it out. Shown on every page of the panel. */
export default function InTheWayNotice({ view, base }: { view: PanelView; base: string }) {
  const units = useUnits();
  const { inTheWay } = view.state;
  return (
    <section role="alert" data-testid="in-the-way" className="no-print mb-5 border-l-4 border-amber-ink pl-4">
      <h2 className="text-lg font-semibold">
        {inTheWay.length === 1 ? "One entry does not fit the others" : `${inTheWay.length} entries do not fit the others`}: no figure here
        counts {inTheWay.length === 1 ? "it" : "them"}
      </h2>
      <ul>
        {inTheWay.map(({ entry, why }) => (
          <li key={entry.id} className="flex flex-wrap items-center gap-x-3 border-b border-hair py-1">
            <span className="min-w-0 flex-1 basis-64">
              {entryName(entry.kind)}: {entryWords(entry, view.panel.shape, units) || "as logged"}
              {entry.elsewhere && ", logged on another panel of the job"}
              <details className="text-[13px] text-ink2">
                <summary className="min-h-6 w-fit cursor-pointer">Why</summary>
                {why}
              </details>
            </span>
            <span className="flex items-center">
              {isPutRight(entry) && !entry.elsewhere && (
                <PutRightLink base={base} entryId={entry.id} what={entryName(entry.kind)} from="hand-over" />
              )}
              <StrikeButton entryId={entry.id} what={entryName(entry.kind)} shown="Take it out" />
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}
