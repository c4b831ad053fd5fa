import { assessFromHere, filmFacts } from "#core/judge/film-question";
import { riskOf } from "#core/judge/chance-at";
import { releaseCheck } from "#core/judge/release-check";
import { blockedBy, blockedVerdict } from "#core/judge/blocked-by";
import { faultsHolding, softFilm, workedAt } from "#core/panel/fault-holds";
import { isLookedOver } from "#core/panel/looked";
import { openMarks } from "#core/panel/open-marks";
import { headlineRemoval } from "#core/judge/work";
import { assess } from "#core/judge/assess";
import { FilmJudge, type PanelWork } from "#core/judge/film-judge";
import { planOfWay } from "#core/judge/option-plan";
import { flowPlanOf } from "#core/judge/flow-question";
import { DEFAULT_TAPE_M } from "#core/judge/limits";
import { weighOptions } from "#core/judge/option-case";
import { DEFAULT_RATES } from "#core/judge/option-figures";
import { mapPanel, type PanelMap } from "#core/judge/panel-map";
import { planFor } from "#core/judge/plan-for";
import { mapQuestion, optionQuestion, outQuestion, usualChoice, usualRemoval } from "#core/judge/questions";
import { clockHeld, holdsOfClock } from "#core/course/clock-hold";
import { cureOf, readyAt } from "#core/coat/cure";
import { type StepHold, holdsAt, isNo } from "#core/course/step-hold";
import { nextAction } from "#core/course/steps";
import type { EntryOf } from "#core/record/entry";
import { COVERAGE, showFilm, showWithUncertainty } from "#core/kernel/units/format";
import { METRIC } from "#core/kernel/units/quantities";
import type { ServerContext } from "#server/context";
import { listEntries } from "#server/repos/ledger-repo";
import { listClocks } from "#server/repos/clock-repo";
import { listStandings } from "#server/repos/summary-repo";
import { loadBooth } from "#server/views/booth-view";
import { optionSetting } from "#server/views/options-view";
import { type PanelView, loadFilmHistory, loadPanelView } from "#server/views/panel-view";
import { courseAt } from "~/course/course-at";
import { cureSentence } from "~/stations/spray/cure.words";
import { readySentence } from "~/stations/spray/ready.words";
import { stepWhen } from "~/course/course.words";
import { clockWords } from "~/kit/words/clock-words";
import { holdName } from "~/kit/words/hold-name";
import { actionWords } from "~/kit/words/step-words";
import { planAddress } from "~/stations/correct/plan-address";
import { planFields, planWays } from "~/stations/correct/plan-choice";
import { reportLines } from "~/stations/hand-over/report.words";
import { compareCoats } from "./coat-figures";
import { compareFiles } from "./file-figures";
import { compareLayers } from "./layer-figures";
import type { MadePanel } from "./ledgers";
import type { ZoneChoice } from "#core/judge/zone-setting";

/** One quantity, as one page has it. */
export interface Said {
  quantity: string;
  page: string;
  value: number | string | null;
}
export interface Disagreement {
  panel: MadePanel;
  quantity: string;
  said: { page: string; value: number | string | null }[];
}
/** A law that a panel's figures broke. */
export interface Broken {
  panel: MadePanel;
  law: string;
}

const DRAWS = 200;
/** Figures are the same when they differ by less than this share: the last digits of a sum in another order. */
const SAME = 1e-9;

const same = (a: Said["value"], b: Said["value"]): boolean =>
  typeof a === "number" && typeof b === "number" ? a === b || Math.abs(a - b) <= SAME * Math.max(Math.abs(a), Math.abs(b), 1e-9) : a === b;

/**
 * Everything that the pages of a panel say, worked out as each page does: by the real loaders, the very questions the pages put to the worker,
 * the report and its file. What names the same quantity must be the same figure.
 */
