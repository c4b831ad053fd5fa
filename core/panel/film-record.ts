import type { Point } from "../kernel/geometry/geometry";
import type { Region } from "../kernel/geometry/region";
import { sameList } from "../kernel/same-list";
import type { FilmObservation } from "../models/film/film-field";
import { DEFAULT_GAUGE, type Repeatability, type SpotFilm, outlierFlags, pooledRepeatability, spotFilm } from "../models/film/gauge";
import { farReadings } from "../models/film/odd-reading";
import type { EntryOf } from "../record/entry";
import type { Phase } from "../record/kinds";
import type { Build, FilmChange } from "./builds";
import { type Placed, placeOf, withUnlogged } from "./read-surface";
import { type Sessions, correctedReadings, sessionsOf, underFoil } from "./gauge-sessions";

export interface PhaseFilm {
  film: SpotFilm;
  readings_m: readonly number[];
  /** Some of them lie far from the others: the film is as doubtful as they lie apart, and teaches nothing. */
  scattered: boolean;
  /** The entries that it was read with, each with its readings. */
  of: readonly { entryId: string; readings_m: readonly number[] }[];
  /** Some of them, and all of them, were filled in by a stand-in. */
  simulated: boolean;
  allSimulated: boolean;
  last_seq: number;
  /** How many of the changes of the film are in it. */
  surface: number;
}

/** What was read at one place. */
export interface ReadSpot {
  name: string;
  at: Point;
  /** Below the clear, and over the newest build: as sprayed, and as it stood when last read after sanding. */
  films: Partial<Record<Phase, PhaseFilm>>;
  /** The newest reading over any clear, of whatever build, and what was done to the film there since. */
  latest: { film: PhaseFilm; since: { taken_m: number; laid_m: number } } | null;
}

/** Readings of a panel as the judge takes them. */
export interface FilmRecord {
  spots: ReadSpot[];
  observations: FilmObservation[];
  /** Standard uncertainty of each change that the observations name. */
  changes_m: number[];
  /** Film that was taken off only a part of the panel: a step at its border, which no reading beside it tells of. */
  steps: FilmStep[];
  /** Of a single reading, pooled over the repeats of this panel. */
  repeatability_m: number;
  hasBefore: boolean;
  /** How the visits before and after clear belong together. */
  sessions: Sessions;
  /** Every reading in use over clear was taken under a foil check that held, or is set right by it. */
  foil: boolean;
}

/** What a part of the panel has less (negative) or more than the rest, with its doubt at any place of it. */
export interface FilmStep {
  region: Region;
  /** Share of the panel that the part is. */
  areaShare: number;
  change_m: number;
  u_m: number;
}

/**
 * What was read of a panel's film, each reading with the surface it was taken on: readings of one place and one surface belong together, and
 * of two surfaces only the newer says what is there now.
 */
export function filmRecord(
  readings: readonly EntryOf<"reading">[],
  checks: readonly EntryOf<"gaugeCheck">[],
  logged: { builds: readonly Build[]; changes: readonly FilmChange[] },
): FilmRecord {
  const { builds } = logged;
  const read = (list: readonly Placed[]) => readOf(list, checks);
  const { placed, changes } = withUnlogged(
    readings.map((entry) => placeOf(entry, builds, logged.changes)),
    logged,
    (list) => meanOf(list.flatMap((p) => correctedReadings(p.entry, checks))),
  );
  const repeatability = pooledRepeatability(
    groupsOf(placed)
      .map(read)
      .flatMap((g) => (g.scattered ? [] : [g.values])),
    DEFAULT_GAUGE,
  );
  const filmOf = (list: readonly Placed[]): PhaseFilm => {
    const { values, flags, scattered } = read(list);
    return {
      film: spotFilm(values, { gauge: DEFAULT_GAUGE, repeatability: scattered ? ownScatter(values) : repeatability, flags }),
      readings_m: values,
      scattered,
      of: list.map((p) => ({ entryId: p.entry.id, readings_m: correctedReadings(p.entry, checks) })),
      simulated: list.some((p) => p.entry.simulated),
      allSimulated: list.every((p) => p.entry.simulated),
      last_seq: Math.max(...list.map((p) => p.entry.seq)),
      surface: Math.max(...list.map((p) => p.surface)),
    };
  };
  const newest = Math.max(1, builds.length);
  const inUse: EntryOf<"reading">[] = [];
  const spots = [...groupBy(placed, (p) => p.entry.body.spot)].map(([name, own]): ReadSpot => {
    const { x_m, y_m } = own[0]!.entry.body.at;
    const before = own.filter((p) => p.phase === "before");
    const over = own.filter((p) => p.phase !== "before");
    const current = (phase: Phase) => topSurface(over.filter((p) => p.phase === phase && p.build === newest));
    const latest = topSurface(over);
    inUse.push(...[...before, ...latest].map((p) => p.entry));
    const films: ReadSpot["films"] = {};
    let newestFilm: PhaseFilm | null = null;
    for (const [phase, list] of [
      ["before", before],
      ["after", current("after")],
      ["recheck", current("recheck")],
    ] as const) {
      if (list.length === 0) continue;
      films[phase] = filmOf(list);
      if (sameList(list, latest)) newestFilm = films[phase];
    }
    return {
      name,
      at: [x_m, y_m],
      films,
      latest: latest.length > 0 ? latestOf(newestFilm ?? filmOf(latest), [x_m, y_m], changes) : null,
    };
  });
  spots.sort((a, b) => a.name.localeCompare(b.name, "en", { numeric: true }));
  return {
    spots,
    observations: spots.flatMap((s) => observationsAt(s, changes)),
    changes_m: changes.map((c) => c.u_m),
    steps: changes.flatMap(({ region, areaShare, change_m, u_m, uneven }) =>
      region ? [{ region, areaShare, change_m, u_m: Math.hypot(u_m, uneven * change_m) }] : [],
    ),
    repeatability_m: repeatability.repeatability_m,
    hasBefore: spots.some((s) => s.films.before),
    sessions: sessionsOf(inUse, checks),
    foil: inUse.some((r) => r.body.phase !== "before") && inUse.every((r) => r.body.phase === "before" || underFoil(r, checks)),
  };
}

