import type { LedgerEntry } from "../record/entry";
import { livingEntries } from "../record/timeline";

/** An entry that the models cannot work with beside what was logged before it: left out of every figure until it is put right or taken out. */
export interface InTheWay {
  entry: LedgerEntry;
  /** What the model that refused it says: for the working, not for the first layer. */
  why: string;
}

/** So many are looked for one by one; from the next one on the rest of the ledger is left out. */
const MOST_FOUND = 12;

/**
 * Works something out of a ledger, whatever stands in it. What was accepted one by one may still not be workable together: then the entry with which
 * it first fails is left out and named, and the next, until it can be worked out. The ledger itself is never touched.
 * @returns what was worked out, and the entries left out of it, in the order of the ledger; none for every usual ledger
 * @throws whatever `work` throws of an empty ledger: then no entry is at fault
 */
export function workedOut<T>(
  ledger: readonly LedgerEntry[],
  work: (ledger: readonly LedgerEntry[]) => T,
): { value: T; ledger: readonly LedgerEntry[]; inTheWay: InTheWay[] } {
  const first = attempt(() => work(ledger));
  if (first.ok) return { value: first.value, ledger, inTheWay: [] };
  let kept = livingEntries(ledger);
  const inTheWay: InTheWay[] = [];
  for (;;) {
    const whole = attempt(() => work(kept));
    if (whole.ok) return { value: whole.value, ledger: kept, inTheWay: inLedgerOrder(inTheWay, ledger) };
    if (kept.length === 0) throw whole.error;
    const { at, why } = firstFailing(kept, work, whole.error);
    const rest = inTheWay.length >= MOST_FOUND ? kept.slice(at) : [kept[at]!];
    for (const entry of rest) inTheWay.push({ entry, why });
    kept = kept.filter((e) => !rest.includes(e));
  }
}

/** The first entry with which it fails: everything before it can be worked out. Bisected; of several such entries one is found. */
function firstFailing(
  entries: readonly LedgerEntry[],
  work: (ledger: readonly LedgerEntry[]) => unknown,
  error: Error,
): { at: number; why: string } {
  let good = 0;
  let bad = entries.length;
  let why = error.message;
  while (bad - good > 1) {
    const middle = (good + bad) >> 1;
    const tried = attempt(() => work(entries.slice(0, middle)));
    if (tried.ok) good = middle;
    else {
      bad = middle;
      why = tried.error.message;
    }
  }
  return { at: bad - 1, why };
}

function inLedgerOrder(found: readonly InTheWay[], ledger: readonly LedgerEntry[]): InTheWay[] {
  const place = new Map(ledger.map((e, i) => [e.id, i]));
  return [...found].sort((a, b) => place.get(a.entry.id)! - place.get(b.entry.id)!);
}

type Tried<T> = { ok: true; value: T } | { ok: false; error: Error };
function attempt<T>(work: () => T): Tried<T> {
  try {
    return { ok: true, value: work() };
  } catch (error) {
    if (error instanceof Error) return { ok: false, error };
    throw error;
  }
}
