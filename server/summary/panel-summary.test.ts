import { houseWay } from "#core/models/ways/house-ways";
import fc from "fast-check";
import { CAUSES, CAUSE_IDS, type CauseId } from "#core/models/defects/causes";
import { livingEntries } from "#core/record/timeline";
import { derivePanel } from "#core/panel/derive-panel";
import { recordEntry, strikeEntry } from "#server/commands/record-entry";
import { addPanel, setHouseWay } from "#server/commands/jobs";
import { changeShop } from "#server/commands/house";
import { countCauseWords, floorJobs, listStandings, listSprayed, listUnfinished, refreshSummaries } from "#server/repos/summary-repo";
import { listEntries } from "#server/repos/ledger-repo";
import { getPanel } from "#server/repos/panel-repo";
import { coatBody, readingBody, sheet, testContext, testJob } from "#server/testing/fixtures";
import { loadPanelView } from "#server/views/panel-view";
import { SUMMARY_VERSION, panelSummary } from "./panel-summary";

const by = "painter A";
type Ctx = Awaited<ReturnType<typeof testContext>>;
type Act =
  { do: "coat" | "before" | "after" | "defect" | "handOver" | "note" } | { do: "strike" | "correct"; which: number } | { do: "way" };

const act = fc.oneof(
  fc.constantFrom("coat", "before", "after", "defect", "handOver", "note").map((what): Act => ({ do: what as "coat" })),
  fc.record({ do: fc.constantFrom("strike" as const, "correct" as const), which: fc.nat(20) }),
  fc.constant<Act>({ do: "way" }),
);

async function carryOut(ctx: Ctx, { jobId, panelId }: { jobId: string; panelId: string }, a: Act): Promise<void> {
  const entries = await listEntries(ctx.db, panelId);
  const add = (kind: never, body: never) => recordEntry(ctx, { panelId, kind, body, by });
  switch (a.do) {
    case "coat":
      return void (await add("coat" as never, coatBody(1) as never));
    case "before":
    case "after":
      return void (await add("reading" as never, readingBody(a.do, "1", a.do === "before" ? 90 : 140) as never));
    case "defect":
      return void (await add(
        "defect" as never,
        { kind: "nib", at: { x_m: 0.5, y_m: 0.5 }, length_m: null, width_m: null, height_m: null, measured: false } as never,
      ));
    case "handOver":
      return void (await add("handOver" as never, { note: "" } as never));
    case "note":
      return void (await add("note" as never, { text: "x" } as never));
    case "way":
      return void (await setHouseWay(ctx, { jobId, panelId, wayId: "three-flat" }));
    default: {
      const target = entries[a.which % Math.max(1, entries.length)];
      if (!target) return;
      // What no longer counts may not be corrected: a refusal is an answer, not a fault.
      const attempt =
        a.do === "strike"
          ? strikeEntry(ctx, target.id, { by, reason: "" })
          : recordEntry(ctx, { panelId, kind: "note", body: { text: "instead" }, by, supersedes: target.id });
      await attempt.catch(() => undefined);
    }
  }
}

test("whatever is written, struck, corrected and undone, a panel's row says what its ledger says", async () => {
  await fc.assert(
    fc.asyncProperty(fc.array(act, { minLength: 1, maxLength: 14 }), async (acts) => {
      const ctx = await testContext();
      const job = await testJob(ctx);
      for (const a of acts) await carryOut(ctx, job, a);
      const panel = (await getPanel(ctx.db, job.panelId))!;
      const entries = await listEntries(ctx.db, job.panelId);
      const state = derivePanel(panel, sheet, entries);
      const { standing } = (await loadPanelView(ctx, job.jobId, job.panelId))!;
      const told = (await listStandings(ctx.db, [job.jobId]))[0]!.standing;
      // The row is as of the newest entry: what is next is the same, its time no later than now.
      const what = ({ action, ...rest }: typeof standing) => ({ ...rest, kind: action?.kind, number: action?.number, of: action?.of });
      expect(what(told)).toEqual(what(standing));
      expect(await floorJobs(ctx.db, 5)).toEqual({
        jobIds: [job.jobId],
        count: 1,
        open: standing.done ? 0 : 1,
        wanting: standing.attention ? 1 : 0,
      });
      expect((await listUnfinished(ctx.db, { most: 5 })).length).toBe(state.coats.length < panel.coatsPlanned && !state.handedOver ? 1 : 0);
      // And a clock runs only for an entry that counts.
      const living = new Set(livingEntries(entries).map((e) => e.id));
      for (const c of await ctx.db.selectFrom("clock").selectAll().execute()) expect(c.struck).toBe(living.has(c.entry_id) ? 0 : 1);
      await ctx.db.destroy();
    }),
    { numRuns: 60 },
  );
});

const KINDS = ["climate", "coat", "handOver", "after", "learn"] as const;
/** A climate that one panel was sprayed in, struck out on the other when that one is finished. */
const STRUCK_LATER = (
  [
    [0, "climate", 1],
    [1, "coat", 1],
    [1, "coat", 1],
    [1, "after", 1],
    [0, "climate", 0],
  ] as const
).map(([panel, kind, undo]) => ({ panel, kind, air_K: 300, undo }));