export async function compareFigures(
  ctx: ServerContext,
  panel: MadePanel,
): Promise<{ said: Said[]; disagreements: Disagreement[]; broken: Broken[] }> {
  const said: Said[] = [];
  const broken: Broken[] = [];
  const say = (quantity: string, page: string, value: Said["value"] | undefined) => said.push({ quantity, page, value: value ?? null });
  const law = (name: string, holds: boolean) => holds || broken.push({ panel, law: name });

  const view = (await loadPanelView(ctx, panel.jobId, panel.panelId))!;
  const { state } = view;
  const { film } = state;
  await compareCourse(ctx, view, say, law);
  await compareCoats(ctx, view, say, law);
  await compareLayers(ctx, view, say, law);
  await compareFiles(ctx, view, say, law, panel.seed);
  await compareFilm({ say, law, view, ctx });
  const again =
    film.hypotheses.length > 0 ? new FilmJudge(filmFacts(view.panel, state), { hypotheses: film.hypotheses, draws: DRAWS }) : null;
  again?.at(state.spots.map((s) => s.at)).forEach((c, i) => {
    const spot = state.spots[i]!;
    if (spot.latest) say(`clear at spot ${spot.name}`, "Map, tapped there", c.clear_m);
  });

  const { map } = mapPanel({ ...mapQuestion(view), draws: DRAWS });
  if (map && again) {
    say("mean clear", "Map", map.mean.clear_m);
    say("its doubt", "Map", map.mean.u_m);
    say("thinnest clear", "Map", map.thinnest.clear_m);
    say("inferred", "Map", String(map.inferred));
    law("safe leaves the floor", map.safe_m <= map.mean.clear_m - view.floor_m);
    const { choice } = compareCorrect({ view, say, law, map, again });
    compareOptions({ ctx, view, say, choice, again });
  }
  await compareAhead({ view, again, say, ctx, panel, law });
  say("rim left out", "Map", mapQuestion(view).rim_m);
  say("rim left out", "Correct", DEFAULT_TAPE_M);
  law("± is 95 % everywhere", COVERAGE === 2);

  const groups = new Map<string, Said[]>();
  for (const s of said) groups.set(s.quantity, [...(groups.get(s.quantity) ?? []), s]);
  const disagreements = [...groups].flatMap(([quantity, list]): Disagreement[] =>
    list.every((s) => same(s.value, list[0]!.value)) ? [] : [{ panel, quantity, said: list.map(({ page, value }) => ({ page, value })) }],
  );
  return { said, disagreements, broken };
}

/** The film: Inspect, section, report, through time. */
async function compareFilm({
  say,
  law,
  view,
  ctx,
}: {
  say: (quantity: string, page: string, value: Said["value"] | undefined) => number;
  law: (name: string, holds: boolean) => number | true;
  view: PanelView;
  ctx: ServerContext;
}) {
  const { state } = view;
  const { film } = state;
  say("mean clear", "Inspect", film.mean?.clear_m);
  say("its doubt", "Inspect", film.mean?.u_m);
  say("thinnest clear", "Inspect", film.thinnest?.clear_m);
  say("inferred", "Inspect", String(film.inferred));
  const clears = state.layers.filter((l) => l.tone === "clear");
  if (film.mean) {
    say("mean clear not below none", "Inspect", Math.max(0, film.mean.clear_m));
    say(
      "mean clear not below none",
      "Section",
      clears.reduce((a, l) => a + l.thickness_m, 0),
    );
    say("its doubt", "Section", clears.at(-1)?.u_m);
    law("each build adds up", state.builds.flatMap((b) => b.coats).length === 0 || clears.length === state.coats.length);
  }
  const report = reportLines(view, METRIC);
  const line = (label: string) => report.find((l) => l.label === label)?.value;
  const words = (m: number, u: number) => `${showWithUncertainty("film", m, u, METRIC).text} µm`;
  if (film.mean && film.thinnest) {
    say("mean clear in words", "Inspect", words(film.mean.clear_m, film.mean.u_m));
    say("mean clear in words", "Report", line("Film of clear, mean"));
    say("thinnest in words", "Inspect", words(film.thinnest.clear_m, film.thinnest.u_m));
    say("thinnest in words", "Report", line("Thinnest place")?.split(",")[0]);
    say("floor in words", "Report", line("Minimum clear kept to"));
    say("floor in words", "Inspect", `${showFilm(view.floor_m, METRIC).text} µm`);
  }

  const history = (await loadFilmHistory(ctx, view)).at(-1);
  if (history && film.mean) {
    say("mean clear", "Through time", history.measured?.clear_m);
    for (const s of state.spots) {
      say(`clear at spot ${s.name}`, "Through time", history.spots[s.name]?.clear_m);
      say(`clear at spot ${s.name}`, "Inspect", s.clear?.clear_m);
    }
  }
}

