import type { PanelBrief } from "../panel/brief";
import { filmFacts } from "./film-question";
import { sandOutOf } from "./sand-out";
import { leftTexture, textureElsewhere, textureOf } from "./texture";
import { polygonArea } from "../kernel/geometry/geometry";
import { inRegion, regionShare } from "../kernel/geometry/region";
import { DEFAULT_REMOVAL, type ShopRemoval, clearingPlan } from "../models/correction/clearing";
import type { Texture } from "../models/correction/removal-plan";
import { type BenchHabits, USUAL_HABITS } from "../models/correction/bench-habits";
import { RUN_SCHOOLS, type RunSchool } from "../models/correction/run-work";
import type { Finish } from "../models/ways/terms";
import type { PanelState } from "./account";
import { type FilmFacts, type StackHypothesis, tooFewReadings } from "./film-facts";
import { FilmJudge, type LocalTask, type PanelWork } from "./film-judge";
import { type JudgeOf, freshJudge } from "./kept-judge";
import { DEFAULT_TAPE_M } from "./limits";
import { type Decision, type FlowCase, type Judged, type JudgedWork, type OptionCase, decideOptions } from "./options";
import { FLOW_STEPS, type ShopRates } from "./option-figures";
import { type CurePhase, type RemedyId, leftShare } from "../models/defects/remedies";
import type { HeldWork } from "../models/defects/holds";
import type { EntryOf } from "../record/entry";
import { type HoldingFault, WHOLE_PANEL, type WorkedAt, faultsHolding } from "../panel/fault-holds";
import { openFaults } from "./open-faults";
import { openMarks } from "../panel/open-marks";
import { planOfWay } from "./option-plan";
import { planFor } from "./plan-for";
import { markedRegion, openFills, openNibs, openRuns } from "./zone-places";
import { placesOf } from "../panel/mark-places";
import type { ZoneChoice } from "./zone-setting";

/** What the options of a panel are worked out from. */
export interface OptionInput {
  brief: PanelBrief;
  state: PanelState;
  finish: Finish;
  floor_m: number;
  /** The school that the whole panel would be levelled by. */
  schoolId: string;
  /** How the shop holds its tools. */
  habits?: BenchHabits;
  /** Share of the cure to sanding reached. */
  cured: number;
  phase?: CurePhase;
  rates: ShopRates;
  shop?: ShopRemoval;
  /** The flow coat as its own page plans it. */
  flow?: FlowCase | null;
  /** Waiting until the clear bears paper, and for clear laid anew. */
  waiting?: OptionCase["waiting"];
}

/** A figure that, were it otherwise, would lead to another choice. */
export interface Flip {
  what: "measure" | "thinner" | "thicker" | "flatter" | "rougher" | "fewer nibs" | "dearer hours";
  best: NonNullable<Decision["best"]>;
}

export interface OptionAnswer {
  case: Omit<OptionCase, "removalOf">;
  decision: Decision;
  inferred: boolean;
}

/** How the options are worked out. */
interface Working {
  onProgress?: (share: number) => void;
  draws?: number;
  judgeOf?: JudgeOf;
}

const QUICK_DRAWS = 400;

/**
 * Every way to deal with a panel: each that has a plan is costed and judged by that very plan.
 * @returns the answer, or why there is none @throws RangeError
 */
export function weighOptions(
  input: OptionInput,
  { onProgress, draws, judgeOf = freshJudge }: Working = {},
): { answer: OptionAnswer; reason: null } | { answer: null; reason: string } {
  const film = filmFacts(input.brief, input.state);
  const reason = tooFewReadings(film.observations);
  if (reason) return { answer: null, reason };
  const judge = judgeOf(film, { hypotheses: input.state.film.hypotheses, draws });
  onProgress?.(0.2);
  const { removalOf, ...c } = caseOf(input, judge, textureOf(input.state).texture);
  const decision = decideOptions({ ...c, removalOf }); // how it was worked out stays here: an answer crosses to another thread as plain data
  return { answer: { case: c, decision, inferred: judge.inferred }, reason: null };
}

