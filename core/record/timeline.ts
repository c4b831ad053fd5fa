import type { LedgerEntry } from "./entry";

/** What of an entry tells whether it counts. */
export interface Counted {
  id: string;
  kind: LedgerEntry["kind"];
  seq: number;
  supersedes: string | null;
  body: unknown;
}
const isWhole = (strike: Counted) => (strike.body as { whole?: boolean }).whole === true;

/**
 * Which entries of a ledger count now, in the order of what happened.
 *
 * Two relations, both written as `supersedes`: a **strike** takes its target out for as long as the strike itself is not struck (`whole`: with
 * every version of it); any other entry is a **replacement** and hands on the place of what it replaces. Of a chain of replacements at most one
 * counts: the newest that is not struck. It stands where the first of the chain stood (its `seq` is that one's), so that putting right what was
 * typed early moves nothing.
 */
export function livingEntries<E extends Counted>(entries: readonly E[]): readonly E[] {
  const known = livingKnown.get(entries) as readonly E[] | undefined;
  if (known) return known;
  const living = Object.freeze(livingOf(entries));
  // A ledger that cannot change any more: the same entries count whenever it is asked, and of those all count.
  if (Object.isFrozen(entries)) livingKnown.set(entries, living);
  livingKnown.set(living, living);
  return living;
}

const livingKnown = new WeakMap<readonly Counted[], readonly Counted[]>();

function livingOf<E extends Counted>(entries: readonly E[]): E[] {
  if (!entries.some((e) => e.supersedes !== null || e.kind === "strike")) return inOrder([...entries]);
  const byId = new Map(entries.map((e) => [e.id, e]));
  const strikes = new Map<string, E[]>();
  for (const e of entries) if (e.kind === "strike" && e.supersedes) strikes.set(e.supersedes, [...(strikes.get(e.supersedes) ?? []), e]);
  const struck = (e: E, seen?: ReadonlySet<string>): boolean => {
    const of = strikes.get(e.id);
    return of !== undefined && !seen?.has(e.id) && of.some((s) => !struck(s, new Set([...(seen ?? []), e.id])));
  };
  const out = new Set<E>(); // chains taken out with every version
  for (const e of entries) {
    const target = e.kind === "strike" && isWhole(e) && e.supersedes ? byId.get(e.supersedes) : undefined;
    if (target && !struck(e)) out.add(firstOf(target, byId));
  }
  const survivors = new Map<E, E>();
  for (const e of entries) {
    if (e.kind === "strike" || struck(e)) continue;
    const first = firstOf(e, byId);
    if (out.has(first)) continue;
    const before = survivors.get(first);
    if (!before || e.seq >= before.seq) survivors.set(first, e);
  }
  return inOrder([...survivors].map(([first, e]): E => (e === first ? e : inPlaceOf(first, e))));
}

const replaced = new WeakMap<Counted, Counted>();
/** A replacement as it stands where the first of its chain stood: the same object whenever it is asked, as the entry is. */
function inPlaceOf<E extends Counted>({ seq }: E, entry: E): E {
  const known = replaced.get(entry) as E | undefined;
  if (known?.seq === seq) return known;
  const placed = { ...entry, seq };
  replaced.set(entry, placed);
  return placed;
}

const inOrder = <E extends Counted>(entries: E[]): E[] => entries.sort((a, b) => a.seq - b.seq);

/** The first of a chain of replacements; an entry that replaces nothing is its own. */
function firstOf<E extends Counted>(entry: E, byId: ReadonlyMap<string, E>): E {
  const seen = new Set<string>();
  let at = entry;
  while (at.supersedes && !seen.has(at.id)) {
    seen.add(at.id); // guards a cycle; the store never writes one
    const older = byId.get(at.supersedes);
    if (!older || older.kind === "strike") break;
    at = older;
  }
  return at;
}
