import { type Selectable, sql } from "kysely";
import type { PanelSummaryTable } from "../db/schema";
import type { DefectKind } from "#core/record/kinds";
import type { Standing } from "#core/course/standing";
import { type Job, getJob } from "./job-repo";
import { ownEntries } from "#core/record/entry";
import { livingEntries } from "#core/record/timeline";
import type { SprayedPanel } from "#core/panel/next-time";
import type { Db, Tx } from "../db/open";
import { type Lesson, type PanelSummary, SUMMARY_VERSION, type Worked, panelSummary } from "../summary/panel-summary";
import { type JobLedgers, entriesServing, jobLedgers } from "./ledger-repo";
import { type Panel, getPanel, listPanels } from "./panel-repo";
import { type Product, getProductRevision } from "./product-repo";
import { setClocks } from "./clock-repo";
import { getShop, shopFactors } from "./shop-repo";
import type { ShopFactors } from "#core/models/flow/simulate-coats";

/** What the rows of a job's panels have in common. */
interface Beside {
  job: Job;
  shop: ShopFactors;
  ledgers: JobLedgers;
  /** Sheets by revision, as far as they were asked for. */
  sheets: Map<string, Product | null>;
}

/**
 * Makes a panel's row anew from its ledger, in the transaction that wrote to it; its clocks follow which entries count.
 * @param beside a climate was written, which serves the job's other panels too. A new one says nothing of a panel whose coats are all on, or that
 * has gone out
 */
export async function refreshSummary(db: Tx, panelId: string, beside?: { added: boolean }): Promise<void> {
  const panel = await getPanel(db, panelId);
  const common = panel && (await commonOf(db, panel.jobId));
  if (!common) return;
  await refreshRow(db, panel, common);
  if (beside) await refreshBeside(db, panel, common, beside);
}

/** The rows of all panels of a job, where what it says of all of them has changed. @param but a panel whose row is new already */
export async function refreshSummariesOf(db: Tx, jobId: string, but?: string): Promise<void> {
  const common = await commonOf(db, jobId);
  if (common) for (const panel of await listPanels(db, jobId)) if (panel.id !== but) await refreshRow(db, panel, common);
}

async function commonOf(db: Db, jobId: string): Promise<Beside | null> {
  const job = await getJob(db, jobId);
  return job && { job, shop: shopFactors(await getShop(db)), ledgers: await jobLedgers(db, jobId), sheets: new Map() };
}

async function sheetOf(db: Db, { sheets }: Beside, revisionId: string): Promise<Product | null> {
  if (!sheets.has(revisionId)) sheets.set(revisionId, await getProductRevision(db, revisionId));
  return sheets.get(revisionId) ?? null;
}

type Row = Selectable<PanelSummaryTable>;

/** @param told its row as it stands, where that was asked for already and its final words cannot be others than before */
async function refreshRow(db: Tx, panel: Panel, common: Beside, told?: Row): Promise<void> {
  const product = await sheetOf(db, common, panel.productRevisionId);
  if (!product) return;
  const { job, shop, ledgers } = common;
  const panelId = panel.id;
  const entries = await entriesServing(db, panel, ledgers);
  const s = panelSummary(panel, product, { job, shop, entries });
  const row = {
    away: job.archivedAt_ms === null ? 0 : 1,
    version: SUMMARY_VERSION,
    seq: ownEntries(entries).at(-1)?.seq ?? 0,
    counts_json: JSON.stringify(s.standing),
    done: s.standing.done ? 1 : 0,
    attention: s.standing.attention ? 1 : 0,
    unfinished: s.unfinished ? 1 : 0,
    last_coat_ms: s.lastCoat_ms === null ? null : Math.round(s.lastCoat_ms),
    booth_json: s.booth && JSON.stringify(s.booth),
    sprayed_json: s.sprayed && JSON.stringify(s.sprayed),
    worked_json: s.worked && JSON.stringify(s.worked),
    learnt_json: s.lesson && JSON.stringify(s.lesson),
  };
  const was = told ?? (await db.selectFrom("panel_summary").selectAll().where("panel_id", "=", panelId).executeTakeFirst());
  if (!was || Object.entries(row).some(([k, v]) => was[k as keyof typeof row] !== v))
    await db
      .insertInto("panel_summary")
      .values({ panel_id: panelId, job_id: panel.jobId, ...row })
      .onConflict((c) => c.column("panel_id").doUpdateSet(row))
      .execute();
  if (!told) await setCauseWords(db, panelId, s.causeWords);
  const living = new Set(livingEntries(entries).map((e) => e.id));
  await setClocks(db, panelId, { course: s.clocks, pots: s.potClocks, counts: (entryId) => living.has(entryId) });
}

