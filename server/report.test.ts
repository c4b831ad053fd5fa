import { textureOf } from "#core/judge/texture";
import Papa from "papaparse";
import { METRIC } from "#core/kernel/units/quantities";
import { optionFlips, weighOptions } from "#core/judge/option-case";
import { FilmJudge } from "#core/judge/film-judge";
import { decideOptions } from "#core/judge/options";
import { DEFAULT_RATES } from "#core/judge/option-figures";
import { judgeOf, planFor } from "#core/judge/plan-for";
import { reportPdf } from "~/stations/hand-over/report-pdf.server";
import { closedWords, decisionSentence, flipSentence, optionName } from "~/stations/correct/options.words";
import { reportReader } from "~/stations/hand-over/report-reader";
import { reportLines } from "~/stations/hand-over/report.words";
import { settleCause } from "./commands/causes";
import { recordEntry, strikeEntry } from "./commands/record-entry";
import { writeLedger } from "./interchange/ledger-csv";
import { panelToIcs } from "./interchange/panel-ics";
import { listEntries } from "./repos/ledger-repo";
import { coatBody, readingBody, testContext, testJob } from "./testing/fixtures";
import { loadPanelView } from "./views/panel-view";

const by = "painter A";
async function panel(clear_um = 62) {
  const ctx = await testContext();
  const { jobId, panelId } = await testJob(ctx);
  const at = (i: number) => ({ x_m: 0.25 + 0.3 * (i % 4), y_m: i < 4 ? 0.3 : 0.85 });
  for (const phase of ["before", "after"] as const)
    for (let i = 0; i < 8; i++) {
      ctx.advance(1000);
      const film = phase === "before" ? 90 + (i % 2) : 90 + clear_um + (i % 3);
      await recordEntry(ctx, { panelId, kind: "reading", by, body: readingBody(phase, String(i + 1), film, at(i)) });
    }
  for (const n of [1, 2]) await recordEntry(ctx, { panelId, kind: "coat", by, body: coatBody(n) });
  const view = async () => {
    ctx.advance(1000);
    return (await loadPanelView(ctx, jobId, panelId))!;
  };
  return { ctx, panelId, view };
}
const nib = { kind: "nib" as const, at: { x_m: 0.5, y_m: 0.4 }, length_m: null, width_m: null, height_m: null, measured: false };
const lineOf = (lines: { label: string; value: string }[], label: string) => lines.find((l) => l.label === label)?.value;

test("the report's lines are the ledger's own figures, and say what is not there", async () => {
  const { ctx, panelId, view } = await panel();
  const before = reportLines(await view(), METRIC);
  expect(lineOf(before, "Film of clear, mean")).toMatch(/^6[123] ± \d+ µm$/);
  expect(lineOf(before, "Defects noted")).toBe("none");
  expect(lineOf(before, "Corrected by")).toBe("not corrected");
  expect(lineOf(before, "Cut through")).toBeUndefined();
  await recordEntry(ctx, { panelId, kind: "defect", by, body: { ...nib, count: 4 } });
  await settleCause(ctx, await view(), { kind: "nib", causeId: "noTack", by });
  await recordEntry(ctx, { panelId, kind: "throughClear", by, body: { note: "" } });
  const after = reportLines(await view(), METRIC);
  expect(lineOf(after, "Defects noted")).toBe("4 × nib");
  expect(lineOf(after, "What caused them")).toContain("dry overspray");
  expect(lineOf(after, "Cut through")).toContain("repainted");
  expect(lineOf(after, "No wax for")).toContain("common practice");
});

test("the PDF holds a page with text and closes; a panel that nobody read is written too", async () => {
  const { view } = await panel();
  const options = { units: METRIC, shopName: "Quay Nine Refinish", today: "6 May 2026", photos: [] };
  const pdf = await reportPdf(await view(), options);
  expect(pdf.subarray(0, 5).toString()).toBe("%PDF-");
  expect(pdf.subarray(-7).toString()).toContain("%%EOF");
  expect(pdf.length).toBeGreaterThan(2000);
  const ctx = await testContext();
  const { jobId, panelId } = await testJob(ctx);
  const bare = await reportPdf((await loadPanelView(ctx, jobId, panelId))!, options);
  expect(bare.length).toBeGreaterThan(1000);
});