/** Correct, as it opens: its film, its verdict, and the map at its removal. */
function compareCorrect({
  view,
  say,
  law,
  map,
  again,
}: {
  view: PanelView;
  say: (quantity: string, page: string, value: Said["value"] | undefined) => number;
  law: (name: string, holds: boolean) => number | true;
  map: PanelMap;
  again: FilmJudge;
}) {
  const { state } = view;
  // Correct, as it opens.
  const choice = usualChoice(view);
  const { plan, assess: question } = planFor(view.panel, state, choice);
  if (plan.steps.some((s) => s.zone === "panel")) {
    say("what the house's ladder takes off", "Map", usualRemoval(view).removal_m);
    say("what the house's ladder takes off", "Correct", headlineRemoval(plan.steps).removal_m);
  }
  const verdict = assess({ ...question, draws: DRAWS, remedies: false });
  say("mean clear", "Correct", verdict.mean?.clear_m);
  // Of a plan for single places it speaks of those alone.
  if (question.work.panel) say("thinnest clear", "Correct", verdict.thinnest?.clear_m);
  say("inferred", "Correct", String(verdict.inferred));
  // Never safe over what a mark, an entry or a reading holds back; and the release knows of it.
  const faults = faultsHolding(state, "paper", workedAt(plan));
  const heldHere = blockedBy({ finish: view.job.finish, cured: 1, account: state, faults });
  law("held back it is not safe", heldHere.length === 0 || blockedVerdict(verdict.verdict, heldHere) !== "safe");
  const out = releaseCheck(outQuestion(view, { film: { cured: 1, left_s: 0 }, others_GU: [] }));
  const said = (what: string) => out.points.find((p) => p.what === what)?.state;
  law("doubtful readings are no good film", state.doubtful.length === 0 || said("film") !== "good");
  law("a fault that stops is no good panel", !faults.some((f) => f.level === "stop") || said("faults") === "against");
  law("unseen is not good", said("faults") !== "good" || isLookedOver(state) || openMarks(state).length > 0 || state.defects.length > 0);
  const { panel: onPanel, local } = question.work;
  law(
    "what may come off is never more than what is there over the floor",
    // Of single places: over the floor where there is most of it, and nothing where there is none.
    verdict.largestSafeRemoval_m <=
      (onPanel || local.length === 0
        ? map.mean.clear_m - view.floor_m
        : Math.max(0, ...again.at(local.map((t) => t.at)).map((c) => c.clear_m - view.floor_m))),
  );
  if (onPanel && verdict.largestSafeRemoval_m > 0) {
    const uRel = onPanel.u_m / onPanel.removal_m;
    const safe = { ...onPanel, removal_m: verdict.largestSafeRemoval_m, u_m: uRel * verdict.largestSafeRemoval_m };
    law("the judge calls its own safe removal safe", again.risk({ panel: safe, local: [], floor_m: view.floor_m }).verdict === "safe");
    // The map, asked with this plan's strips and doubt, is the plan without its single places.
    const asPlan = mapPanel({ ...mapQuestion(view), uRel, ...placeOf(onPanel), draws: DRAWS }).map!;
    const bare = again.risk({ panel: onPanel, local: [], floor_m: view.floor_m });
    say("chance of too little left", "Map at the plan's removal", riskOf(asPlan, onPanel.removal_m).thinChance);
    say("chance of too little left", "Plan", bare.thinChance);
    say("chance of cutting through", "Map at the plan's removal", riskOf(asPlan, onPanel.removal_m).cutChance);
    say("chance of cutting through", "Plan", bare.cutChance);
    say("what may come off", "Map at the plan's removal", asPlan.safe_m);
    say("what may come off", "Plan", verdict.largestSafeRemoval_m);
  }
  return { choice };
}