async function setCauseWords(db: Tx, panelId: string, words: PanelSummary["causeWords"]): Promise<void> {
  const was = await db.selectFrom("cause_word").selectAll().where("panel_id", "=", panelId).execute();
  const same = was.length === words.length && words.every((w) => was.some((k) => k.entry_id === w.entryId && k.cause_id === w.causeId));
  if (same) return;
  await db.deleteFrom("cause_word").where("panel_id", "=", panelId).execute();
  if (words.length > 0)
    await db
      .insertInto("cause_word")
      .values(words.map((w) => ({ entry_id: w.entryId, panel_id: panelId, kind: w.kind, cause_id: w.causeId })))
      .execute();
}

async function refreshBeside(db: Tx, panel: Panel, common: Beside, { added }: { added: boolean }): Promise<void> {
  const rows = await db.selectFrom("panel_summary").selectAll().where("job_id", "=", panel.jobId).execute();
  const rowOf = new Map(rows.map((r) => [r.panel_id, r]));
  for (const other of await listPanels(db, panel.jobId)) {
    const was = rowOf.get(other.id);
    if (other.id !== panel.id && !(added && was?.unfinished === 0))
      await refreshRow(db, other, common, was?.version === SUMMARY_VERSION ? was : undefined);
  }
}

/** So many rows are made anew in one transaction: a moment's work, and more than a shop has on the floor. */
const BATCH = 100;

/** Makes the rows that are missing or of an older version: after an upgrade, and after a restore of an old file. */
export async function refreshSummaries(db: Db): Promise<number> {
  let made = 0;
  for (let n = BATCH; moreAreStale(n); made += n) n = await db.transaction().execute(refreshStale);
  return made;
}

/** Makes some of the rows that are missing or marked as old, those of the newest jobs first. @returns how many; fewer than asked for: no more are left */
export async function refreshStale(db: Tx): Promise<number> {
  const stale = await db
    .selectFrom("panel as p")
    .innerJoin("job as j", "j.id", "p.job_id")
    .leftJoin("panel_summary as s", "s.panel_id", "p.id")
    .where((eb) => eb.or([eb("s.version", "is", null), eb("s.version", "!=", SUMMARY_VERSION)]))
    .orderBy("j.created_at_ms", "desc")
    .limit(BATCH)
    .select("p.id")
    .execute();
  for (const { id } of stale) await refreshSummary(db, id);
  return stale.length;
}
export const moreAreStale = (made: number): boolean => made === BATCH;

/** Marks the rows that go by what the shop has learnt of the flow: those with coats to come. */
export async function markUnfinishedStale(db: Tx): Promise<void> {
  await db.updateTable("panel_summary").set({ version: 0 }).where("unfinished", "=", 1).execute();
}

/** Where the panels of some jobs stand, in the order of their panels. */
export async function listStandings(
  db: Db,
  jobIds: readonly string[],
): Promise<{ panelId: string; jobId: string; name: string; standing: Standing }[]> {
  if (jobIds.length === 0) return [];
  const rows = await db
    .selectFrom("panel as p")
    .innerJoin("panel_summary as s", "s.panel_id", "p.id")
    .where("p.job_id", "in", jobIds)
    .orderBy("p.position")
    .select(["p.id", "p.job_id", "p.name", "s.counts_json"])
    .execute();
  return rows.map((r) => ({ panelId: r.id, jobId: r.job_id, name: r.name, standing: JSON.parse(r.counts_json) as Standing }));
}

/** A job's panels are put away, or are back. */
export async function setSummariesAway(db: Tx, jobId: string, away: boolean): Promise<void> {
  await db
    .updateTable("panel_summary")
    .set({ away: away ? 1 : 0 })
    .where("job_id", "=", jobId)
    .execute();
}

const countOf = async (query: { executeTakeFirst(): Promise<{ n: number | string | bigint } | undefined> }): Promise<number> =>
  Number((await query.executeTakeFirst())?.n ?? 0);

/** Open jobs: how many, how many of them unfinished, how many panels want a hand; and those to show first, wanting ones before the rest. */
export async function floorJobs(db: Db, most: number): Promise<{ jobIds: string[]; count: number; open: number; wanting: number }> {
  const here = () => db.selectFrom("panel_summary").where("away", "=", 0);
  const [count, open, wanting] = await Promise.all([
    countOf(
      db
        .selectFrom("job")
        .where("archived_at_ms", "is", null)
        .select((e) => e.fn.countAll<number>().as("n")),
    ),
    countOf(
      here()
        .where("done", "=", 0)
        .select((e) => e.fn.count<number>("job_id").distinct().as("n")),
    ),
    countOf(
      here()
        .where("attention", "=", 1)
        .select((e) => e.fn.countAll<number>().as("n")),
    ),
  ]);
  // Newest first, each asked by its own index whether a panel of it wants a hand: no list of all jobs is made.
  const newestJobs = (wants: boolean, limit: number) =>
    db
      .selectFrom("job as j")
      .where("j.archived_at_ms", "is", null)
      .where((eb) => {
        const wanted = eb.exists(
          eb
            .selectFrom("panel_summary as s")
            .select("s.panel_id")
            .whereRef("s.job_id", "=", "j.id")
            .where("s.away", "=", 0)
            .where("s.attention", "=", 1),
        );
        return wants ? wanted : eb.not(wanted);
      })
      .orderBy("j.created_at_ms", "desc")
      .orderBy("j.id")
      .limit(limit)
      .select("j.id")
      .execute();
  const first = await newestJobs(true, most);
  const rest = first.length < most ? await newestJobs(false, most - first.length) : [];
  return { jobIds: [...first, ...rest].map((r) => r.id), count, open, wanting };
}

