import { formatISO } from "date-fns";
import Papa from "papaparse";
import { type LedgerEntry, livingEntries } from "#core/ledger/entry";

/** A panel's ledger as CSV, oldest first: one row an entry, its figures as JSON in SI; what was taken out or corrected is marked, not left away. */
export function writeLedger(entries: readonly LedgerEntry[]): string {
  const living = new Set(livingEntries(entries).map((e) => e.id));
  return Papa.unparse(
    entries.map((e) => ({
      at: formatISO(e.at_ms),
      kind: e.kind,
      by: e.by,
      simulated: e.simulated ? "yes" : "no",
      counts: living.has(e.id) ? "yes" : "no",
      id: e.id,
      corrects: e.supersedes ?? "",
      body: JSON.stringify(e.body),
    })),
    { newline: "\n" },
  );
}