/** Options: each way that opens a plan is that plan. */
function compareOptions({
  ctx,
  view,
  say,
  choice,
  again,
}: {
  ctx: ServerContext;
  view: PanelView;
  say: (quantity: string, page: string, value: Said["value"] | undefined) => number;
  choice: ZoneChoice;
  again: FilmJudge;
}) {
  const { state } = view;
  // Options: each way that opens a plan is that plan.
  const setting = optionSetting(ctx, view);
  const { answer } = weighOptions(optionQuestion(view, { ...setting, rates: DEFAULT_RATES }), { draws: DRAWS });
  say("thinnest clear", "Options", answer?.case.clear_m);
  const flow = answer?.decision.options.find((o) => o.kind === "flow");
  if (flow && answer?.case.run === null) {
    say("sanded off for a flow coat", "Options", flow.removal_m);
    say("sanded off for a flow coat", "Flow coat", flowPlanOf(view)?.flat.removal_m);
  }
  for (const o of answer?.decision.options ?? []) {
    const opens = planOfWay(o.kind, { runSchool: o.runSchool, house: view.job.way.correction });
    if (!opens || (o.kind === "spot" && o.why.some((w) => w.because === "no nibs"))) continue;
    // As the page reads it from its own address.
    const asked = new URLSearchParams(planAddress(opens));
    const opened = planFor(view.panel, state, {
      ...choice,
      ...planWays(
        planFields(view, METRIC, (name) => asked.get(name)),
        view,
      ),
    });
    if (opened.plan.problem) continue;
    const risk = again.risk(opened.assess.work);
    const name = `${o.kind}${o.runSchool ? ` by ${o.runSchool}` : ""}`;
    for (const [what, option, own] of [
      ["cut", o.cutChance, risk.cutChance],
      ["thin", o.thinChance, risk.thinChance],
      ["minutes", o.minutes, opened.plan.minutes],
    ] as const) {
      say(`${name}: ${what}`, "Options", option);
      say(`${name}: ${what}`, "the plan it opens", own);
    }
  }
}

/** The plan in force, from where it stands. */
async function compareAhead({
  view,
  again,
  say,
  ctx,
  panel,
  law,
}: {
  view: PanelView;
  again: FilmJudge | null;
  say: (quantity: string, page: string, value: Said["value"] | undefined) => number;
  ctx: ServerContext;
  panel: MadePanel;
  law: (name: string, holds: boolean) => number | true;
}) {
  const { state } = view;
  // The plan in force, from where it stands.
  const ahead = assessFromHere(view.panel, state);
  if (ahead && again && state.plan) {
    const steps = state.plan.body.steps.slice(state.stepsDone.length);
    say("still to come off", "Work card", ahead.removal.removal_m);
    say("still to come off", "Plan's steps", headlineRemoval(state.plan.body.steps, state.stepsDone.length).removal_m);
    const planned = (await listEntries(ctx.db, panel.panelId)).find((e) => e.id === state.plan!.id) as EntryOf<"plan">;
    const unmarked = ahead.unmarked ?? ahead.removal;
    say("still to come off without marks", "Work card", unmarked.removal_m);
    say("still to come off without marks", "Plan as stored", headlineRemoval(planned.body.steps, state.stepsDone.length).removal_m);
    law("a mark leaves no more doubt of what is to come", ahead.removal.u_m <= unmarked.u_m * (1 + SAME));
    const risk = again.risk(ahead.assess.work);
    const card = assess({ ...ahead.assess, draws: DRAWS, remedies: false });
    say("chance from here: cut", "Work card", card.cutChance);
    say("chance from here: cut", "Judge", risk.cutChance);
    law("what is still to come is not more than the plan", steps.length <= state.plan.body.steps.length);
    law(
      "work at places has its places",
      steps.every((s) => (s.zone === "spot" || s.zone === "run") === s.at.length > 0),
    );
  }
}

const placeOf = ({ rim_m, byHand, region }: PanelWork) => ({ rim_m, byHand, region });