/** Which figures, were they otherwise, would lead to another choice; none where nothing can be weighed. @throws RangeError */
export function optionFlips(input: OptionInput, { onProgress, draws, judgeOf = freshJudge }: Working = {}): Flip[] {
  const film = filmFacts(input.brief, input.state);
  if (tooFewReadings(film.observations)) return [];
  const { hypotheses } = input.state.film;
  const judge = judgeOf(film, { hypotheses, draws });
  const texture = textureOf(input.state).texture;
  const c = caseOf(input, judge, texture);
  const now = decideOptions(c).best;
  const u_m = c.u_clear_m;
  const quick = (other: FilmFacts, again?: readonly StackHypothesis[]) => new FilmJudge(other, { hypotheses: again, draws: QUICK_DRAWS });
  const tries: { what: Flip["what"]; of: () => OptionCase }[] = [
    { what: "measure", of: () => caseOf(input, quick({ ...film, foil: true }), texture) },
    { what: "thinner", of: () => caseOf(input, quick(shifted(film, -u_m), hypotheses), texture) },
    { what: "thicker", of: () => caseOf(input, quick(shifted(film, u_m), hypotheses), texture) },
    { what: "flatter", of: () => caseOf(input, judge, { ...texture, peakToValley_m: 0.5 * texture.peakToValley_m }) },
    { what: "rougher", of: () => caseOf(input, judge, { ...texture, peakToValley_m: 2 * texture.peakToValley_m }) },
    ...(c.nibs > 0 ? [{ what: "fewer nibs" as const, of: () => ({ ...c, nibs: Math.floor(c.nibs / 2) }) }] : []),
    { what: "dearer hours", of: () => ({ ...c, rates: { ...input.rates, labourPerHour: 2 * input.rates.labourPerHour } }) },
  ];
  return tries.flatMap(({ what, of }, i): Flip[] => {
    onProgress?.((i + 1) / (tries.length + 1));
    const { best } = decideOptions(of());
    return best && (best.kind !== now?.kind || best.runSchool !== now.runSchool) ? [{ what, best }] : [];
  });
}

/** The readings over clear so much higher or lower. */
const shifted = (film: FilmFacts, by_m: number): FilmFacts => ({
  ...film,
  observations: film.observations.map((o) => (o.layer === "after" ? { ...o, total_m: Math.min(5e-3, Math.max(0, o.total_m + by_m)) } : o)),
});

/** A panel as the options see it: its thinnest place, its worst run, its nibs and texture, and what the plans of each way come to. */
function caseOf(
  {
    brief,
    state,
    finish,
    floor_m,
    schoolId,
    cured,
    phase,
    rates,
    habits = USUAL_HABITS,
    shop = DEFAULT_REMOVAL,
    flow = null,
    waiting,
  }: OptionInput,
  judge: FilmJudge,
  texture: Texture,
): OptionCase {
  const runs = openRuns(state).sort((a, b) => b.height_m - a.height_m);
  const totals = state.spots.flatMap((s) => (s.latest ? [s.latest.film.film.mean_m] : []));
  const wanted_m = leftTexture(state, finish, texture);
  const thinnest = judge.thinnest();
  const left = { ...texture, wanted_m };
  const choice: ZoneChoice = { schoolId, runSchool: null, texture: left, tape_m: DEFAULT_TAPE_M, floor_m, habits, shop };
  return {
    area_m2: polygonArea(brief.shape.outline),
    clear_m: thinnest.clear_m,
    u_clear_m: thinnest.u_m,
    total_m: totals.reduce((a, t) => a + t, 0) / Math.max(1, totals.length),
    peakToValley_m: texture.peakToValley_m,
    wanted_m,
    nibs: openNibs(state).reduce((a, d) => a + d.body.count, 0),
    faults: openFaults(state),
    marked: markedOf(brief, state),
    held: heldWays(state, (f) => f.level === "stop"),
    waits: heldWays(state, (f) => f.until === "dry"),
    sandOut_m2: sandOutOf(brief, openMarks(state)).area_m2,
    finish,
    ...(waiting ? { waiting } : {}),
    ...(phase ? { phase } : {}),
    run: runs[0] ? { height_m: runs[0].height_m, width_m: runs[0].width_m, length_m: runs[0].length_m } : null,
    matte: finish === "matte",
    cured,
    floor_m,
    rates,
    removalOf: (steps, t) => clearingPlan(steps, t, shop),
    flow,
    judged: judgedPlans(brief, state, choice, judge, { anyRun: runs.length > 0, flow }),
  };
}