test("a panel becomes a case for the options: thinnest zone, nibs counted, worst run; what would change it is tried", async () => {
  const { ctx, panelId, view } = await panel(48);
  await recordEntry(ctx, { panelId, kind: "defect", by, body: { ...nib, count: 3 } });
  for (const height of [40, 80])
    await recordEntry(ctx, {
      panelId,
      kind: "defect",
      by,
      body: { kind: "run", at: { x_m: 0.7, y_m: 0.6 }, length_m: 0.05, width_m: 0.01, height_m: height * 1e-6, measured: true },
    });
  const v = await view();
  const input = {
    brief: v.panel,
    state: v.state,
    finish: "flat" as const,
    floor_m: v.floor_m,
    schoolId: "short",
    cured: 1,
    rates: DEFAULT_RATES,
    shop: v.shopRemoval,
  };
  const { answer } = weighOptions(input, { draws: 300 });
  const { case: c, decision } = answer!;
  const flips = optionFlips(input, { draws: 300 });
  expect(c).toMatchObject({ nibs: 3, matte: false, wanted_m: 0 });
  expect(c.run!.height_m).toBeCloseTo(80e-6, 12);
  expect(c.clear_m).toBe(v.state.film.thinnest!.clear_m);
  // An option is the plan that it opens: what it takes off, what it leaves, what it risks.
  for (const o of decision.options.filter((o) => ["spot", "run", "full"].includes(o.kind))) {
    const { plan, assess } = planFor(v.panel, v.state, {
      schoolId: o.kind === "full" ? "short" : "spot",
      runSchool: o.runSchool,
      texture: { ...textureOf(v.state).texture, wanted_m: 0 },
      tape_m: 0.02,
      floor_m: v.floor_m,
      shop: v.shopRemoval,
    });
    const risk = new FilmJudge(assess.film, { hypotheses: assess.hypotheses, draws: 300 }).risk(assess.work);
    expect([o.cutChance, o.thinChance, o.minutes]).toEqual([risk.cutChance, risk.thinChance, plan.minutes]);
  }
  expect(judgeOf(v.panel, v.state)!.thinnest().clear_m).toBe(c.clear_m);
  expect(decisionSentence(decision, false)).toMatch(/\.$/);
  for (const o of decision.options) {
    expect(optionName(o, false).length).toBeGreaterThan(5);
    for (const w of o.why) expect(closedWords(w, METRIC).length).toBeGreaterThan(5);
  }
  for (const f of flips) {
    expect([f.best.kind, f.best.runSchool]).not.toEqual([decision.best?.kind, decision.best?.runSchool]);
    expect(flipSentence(f, false)).toMatch(/^(If|With) /);
  }
  expect(optionName({ kind: "flow", runSchool: null, first: [] }, true)).toBe("Refinish the whole part");
  expect(decisionSentence(decideOptions({ ...c, cured: 0.3 }), false)).toMatch(/^(Wait for the cure|Leave it)/);
});

test("the customer's report leaves out why and how it was judged; the shop's file keeps it with the coats as logged", async () => {
  const { ctx, view } = await panel();
  await recordEntry(ctx, { panelId: (await view()).panel.id, kind: "defect", by, body: nib });
  await settleCause(ctx, await view(), { kind: "nib", causeId: "noTack", by });
  const [shop, customer] = [reportLines(await view(), METRIC, "shop"), reportLines(await view(), METRIC, "customer")];
  expect(lineOf(shop, "Coats as logged")).toMatch(/^1: full wet, \d+ ml\/min, 175 mm/);
  for (const label of ["Coats as logged", "What caused them"]) expect(lineOf(customer, label)).toBeUndefined();
  for (const { label, value } of customer) expect(lineOf(shop, label)).toBe(value);
  expect([reportReader("customer"), reportReader("anyone"), reportReader(null)]).toEqual(["customer", "shop", "shop"]);
});

test("film before and after the work stand side by side once it is read again", async () => {
  const { ctx, panelId, view } = await panel();
  expect(lineOf(reportLines(await view(), METRIC), "Clear before the work, mean")).toBeUndefined();
  const at = { x_m: 0.25, y_m: 0.3 };
  await recordEntry(ctx, { panelId, kind: "reading", by, body: readingBody("recheck", "1", 141, at) });
  const lines = reportLines(await view(), METRIC);
  expect(lineOf(lines, "Clear before the work, mean")).toMatch(/^6\d ± \d+ µm$/);
  expect(lineOf(lines, "Taken off, measured")).toContain("1: 11");
});

test("the calendar of a panel: nothing before its last coat, then every stage once; the ledger as CSV keeps what was taken out", async () => {
  const { ctx, panelId, view } = await panel();
  const calendar = panelToIcs(await view(), ctx.now_ms())!;
  expect(calendar).toMatch(/^BEGIN:VCALENDAR/);
  expect(calendar.match(/BEGIN:VEVENT/g)).toHaveLength(2); // sand by the sheet, wax by common practice
  expect(calendar).toContain(": sand");
  const fresh = await testJob(ctx);
  expect(panelToIcs((await loadPanelView(ctx, fresh.jobId, fresh.panelId))!, ctx.now_ms())).toBeNull();
  const id = await recordEntry(ctx, { panelId, kind: "note", by, body: { text: 'Said "fine", twice' } });
  await strikeEntry(ctx, id, { by, reason: "" });
  const rows = Papa.parse<Record<string, string>>(writeLedger(await listEntries(ctx.db, panelId)), { header: true });
  expect(rows.errors).toEqual([]);
  const note = rows.data.find((r) => r.id === id)!;
  expect([note.counts, (JSON.parse(note.body!) as { text: string }).text]).toEqual(["no", 'Said "fine", twice']);
  expect(rows.data.filter((r) => r.kind === "reading" && r.counts === "yes")).toHaveLength(16);
});