/** What is next and when: header, lists, booth view, clock strip, calendar of the cure. */
async function compareCourse(
  ctx: ServerContext,
  view: PanelView,
  say: (quantity: string, page: string, value: Said["value"]) => void,
  law: (name: string, holds: boolean) => void,
): Promise<void> {
  const { panel, job, state, product } = view;
  const { action } = view.standing;
  const row = (await listStandings(ctx.db, [job.id])).find((s) => s.panelId === panel.id)!.standing.action;
  const name = (a: typeof action) => (a === null ? "handed over" : `${a.kind} ${a.number} ${a.side}`);
  // What says no travels with the step: course, header, booth view and booth plan hold the same back for the same reasons.
  const now_ms = ctx.now_ms();
  const step = nextAction(courseAt(view, now_ms));
  const reasons = (holds: readonly StepHold[]) => holds.map((h) => (h.by === "fault" ? h.fault.name : h.by)).join(", ");
  say("what says no", "course", reasons(step?.holds ?? []));
  say("what says no", "header", reasons(holdsAt(action?.holds ?? [], now_ms)));
  say("what says no", "lists", reasons(holdsAt(row?.holds ?? [], now_ms)));
  const held = step !== null && (step.kind === "coat" || step.layer !== null) && step.holds.some(isNo);
  say("what is next", "course", step && state.handedOver === null ? name(step) : "handed over");
  say("what is next", "header", name(action));
  say("what is next", "lists", name(row));
  const clocks = (await listClocks(ctx.db, ctx.now_ms(), 500)).filter((c) => c.panelId === panel.id);
  const booth = (await loadBooth(ctx, job.id))!.panels.find((p) => p.id === panel.id)!;
  say("the next coat is held", "course", String(held));
  say("the next coat is held", "booth view", String(booth.before === "held"));
  law("nothing says now while it is held", !held || !stepWhen(step, now_ms).startsWith("now"));
  law("the list says why", !held || /: /.test(actionWords(view.standing, now_ms)));
  const ready = readySentence({ checks: [], read_ms: now_ms, left: 0, standing: view.standing, now_ms });
  const mayNow =
    step?.kind === "coat" && !held && (step.from_ms ?? 0) <= now_ms + 30_000 && !(step.latest_ms !== null && step.latest_ms < now_ms);
  law("ready is said of a coat that may go on now, and of none else", (ready.main === "Ready.") === (mayNow && state.handedOver === null));
  const hardened = cureSentence(product.sheet, state, { planned: panel.coatsPlanned, job, now_ms });
  const soft = softFilm(state) !== null;
  law(
    "a film marked as soft is called hard nowhere",
    !soft || (!hardened?.main.startsWith("Hard") && !clocks.some((c) => c.kind === "cure" && c.label === "work")),
  );
  // A clock that leads to a held step never says that it is ready, also when it comes due later.
  for (const c of clocks) {
    const due_ms = Math.max(now_ms, c.due_ms + 1000);
    const no = clockHeld(c, due_ms);
    const then = nextAction(courseAt(view, due_ms));
    const heldThen = then !== null && holdsOfClock(c, { action: then }).some(isNo);
    law("a clock says what says no to its step", (no !== null) === heldThen);
    law(
      "a held clock is not ready",
      no === null || !/ready|^Heat may|^May be|over: touch/i.test(clockWords(c, "due", holdName(no, due_ms))),
    );
  }
  const flash = clocks.find((c) => c.kind === "flash" && c.label.startsWith("coat"));
  if (action?.kind === "coat" && booth.flash) {
    say("next coat, not before", "header", action.from_ms);
    say("next coat, not before", "lists", row?.from_ms ?? null);
    say("next coat, not before", "booth view", booth.flash.due_ms);
    say("next coat, too late after", "header", action.latest_ms);
    say("next coat, too late after", "booth view", booth.flash.late_ms);
    if (flash) {
      say("next coat, not before", "clock strip", flash.due_ms);
      say("next coat, too late after", "clock strip", flash.late_ms);
    }
  }
  const hard = clocks.find((c) => c.kind === "cure" && c.label === "work");
  const cure = cureOf(product.sheet, state, ctx.now_ms());
  if (hard && cure) {
    say("hard enough for work", "clock strip", hard.due_ms);
    say("hard enough for work", "Cure", readyAt(cure, job));
    const { left_s } = optionSetting(ctx, view);
    if (job.finish !== "matte" && left_s > 0) say("hard enough for work", "Options", ctx.now_ms() + 1000 * left_s);
  }
}