/** What holds each way back where it works, of the holds that are asked for: paper at its places, over what is marked or over the panel, and more clear on all of it. */
function heldWays(state: PanelState, counts: (fault: HoldingFault) => boolean): NonNullable<OptionCase["held"]> {
  const kinds = (what: HeldWork | readonly HeldWork[], work: WorkedAt) => [
    ...new Set(faultsHolding(state, what, work).flatMap((f) => (counts(f) ? [f.kind] : []))),
  ];
  const at = (marks: readonly EntryOf<"defect">[]): WorkedAt => ({ over: null, places: marks.flatMap(placesOf) });
  const nibs = openNibs(state);
  const runs = openRuns(state).map((r) => r.entry);
  const over = kinds("paper", WHOLE_PANEL);
  return {
    spot: kinds("paper", at([...nibs, ...openMarks(state).filter((m) => leftShare(m.body.kind, "spot") < 1)])),
    run: kinds("paper", at([...runs, ...nibs])),
    part: kinds("paper", { over: { region: markedRegion(state) }, places: [...runs, ...nibs].flatMap(placesOf) }),
    dropFill: kinds("paper", at([...openFills(state), ...nibs])),
    polish: over,
    full: over,
    halfCoat: kinds("clear", WHOLE_PANEL),
    flow: kinds(["paper", "clear"], WHOLE_PANEL),
  };
}

/** Where the panel is marked for levelling. */
function markedOf({ shape }: PanelBrief, state: PanelState): OptionCase["marked"] {
  const region = markedRegion(state);
  return region.length > 0 ? { share: regionShare(shape.outline, region), elsewhere_m: textureElsewhere(state) } : null;
}

/** What comes off at a place: its own work, and the panel's where that goes over it. */
const offAt = (task: LocalTask, panel: PanelWork | null) => ({
  removal_m: task.removal_m + (panel && inRegion(task.at, panel.region) ? panel.removal_m : 0),
  u_m: task.u_m,
});

/** The plan of each way that has one, judged. */
function judgedPlans(
  brief: PanelBrief,
  state: PanelState,
  choice: ZoneChoice,
  judge: FilmJudge,
  { anyRun, flow }: { anyRun: boolean; flow: FlowCase | null },
): Judged {
  const judged = (kind: RemedyId, runSchool: RunSchool | null = null): JudgedWork | null => {
    const { plan, assess } = planFor(brief, state, { ...choice, ...planOfWay(kind, { runSchool, house: choice.schoolId }) }, judge);
    if (plan.problem) return null;
    const { panel, local } = assess.work;
    const risk = judge.risk(assess.work);
    const places = judge.at(local.map((t) => t.at));
    const ends = [
      ...(panel ? [{ ...judge.thinnest(panel), off: panel }] : []),
      ...places.map((there, i) => ({ ...there, off: offAt(local[i]!, panel) })),
    ].map(({ clear_m, u_m, off }) => ({ removal_m: off.removal_m, left_m: clear_m - off.removal_m, u_left_m: Math.hypot(u_m, off.u_m) }));
    const worst = ends.reduce((a, e) => (e.left_m < a.left_m ? e : a));
    const was = judge.asItIs(assess.work);
    return {
      ...worst,
      cutChance: risk.cutChance,
      thinChance: risk.thinChance,
      was: { cut: was.cutChance, thin: was.thinChance },
      minutes: plan.minutes,
    };
  };
  const marked = markedRegion(state).length > 0;
  const schools = Object.keys(RUN_SCHOOLS) as RunSchool[];
  const each = (kind: RemedyId) =>
    Object.fromEntries(
      schools.flatMap((runSchool) => {
        const work = judged(kind, runSchool);
        return work ? [[runSchool, work]] : [];
      }),
    );
  const flat = flow ?? clearingPlan(FLOW_STEPS, { ...choice.texture, wanted_m: 0 }, choice.shop).total;
  const flatting = judge.risk({ panel: { removal_m: flat.removal_m, u_m: flat.u_m, rim_m: 0 }, local: [], floor_m: choice.floor_m });
  return {
    spot: judged("spot"),
    polish: judged("polish"),
    dropFill: openFills(state).length > 0 ? judged("dropFill") : null,
    part: marked && !anyRun ? judged("part") : null,
    partWithRun: marked && anyRun ? each("part") : {},
    run: anyRun ? each("run") : {},
    full: anyRun ? null : judged("full"),
    fullWithRun: anyRun ? each("full") : {},
    flatting: { ...flatting, removal_m: flat.removal_m, u_removal_m: flat.u_m },
  };
}