/** Panels with coats to come, of the newest open jobs first, or of one job. */
export async function listUnfinished(
  db: Db,
  { most, jobId }: { most: number; jobId?: string },
): Promise<({ panelId: string; jobId: string; name: string; vehicle: string } & NonNullable<PanelSummary["booth"]>)[]> {
  // Cross joins keep this order of looking: newest jobs, their panels, their rows; it ends at the limit.
  const rows = await db
    .selectFrom("job as j")
    .crossJoin("panel as p")
    .crossJoin("panel_summary as s")
    .whereRef("p.job_id", "=", "j.id")
    .whereRef("s.panel_id", "=", "p.id")
    .where("s.unfinished", "=", 1)
    .where("j.archived_at_ms", "is", null)
    .$if(jobId !== undefined, (q) => q.where("j.id", "=", jobId!))
    .orderBy("j.created_at_ms", "desc")
    .orderBy("j.id")
    .orderBy("p.position")
    .limit(most)
    .select(["p.id", "p.job_id", "p.name", "j.vehicle", "s.booth_json"])
    .execute();
  return rows.map((r) => ({
    panelId: r.id,
    jobId: r.job_id,
    name: r.name,
    vehicle: r.vehicle,
    ...(JSON.parse(r.booth_json!) as NonNullable<PanelSummary["booth"]>),
  }));
}

export const countUnfinished = (db: Db): Promise<number> =>
  countOf(
    db
      .selectFrom("panel_summary")
      .where("away", "=", 0)
      .where("unfinished", "=", 1)
      .select((e) => e.fn.countAll<number>().as("n")),
  );

/** The newest rows that have a column, by the column's own index; cross joins keep it the one that is walked. */
const newest = <T extends "sprayed_json" | "worked_json" | "learnt_json">(db: Db, column: T, most: number) =>
  db
    .selectFrom("panel_summary as s")
    .crossJoin("panel as p")
    .crossJoin("job as j")
    .whereRef("p.id", "=", "s.panel_id")
    .whereRef("j.id", "=", "s.job_id")
    .where(`s.${column}`, "is not", null)
    // Also of jobs that are put away: what they taught is not forgotten with them.
    .orderBy("s.last_coat_ms", "desc")
    .limit(most)
    .select(["p.id", "p.name", "j.vehicle", "s.seq", sql<string>`s.${sql.raw(column)}`.as("json")])
    .execute();

/** The newest sprayed panels with their settings and results, oldest first. */
export async function listSprayed(db: Db, most: number): Promise<SprayedPanel[]> {
  const rows = await newest(db, "sprayed_json", most);
  return rows
    .map((r): SprayedPanel => ({
      panelId: r.id,
      what: `${r.vehicle}, ${r.name.toLowerCase()}`,
      ...(JSON.parse(r.json) as NonNullable<PanelSummary["sprayed"]>),
    }))
    .reverse();
}

/** Settings that worked, on the newest panels read after clear, newest first. */
export async function listWorked(db: Db, most: number): Promise<(Worked & { where: string })[]> {
  const rows = await newest(db, "worked_json", most);
  return rows.map((r) => ({ where: `${r.vehicle}, ${r.name}`, ...(JSON.parse(r.json) as Worked) }));
}

/** What the newest panels say of the models; `key` changes with the panel's ledger. */
export async function listLessons(db: Db, most: number): Promise<(Lesson & { key: string })[]> {
  const rows = await newest(db, "learnt_json", most);
  return rows.map((r) => ({ key: `${r.id} ${r.seq}`, ...(JSON.parse(r.json) as Lesson) }));
}

/** Final words of the shop on one kind of defect, counted by cause; one entry may be left out. */
export async function countCauseWords(db: Db, kind: DefectKind, except: string | null): Promise<{ causeId: string; n: number }[]> {
  return db
    .selectFrom("cause_word")
    .where("kind", "=", kind)
    .$if(except !== null, (q) => q.where("entry_id", "!=", except!))
    .groupBy("cause_id")
    .select(["cause_id as causeId", (e) => e.fn.countAll<number>().as("n")])
    .execute();
}
