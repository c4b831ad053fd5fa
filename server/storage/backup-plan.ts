/** When a backup was made. */
export interface Made {
  at_ms: number;
}

const HOUR_MS = 3_600_000;
const DAY_MS = 24 * HOUR_MS;
const WEEK_MS = 7 * DAY_MS;

/** A backup is made at most so often, while something is entered. */
export const EVERY_MS = HOUR_MS;
/** From this age on the last backup is told as old, where something was entered since. */
export const OLD_MS = DAY_MS;

/** So many of each span are kept: of every one the newest. Spans are those of UTC. */
export const KEPT: readonly { most: number; spanOf: (at_ms: number) => number }[] = [
  { most: 24, spanOf: (at) => Math.floor(at / HOUR_MS) },
  { most: 7, spanOf: (at) => Math.floor(at / DAY_MS) },
  { most: 8, spanOf: (at) => Math.floor(at / WEEK_MS) },
  { most: 12, spanOf: (at) => new Date(at).getUTCFullYear() * 12 + new Date(at).getUTCMonth() },
];

/**
 * Backups that may go: hourly ones are kept for a day, daily ones for a week, weekly ones for eight weeks, monthly ones for a year, each the newest of
 * its span. The newest of all is always kept, and so is what bears a time to come.
 * @param now_ms the clock
 */
export function superseded<T extends Made>(made: readonly T[], now_ms: number): T[] {
  const newestFirst = [...made].sort((a, b) => b.at_ms - a.at_ms);
  const keep = new Set<T>(newestFirst.filter((m, n) => n === 0 || m.at_ms > now_ms));
  for (const { most, spanOf } of KEPT) {
    const spans = new Set<number>();
    for (const m of newestFirst) {
      const span = spanOf(m.at_ms);
      if (spans.has(span) || span <= spanOf(now_ms) - most) continue;
      spans.add(span);
      keep.add(m);
    }
  }
  return made.filter((m) => !keep.has(m));
}
