import { formatISO } from "date-fns";
import type { LedgerEntry } from "#core/record/entry";
import { livingEntries } from "#core/record/timeline";
import { writeCsv } from "./csv";

const FIELDS = ["at", "kind", "by", "simulated", "counts", "id", "corrects", "body"] as const;

/** A panel's ledger as CSV, oldest first: one row an entry, its figures as JSON in SI; what was taken out or corrected is marked, not left away. */
export function writeLedger(entries: readonly LedgerEntry[]): string {
  const living = new Set(livingEntries(entries).map((e) => e.id));
  return writeCsv(
    FIELDS,
    entries.map((e) => [
      formatISO(e.at_ms),
      e.kind,
      e.by,
      e.simulated ? "yes" : "no",
      living.has(e.id) ? "yes" : "no",
      e.id,
      e.supersedes ?? "",
      JSON.stringify(e.body),
    ]),
  );
}