const meanOf = (xs: readonly number[]) => xs.reduce((a, x) => a + x, 0) / xs.length;

/** Repeatability of readings that lie far apart, by themselves alone: what the gauge does elsewhere says nothing of a slip here. */
function ownScatter(readings_m: readonly number[]): Repeatability {
  const mean = meanOf(readings_m);
  const degreesOfFreedom = readings_m.length - 1;
  return { repeatability_m: Math.sqrt(readings_m.reduce((a, x) => a + (x - mean) ** 2, 0) / degreesOfFreedom), degreesOfFreedom };
}

/** Doubt of its own of what is read there: how far its readings lie apart, with what else there is. */
function ownDoubt({ film, scattered }: PhaseFilm, uneven_m: readonly number[] = []): { uOwn_m?: number } {
  const parts = [...(scattered ? [film.uA_m] : []), ...uneven_m];
  return parts.length > 0 ? { uOwn_m: Math.hypot(...parts) } : {};
}

/** Those of a list that were taken on its newest surface. A recheck called so without a step logged is newer than what was read as sprayed. */
function topSurface(list: readonly Placed[]): Placed[] {
  const rank = (p: Placed) => 2 * p.surface + (p.phase === "recheck" ? 1 : 0);
  const top = Math.max(...list.map(rank));
  return list.filter((p) => rank(p) === top);
}

const groupsOf = (placed: readonly Placed[]): Placed[][] => [
  ...groupBy(placed, (p) => `${p.entry.body.spot} ${p.phase} ${p.surface}`).values(),
];

interface Read {
  values: readonly number[];
  /** Those to ask for again. */
  flags: readonly boolean[];
  scattered: boolean;
}

/**
 * Readings of some entries as they count. Entries never change: what was worked out of the same ones under the same checks stands, from one state
 * of a ledger to the next, so that a new reading is worked out with those of its place alone.
 */
function readOf(list: readonly Placed[], checks: readonly EntryOf<"gaugeCheck">[]): Read {
  const of = list.map((p) => p.entry);
  const known = knownReads.get(of[0]!);
  if (known && sameList(known.checks, checks) && sameList(known.of, of)) return known.read;
  const values = of.flatMap((entry) => correctedReadings(entry, checks));
  const read: Read = { values, flags: outlierFlags(values, DEFAULT_GAUGE), scattered: farReadings(values).includes(true) };
  knownReads.set(of[0]!, { of, checks, read });
  return read;
}
const knownReads = new WeakMap<
  EntryOf<"reading">,
  { of: readonly EntryOf<"reading">[]; checks: readonly EntryOf<"gaugeCheck">[]; read: Read }
>();

function groupBy<T>(list: readonly T[], keyOf: (item: T) => string): Map<string, T[]> {
  const groups = new Map<string, T[]>();
  for (const item of list) {
    const key = keyOf(item);
    const group = groups.get(key);
    if (group) group.push(item);
    else groups.set(key, [item]);
  }
  return groups;
}

function latestOf(film: PhaseFilm, at: Point, changes: readonly FilmChange[]): ReadSpot["latest"] {
  const moved = changes.slice(film.surface).map((c) => c.change_m * c.shareAt(at));
  return {
    film,
    since: {
      taken_m: moved.reduce((a, m) => a - Math.min(0, m), 0),
      laid_m: moved.reduce((a, m) => a + Math.max(0, m), 0),
    },
  };
}

/** Readings for the film field: below clear, and the newest over it with what was done there since. */
function observationsAt({ at, films, latest }: ReadSpot, changes: readonly FilmChange[]): FilmObservation[] {
  const list: FilmObservation[] = [];
  if (films.before)
    list.push({ at, layer: "before", total_m: films.before.film.mean_m, n: films.before.film.n, ...ownDoubt(films.before) });
  if (latest) {
    const since = changes.flatMap((c, change) => {
      const share = change >= latest.film.surface ? c.shareAt(at) : 0;
      return share > 0
        ? [{ change, share, whole: c.region === null, moved_m: share * c.change_m, uneven_m: c.uneven * share * c.change_m }]
        : [];
    });
    // What went off a part only is a step of the film, with its own doubt.
    const shared = since.filter((s) => s.whole);
    list.push({
      at,
      layer: "after",
      total_m: latest.film.film.mean_m + since.reduce((a, s) => a + s.moved_m, 0),
      n: latest.film.film.n,
      ...(shared.length > 0 ? { since: shared.map(({ change, share }) => ({ change, share })) } : {}),
      ...ownDoubt(
        latest.film,
        shared.map((s) => s.uneven_m),
      ),
    });
  }
  return list;
}
