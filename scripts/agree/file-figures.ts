import { cureDates, cureOf } from "#core/coat/cure";
import { coatsAsked } from "#core/coat/asked";
import { windowAhead } from "#core/coat/window-ahead";
import { planBooth } from "#core/models/schedule/booth-plan";
import { TEXTURE_LIMITS } from "#core/models/flow/constants";
import { flowVerdict } from "#core/models/flow/flow-advice";
import { inRange } from "#core/kernel/guard";
import { partSheet } from "#core/models/product/sheet-schema";
import type { EntryOf } from "#core/record/entry";
import { exportJob, importJob } from "#server/commands/job-bundles";
import type { ServerContext } from "#server/context";
import { boothPlanToIcs } from "#server/interchange/booth-plan-ics";
import { readBundle } from "#server/interchange/job-bundle";
import { writeLedger } from "#server/interchange/ledger-csv";
import { panelToIcs } from "#server/interchange/panel-ics";
import { listEntries } from "#server/repos/ledger-repo";
import { testContext } from "#server/testing/fixtures";
import { loadBoothPlan } from "#server/views/booth-plan-view";
import { mixSetting } from "#server/views/mix-view";
import { loadPots } from "#server/views/pots-view";
import { type PanelView, loadPanelView } from "#server/views/panel-view";

type Say = (quantity: string, page: string, value: number | string | null | undefined) => void;
type Law = (name: string, holds: boolean) => void;

const SECOND_MS = 1000;
/** One in so many panels is put through the files that cost most. */
const FILES_EACH = 6;

/** Times of the events of a calendar, by their names in the file. */
function eventsOf(ics: string): Map<string, number> {
  const found = new Map<string, number>();
  for (const event of ics
    .replace(/\r\n[ \t]/g, "")
    .split("BEGIN:VEVENT")
    .slice(1)) {
    const uid = /^UID:(.+?)\r?$/m.exec(event)?.[1];
    const start = /^DTSTART:(\d{4})(\d\d)(\d\d)T(\d\d)(\d\d)(\d\d)Z\r?$/m.exec(event);
    if (!uid || !start) throw new Error(`an event without a time: ${event}`);
    const [y, mo, d, h, mi, s] = start.slice(1).map(Number) as [number, number, number, number, number, number];
    found.set(uid, Date.UTC(y, mo - 1, d, h, mi, s));
  }
  return found;
}
const whole = (ms: number) => Math.floor(ms / SECOND_MS) * SECOND_MS;

/** The files of a panel, the pots of its job, and the lists that stand beside its window. */
export async function compareFiles(ctx: ServerContext, view: PanelView, say: Say, law: Law, seed: number): Promise<void> {
  compareLists(ctx, view, say);
  await comparePots(ctx, view, say);
  const { panel, product, state, job } = view;
  const now_ms = ctx.now_ms();
  const entries = await listEntries(ctx.db, panel.id);
  say("entries", "Ledger", entries.length);
  say("entries", "Ledger file", writeLedger(entries).trimEnd().split("\n").length - 1);

  const calendar = panelToIcs(view, now_ms);
  const cure = cureOf(product.sheet, state, now_ms);
  law("a calendar only of a panel that is coated", calendar === null || (cure !== null && state.coats.length >= panel.coatsPlanned));
  if (calendar && cure) {
    const events = eventsOf(calendar);
    for (const { stage, at_ms } of cureDates(cure)) {
      say(`may be ${stage}`, "Cure", whole(at_ms));
      say(`may be ${stage}`, "Calendar", events.get(`cure-${panel.id}-${stage}@yakamoz`));
    }
  }
  if (seed % FILES_EACH !== 0) return;

  const booth = await loadBoothPlan(ctx, job.id);
  const answer = planBooth(booth.problem);
  if (answer.kind === "planned" && answer.plan.sprays.length > 0) {
    const events = eventsOf(boothPlanToIcs(answer.plan, { ...booth, now_ms }));
    for (const s of answer.plan.sprays) {
      say(`coat ${s.coat} in the booth`, "Booth plan", whole(Math.round(booth.origin_ms + s.start_s * SECOND_MS)));
      say(`coat ${s.coat} in the booth`, "Its calendar", events.get(`coat-${s.part}-${s.coat}@yakamoz`));
    }
  }

  // The job as a file, read by another shop: the same panel.
  const bundle = await exportJob(ctx, job.id);
  const read = readBundle(JSON.stringify(bundle));
  law("a job that is written can be read", read.ok);
  if (!read.ok) return;
  const elsewhere = await testContext();
  elsewhere.advance(now_ms - elsewhere.now_ms());
  await importJob(elsewhere, read.value);
  const there = (await loadPanelView(elsewhere, job.id, panel.id))!;
  const step = ({ standing: { action } }: PanelView) =>
    action ? `${action.kind} ${action.layer} ${action.number} ${action.side} ${action.from_ms}` : "none";
  say("its step", "Here", step(view));
  say("its step", "Job file", step(there));
  for (const [page, v] of [
    ["Here", view],
    ["Job file", there],
  ] as const) {
    say("mean clear as it is kept", page, v.state.film.mean?.clear_m);
    say("coats as they are kept", page, v.state.coats.length);
    say("coats below as they are kept", page, v.state.colourCoats.length);
    say(
      "left in all pots",
      page,
      v.state.pots.reduce((a, p) => a + p.left_m3, 0),
    );
  }
  await elsewhere.db.destroy();
}

const SPEEDS = ["slow", "medium", "fast"] as const;

/** What stands in lists: the hardeners of the mix as the window has each, and the way that was chosen among all ways. */
function compareLists(ctx: ServerContext, view: PanelView, say: Say): void {
  const limit = TEXTURE_LIMITS[view.job.finish];
  const now_ms = ctx.now_ms();
  const open = { ...windowAhead(coatsAsked(view, now_ms)), shop: view.shopFactors };
  const parts = SPEEDS.map((speed) => ({ sheet: partSheet.parse({ name: speed, kind: "hardener", speed }) }));
  for (const { name, class: told } of mixSetting(view, parts, now_ms).judged ?? []) {
    const asked = { ...open, conditions: { ...open.conditions, speed: name as (typeof SPEEDS)[number] } };
    say(`flows with ${name} hardener`, "Mix's list", told);
    say(`flows with ${name} hardener`, "Window", inRange(() => flowVerdict(asked, limit))?.class);
  }
}

/** Pots of what lies below the clear too: by the panel's own account and on the page of the job's pots. */
async function comparePots(ctx: ServerContext, view: PanelView, say: Say): Promise<void> {
  const there = (await loadPots(ctx, view.job.id))!.pots;
  const own = [...view.state.pots, ...view.state.below.flatMap((l) => l.pots)];
  const once = new Map(own.map((p) => [p.entry.id, p]));
  // A product that builds several layers has one pot; what each took is told with its layer.
  const shared = (entry: EntryOf<"mix">) => own.filter((p) => p.entry.id === entry.id).length > 1;
  for (const pot of once.values()) {
    if (pot.entry.panelId !== view.panel.id || shared(pot.entry)) continue;
    const shown = there.find((p) => p.entry.id === pot.entry.id);
    say(`left of pot ${pot.entry.id}`, "panel", pot.left_m3);
    say(`left of pot ${pot.entry.id}`, "Pots", shown?.left_m3 ?? null);
    say(`coats out of pot ${pot.entry.id}`, "panel", pot.taken.length);
    say(`coats out of pot ${pot.entry.id}`, "Pots", shown?.taken.length ?? null);
  }
}
