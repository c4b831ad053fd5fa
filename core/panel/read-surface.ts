import { LOCAL_UNEVENNESS } from "../models/correction/unevenness";
import type { EntryOf } from "../record/entry";
import type { Phase } from "../record/kinds";
import type { Build, FilmChange } from "./builds";

/** A reading with the surface it was taken on. */
export interface Placed {
  entry: EntryOf<"reading">;
  phase: Phase;
  /** Number of the build it was taken over, from 1, and how many of the changes of the film are in it. */
  build: number;
  surface: number;
}

const MS = 1000;
/** A reading that reached the server so much later than it was taken had waited; its own time tells what was done before it. */
const WAITED_MS = 60 * MS;
/** Work may be done in this share of the minutes that it is planned for; in less it was done before. Default of ours. */
const QUICKEST = 0.5;

/** Whether something was taken off a build by the first so many changes. */
const isSanded = (changes: readonly FilmChange[], from_seq: number, count: number): boolean =>
  changes.slice(0, count).some((c) => c.change_m < 0 && c.seq > from_seq);

/**
 * Where a reading belongs. *Before clear* is below all clear, but over a sanded build it is that build's surface; *after clear* over sanded film
 * is a recheck, whatever it was called. The order of the hand is not that of the film: what is called *after sanding* with no sanding logged yet was
 * read on the surface of the sanding that is logged next.
 */
export function placeOf(entry: EntryOf<"reading">, builds: readonly Build[], changes: readonly FilmChange[]): Placed {
  // A reading before the first coat in the ledger is of the first build all the same: the coats were logged late.
  const build = Math.max(1, builds.filter((b) => b.from_seq < entry.seq).length);
  const from_seq = builds[build - 1]?.from_seq ?? -Infinity;
  const logged = surfaceLogged(entry, changes);
  const named = entry.body.phase;
  const surface = named === "recheck" && !isSanded(changes, from_seq, logged) ? surfaceLoggedNext(entry, changes, logged) : logged;
  const sanded = isSanded(changes, from_seq, surface);
  const below = named === "before" && !sanded;
  return { entry, build, surface, phase: below ? "before" : named === "recheck" || sanded ? "recheck" : "after" };
}

/** How many changes had been done when it was taken. */
function surfaceLogged({ seq, at_ms, recordedAt_ms }: EntryOf<"reading">, changes: readonly FilmChange[]): number {
  const waited = recordedAt_ms - at_ms > WAITED_MS;
  const first = changes.findIndex((c) => c.seq > seq || (waited && c.at_ms > at_ms));
  return first < 0 ? changes.length : first;
}

/** With the sanding logged next, and what was ticked after that sooner than it can have been done. */
function surfaceLoggedNext({ at_ms }: EntryOf<"reading">, changes: readonly FilmChange[], from: number): number {
  if (!(changes[from] && changes[from].change_m < 0)) return from; // none was logged, or the next clear came first
  let work_s = 0;
  let next = from + 1;
  for (; next < changes.length && changes[next]!.change_m < 0; next++) {
    work_s += changes[next]!.work_s;
    if (changes[next]!.at_ms - at_ms >= QUICKEST * work_s * MS) break;
  }
  return next;
}

/** What a sanding that nobody logged usually takes off where no spot tells it. Default of ours. */
const UNLOGGED = { removal_m: 6e-6, u_m: 4e-6 } as const;
/** Doubt of it beside what the spots differ by. Default of ours. */
const LEAST_DOUBT_M = 1e-6;

/**
 * Readings *after sanding* over the newest build without any sanding logged: it was done all the same. What it took off is told by the spots read on
 * both surfaces, so that those read only before it are not taken for what is there now.
 * @param meanOf film of some readings of one spot and surface
 * @returns the readings and changes with that sanding among them; the same ones where all is logged
 */
export function withUnlogged(
  placed: readonly Placed[],
  { builds, changes }: { builds: readonly Build[]; changes: readonly FilmChange[] },
  meanOf: (list: readonly Placed[]) => number,
): { placed: readonly Placed[]; changes: readonly FilmChange[] } {
  const newest = Math.max(1, builds.length);
  const from_seq = builds[newest - 1]?.from_seq ?? -Infinity;
  const own = placed.filter((p) => p.build === newest);
  const again = own.filter((p) => p.phase === "recheck");
  // Where nothing was read of this build as sprayed, only the name says so, and it may be the one before that was sanded.
  if (again.length === 0 || !own.some((p) => p.phase === "after") || isSanded(changes, from_seq, changes.length))
    return { placed, changes };
  const at = Math.min(...again.map((p) => p.surface));
  const names = [...new Set(again.map((p) => p.entry.body.spot))];
  const taken = names.flatMap((name) => {
    const of = (list: readonly Placed[]) => list.filter((p) => p.entry.body.spot === name);
    const before = of(own.filter((p) => p.phase === "after"));
    return before.length > 0 ? [meanOf(before) - meanOf(of(again))] : [];
  });
  const mean_m = taken.reduce((a, m) => a + m, 0) / taken.length;
  const sd_m = Math.sqrt(taken.reduce((a, m) => a + (m - mean_m) ** 2, 0) / Math.max(1, taken.length - 1));
  const sanding: FilmChange = {
    seq: Math.min(...again.map((p) => p.entry.seq)),
    at_ms: Math.min(...again.map((p) => p.entry.at_ms)),
    work_s: 0,
    region: null,
    areaShare: 1,
    change_m: -(taken.length > 0 ? Math.max(0, mean_m) : UNLOGGED.removal_m),
    u_m: taken.length > 0 ? Math.hypot(LEAST_DOUBT_M, sd_m / Math.sqrt(taken.length)) : UNLOGGED.u_m,
    uneven: LOCAL_UNEVENNESS,
    shareAt: () => 1,
  };
  return {
    placed: placed.map((p) => (p.surface > at || again.includes(p) ? { ...p, surface: p.surface + 1 } : p)),
    changes: [...changes.slice(0, at), sanding, ...changes.slice(at)],
  };
}
