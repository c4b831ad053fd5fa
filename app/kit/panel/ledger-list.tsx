import type { PanelShape } from "#core/kernel/geometry/shapes";
import type { LedgerLine } from "#server/views/ledger-view";
import { ListFoot, ListTools } from "~/kit/list/list-view";
import { ONE_COLUMN, useList } from "~/kit/list/use-list";
import { useUnits } from "~/kit/root/use-root";
import { PutBackButton, PutRightLink, StrikeButton } from "~/kit/shell/strike-button";
import { entryName, entryWords } from "~/kit/words/entry-words";

/** So many entries of a page: a day's work on a panel. */
const PAGE = 60;
/** So many are seen at a glance, without a search. */
const FEW = 8;

/** Every entry of a panel, newest first, with its value, place and state; each can be taken out and put back. */
export function LedgerList({
  log,
  shape,
  base,
  from = "hand-over",
}: {
  log: readonly LedgerLine[];
  base: string;
  /** The page it stands on: where putting an entry right leads back to. */
  from?: string;
  shape: Pick<PanelShape, "outline" | "sides">;
}) {
  const units = useUnits();
  const words = (e: LedgerLine) => (e.entry ? entryWords(e.entry, shape, units) : "");
  const list = useList({
    id: "ledger",
    rows: log,
    columns: ONE_COLUMN,
    text: (e) => `${entryName(e.kind)} ${words(e)} ${e.at} ${e.by} ${fate(e)}`,
    only: (e) => e.kind,
    most: PAGE,
  });
  const kinds = [...new Set(log.map((e) => e.kind))].map((value) => ({ value, name: entryName(value) }));
  return (
    <div className="space-y-3">
      {log.length > FEW && <ListTools list={list} label="Search the ledger" only={{ label: "What", values: kinds }} />}
      <ul className="border-t border-hair text-sm empty:hidden" data-figures>
        {list.table.getRowModel().rows.map(({ original: e }) => (
          <li key={e.id} className="flex flex-wrap items-center gap-x-4 border-b border-hair py-1.5">
            <span className="w-28 shrink-0 text-ink2">{e.at}</span>
            <span className={`min-w-0 basis-[calc(100%-8rem)] sm:flex-1 sm:basis-0 ${e.superseded ? "text-ink2 line-through" : ""}`}>
              <b className="font-semibold">{entryName(e.kind)}</b> {words(e)}
            </span>
            <span className="grow text-ink2 sm:grow-0">
              {[e.by, fate(e)].filter(Boolean).join(", ")}
              {e.unread && `: kept, but not read by this version (${e.unread})`}
            </span>
            {e.canBePutRight && <PutRightLink base={base} entryId={e.id} what={entryName(e.kind)} from={from} />}
            {e.entry && !e.superseded && <StrikeButton entryId={e.id} what={entryName(e.kind)} />}
            {e.struckBy && <PutBackButton strikeId={e.struckBy} what={entryName(e.kind)} />}
          </li>
        ))}
      </ul>
      <ListFoot list={list} what="entries" none="Nothing is logged yet." />
    </div>
  );
}

/** What became of an entry, and whether a stand-in made it. */
const fate = (e: LedgerLine) =>
  [e.notYet && "not yet with the shop", e.simulated && "simulated", e.superseded && (e.struckBy ? "taken out" : "corrected")]
    .filter(Boolean)
    .join(", ");
