import type { CourseClock } from "#core/course/clocks";
import type { PotClock } from "#core/course/pot-clocks";
import { type ShownClock, holdsOfClock } from "#core/course/clock-hold";
import type { Standing } from "#core/course/standing";
import { CLOCK_KINDS, type ClockKind } from "#core/models/clock/clock-state";
import type { Db, Tx } from "../db/open";

const DAY_MS = 86_400_000;
/** A pot that has been over so long is thrown away: nobody has to be told. */
const DEAD_POT_MS = 4 * 3_600_000;

/** More than this nobody can watch; the soonest are listed. */
const MOST_CLOCKS = 16;

/** Of many clocks so much of the list is left for what is ready or just over: it wants a hand now. */
const READY_SHARE = 0.5;
const JUST_OVER_MS = 4 * 3_600_000;

/**
 * Clocks that still say something: not stopped, not of a struck entry or a panel handed over, and not long over. Running ones soonest first, then those
 * that are ready or over; however many run, what came due in the last hours is among them.
 */
export async function listClocks(db: Db, now_ms: number, most = MOST_CLOCKS): Promise<ShownClock[]> {
  const ready = await clocksDue(db, {
    now_ms,
    after_ms: now_ms - JUST_OVER_MS,
    until_ms: now_ms,
    most: Math.ceil(READY_SHARE * most),
  });
  const running = await clocksDue(db, { now_ms, after_ms: now_ms, until_ms: null, most: most - ready.length });
  const left = most - running.length;
  const over = left > ready.length ? await clocksDue(db, { now_ms, after_ms: now_ms - 2 * DAY_MS, until_ms: now_ms, most: left }) : ready;
  const stir = running.length < most ? await stirring(db, now_ms) : [];
  return [...running, ...stir, ...over].slice(0, most);
}

/** Pots that settle go round until they are over: they are due again and again. */
async function stirring(db: Db, now_ms: number): Promise<ShownClock[]> {
  const due = await clocksDue(db, { now_ms, after_ms: now_ms - DAY_MS, until_ms: null, most: MOST_CLOCKS, kind: "stir" });
  return due.filter((c) => c.late_ms === null || c.late_ms > now_ms);
}

/** Clocks due in a span of time, soonest first: the index of running clocks is walked as far as the limit, whatever else stands in the file. */
async function clocksDue(
  db: Db,
  { now_ms, after_ms, until_ms, most, kind }: { now_ms: number; after_ms: number; until_ms: number | null; most: number; kind?: "stir" },
): Promise<ShownClock[]> {
  const rows = await db
    .selectFrom("clock as c")
    .crossJoin("panel as p")
    .crossJoin("job as j")
    .leftJoin("panel_summary as s", "s.panel_id", "c.panel_id")
    .whereRef("p.id", "=", "c.panel_id")
    .whereRef("j.id", "=", "p.job_id")
    .where("c.stopped_ms", "is", null)
    .where("c.due_ms", ">", after_ms)
    .$if(until_ms !== null, (q) => q.where("c.due_ms", "<=", until_ms!))
    .where("j.archived_at_ms", "is", null)
    .where("c.struck", "=", 0)
    .where("c.kind", kind ? "=" : "!=", "stir")
    .where((eb) => eb.or([eb("c.kind", "!=", "pot"), eb("c.due_ms", ">", now_ms - DEAD_POT_MS)]))
    .where((eb) => eb.or([eb("s.done", "is", null), eb("s.done", "!=", 1)]))
    .orderBy("c.due_ms")
    .limit(most)
    .select([
      "c.id",
      "c.kind",
      "c.label",
      "c.started_ms",
      "c.due_ms",
      "c.late_ms",
      "c.stopped_ms",
      "c.panel_id",
      "p.name as panel_name",
      "j.id as job_id",
      "j.vehicle",
      "s.counts_json",
    ])
    .execute();
  return rows.map((r) => {
    const kind = Object.hasOwn(CLOCK_KINDS, r.kind) ? (r.kind as ClockKind) : "flash";
    const standing = r.counts_json === null ? null : (JSON.parse(r.counts_json) as Standing);
    return {
      id: r.id,
      panelId: r.panel_id,
      jobId: r.job_id,
      jobName: r.vehicle,
      panelName: r.panel_name,
      kind,
      label: r.label,
      started_ms: r.started_ms,
      due_ms: r.due_ms,
      late_ms: r.late_ms,
      stopped_ms: r.stopped_ms,
      holds: holdsOfClock({ kind, label: r.label }, standing),
    };
  });
}

interface NewClock {
  id: string;
  panelId: string;
  entryId: string;
  kind: ClockKind;
  label: string;
  started_ms: number;
  due_ms: number;
  late_ms: number | null;
}

const timesOf = (c: Pick<NewClock, "started_ms" | "due_ms" | "late_ms">) => ({
  started_ms: Math.round(c.started_ms),
  due_ms: Math.round(c.due_ms),
  late_ms: c.late_ms === null ? null : Math.round(c.late_ms),
});

async function insertClock(db: Tx, c: NewClock, counts: boolean): Promise<void> {
  await db
    .insertInto("clock")
    .values({
      id: c.id,
      panel_id: c.panelId,
      entry_id: c.entryId,
      kind: c.kind,
      label: c.label,
      ...timesOf(c),
      stopped_ms: null,
      struck: counts ? 0 : 1,
    })
    .execute();
}

/** Stops or restarts one clock; its times stay as they were. */
export async function setClockStopped(db: Tx, id: string, stopped_ms: number | null): Promise<boolean> {
  const { numUpdatedRows } = await db.updateTable("clock").set({ stopped_ms }).where("id", "=", id).executeTakeFirst();
  return numUpdatedRows > 0n;
}

/**
 * The clocks of a panel as its course and its pots have them now: those that run on keep their row (and stay stopped where somebody stopped them), the
 * others go. Whether the entry that started a clock counts is marked on all of them.
 */
export async function setClocks(
  db: Tx,
  panelId: string,
  { course, pots, counts }: { course: readonly CourseClock[]; pots: readonly PotClock[]; counts: (entryId: string) => boolean },
): Promise<void> {
  const clocks: Wanted[] = [...course.map((c) => ({ ...c, label: labelOf(c) })), ...pots];
  const rows = await db.selectFrom("clock").selectAll().where("panel_id", "=", panelId).execute();
  const rowOf = (c: Wanted) => rows.find((r) => r.kind === c.kind && r.entry_id === c.entryId);
  const clockOf = new Map(clocks.map((c) => [rowOf(c)?.id, c]));
  for (const row of rows) {
    const c = clockOf.get(row.id);
    if (!c) {
      await db.deleteFrom("clock").where("id", "=", row.id).execute();
      continue;
    }
    const now = { label: c.label || row.label, ...timesOf(c), struck: counts(row.entry_id) ? 0 : 1 };
    // Most entries move no clock: what stands is not written again.
    if (Object.entries(now).some(([key, value]) => row[key as keyof typeof row] !== value))
      await db.updateTable("clock").set(now).where("id", "=", row.id).execute();
  }
  for (const c of clocks) {
    const { kind, entryId, label, started_ms, due_ms, late_ms } = c;
    const id = `${entryId} ${kind}`;
    if (!rowOf(c))
      await insertClock(db, { id, panelId, entryId, kind, label: label || "mix", started_ms, due_ms, late_ms }, counts(entryId));
  }
}

type Wanted = Omit<CourseClock, "kind" | "number" | "then"> & { kind: ClockKind; label: string };
const labelOf = (c: CourseClock): string => (c.number === null ? c.then : `${c.then} ${c.number}`);