/** A coat after which the next one runs for a while yet. */
const HEAVY = { ...coatBody(1), settings: { ...coatBody(1).settings, handSpeed_m_s: 0.2 } };
/** A factor that is taken over between two coats. */
const LEARNT_BETWEEN = (
  [
    [1, "climate", 1, 293],
    [1, "coat", 3, 293],
    [1, "learn", 1, 283],
  ] as const
).map(([panel, kind, undo, air_K]) => ({ panel, kind, air_K, undo }));

test("whatever is written on which panel of a job, every row of the job is what it would be made anew: what need not be looked at again has not changed", async () => {
  const written = fc.record({
    panel: fc.nat(1),
    kind: fc.constantFrom(...KINDS),
    air_K: fc.integer({ min: 283, max: 308 }),
    undo: fc.integer({ min: 0, max: 4 }),
  });
  await fc.assert(
    fc.asyncProperty(fc.array(written, { minLength: 6, maxLength: 24 }), async (acts) => {
      const ctx = await testContext();
      const { jobId, panelId } = await testJob(ctx);
      const first = (await getPanel(ctx.db, panelId))!;
      const ids = [panelId, await addPanel(ctx, jobId, { ...first, tilt_rad: Math.PI / 2 })];
      for (const { panel, kind, air_K, undo } of acts) {
        ctx.advance(60_000);
        const panelOf = ids[panel]!;
        if (kind === "learn") {
          const learnt = undo === 0 ? null : { factor: (air_K - 273) / 15, u_log: 0.1, n: undo };
          await changeShop(ctx, (shop) => ({ ...shop, learntRuns: learnt, learntFilm: undo === 2 ? learnt : shop.learntFilm }));
          continue;
        }
        if (undo === 0) {
          const target = (await listEntries(ctx.db, panelOf)).findLast((e) => e.kind === kind);
          if (target) await strikeEntry(ctx, target.id, { by, reason: "" }).catch(() => undefined);
          continue;
        }
        const bodies = {
          climate: { air_K, part_K: null, relativeHumidity: 0.5, material_K: null },
          coat: undo === 3 ? HEAVY : coatBody(1),
          handOver: { note: "" },
          after: readingBody("after", "1", 140),
        };
        await recordEntry(ctx, { panelId: panelOf, kind: (kind === "after" ? "reading" : kind) as never, body: bodies[kind] as never, by });
      }
      const rows = () =>
        Promise.all([
          ctx.db.selectFrom("panel_summary").selectAll().orderBy("panel_id").execute(),
          ctx.db.selectFrom("clock").selectAll().orderBy("id").execute(),
        ]);
      const kept = await rows();
      await ctx.db.updateTable("panel_summary").set({ version: 0 }).execute();
      expect(await refreshSummaries(ctx.db)).toBe(2);
      expect(kept).toEqual(await rows());
      await ctx.db.destroy();
    }),
    { numRuns: 40, examples: [[STRUCK_LATER], [LEARNT_BETWEEN]] },
  );
});

test("rows of an older version are made anew when a file is opened, others are left", async () => {
  const ctx = await testContext();
  await testJob(ctx);
  expect(await refreshSummaries(ctx.db)).toBe(0);
  await ctx.db
    .updateTable("panel_summary")
    .set({ version: SUMMARY_VERSION - 1, counts_json: "{}" })
    .execute();
  expect(await refreshSummaries(ctx.db)).toBe(1);
  expect(await refreshSummaries(ctx.db)).toBe(0);
});

test("final words are counted by kind; one that is corrected counts once, one struck not at all", async () => {
  const ctx = await testContext();
  const { panelId } = await testJob(ctx);
  const word = (causeId: CauseId, supersedes: string | null = null) =>
    recordEntry(ctx, { panelId, kind: "cause", body: { kind: "run", answers: {}, causeId }, by, supersedes });
  const [a, b] = CAUSE_IDS.filter((id) => "run" in CAUSES[id].of) as [CauseId, CauseId];
  const first = await word(a);
  const second = await word(b, first);
  expect(await countCauseWords(ctx.db, "run", null)).toEqual([{ causeId: b, n: 1 }]);
  expect(await countCauseWords(ctx.db, "run", second)).toEqual([]);
  await strikeEntry(ctx, second, { by, reason: "" });
  expect(await countCauseWords(ctx.db, "run", null)).not.toContainEqual({ causeId: b, n: 1 });
});

test("a sprayed and looked-at panel stands in Next time, one between its coats does not", async () => {
  const ctx = await testContext();
  const { panelId } = await testJob(ctx);
  await recordEntry(ctx, { panelId, kind: "coat", body: coatBody(1), by });
  expect(await listSprayed(ctx.db, 10)).toEqual([]);
  await recordEntry(ctx, { panelId, kind: "coat", body: coatBody(2), by });
  await recordEntry(ctx, { panelId, kind: "reading", body: readingBody("after", "1", 140), by });
  expect(await listSprayed(ctx.db, 10)).toEqual([]); // read, but nobody has looked at it
  await recordEntry(ctx, { panelId, kind: "lookedOver", body: {}, by });
  const [row] = await listSprayed(ctx.db, 10);
  expect(row).toMatchObject({ panelId, what: "Test estate, bonnet", reducer: 0, defects: [] });
  const panel = (await getPanel(ctx.db, panelId))!;
  const product = { id: "p", revisionId: "r", revision: 1, sheet };
  const row4 = panelSummary(panel, product, {
    job: { way: houseWay("two-full"), finish: "match" },
    entries: await listEntries(ctx.db, panelId),
  });
  expect(row4.unfinished).toBe(false);
});
