import type { KnownUnder } from "../models/film/stack-prior";
import { type MendRun, mendRuns } from "../models/prep/mend-cards";
import { layersLaid } from "../models/prep/layers";
import { type UnderLayer, inLayerOrder, underLayers } from "../models/prep/under-clear";
import { isColoured } from "../models/product/kinds";
import type { ProductSheet } from "../models/product/sheet";
import type { Removal } from "../models/correction/removal-plan";
import type { MarkConditions } from "../models/correction/removal-on-marks";
import { type EntryOf, type LedgerEntry, ofKind, ownEntries } from "../record/entry";
import { type Side, isFold } from "../record/kinds";
import { livingEntries } from "../record/timeline";
import { type Build, type CoatState, type LocalWorkDone, buildsOf, changesOf, takenOnMean, localWorkDone, sumCoats } from "./builds";
import { MODEL_FILM, type ShopFilm, overPanel } from "./shop-film";
import type { PanelBrief } from "./brief";
import { UNLOGGED_AIR_K } from "../models/trade-limits";
import { predictCoat } from "./predict-coat";
import { type LayerState, type SprayLog, layerFilms, layersOf } from "./layers";
import { type PotState, isOf, potsOf, sprayedVolume } from "./pots";
import { type FilmRecord, filmRecord } from "./film-record";
import { type StripClear, stripClear } from "./strip";
import { thinsPanel } from "./thins-panel";
import { allDoneSteps, leaningOn, planOnMarks, readMarks } from "./read-marks";

/** What a panel's ledger says, by concern; what its film is judged to be is not here but in `judge/account`. */
export interface PanelFacts extends FilmRecord {
  climate: EntryOf<"climate"> | null;
  /** Coats of the face that is read and judged, and of the other one. */
  coats: CoatState[];
  backCoats: CoatState[];
  /** Predicted clear of all coats with its standard uncertainty; null with no coat. */
  predictedClear: { clear_m: number; u_m: number } | null;
  /** The coats between two surfaces, oldest first. */
  builds: Build[];
  /** Clear that should be there now: all coats less what was taken off; null with no coat. */
  expectedClear: { clear_m: number; u_m: number } | null;
  /** Work at single places, in its order. */
  localWork: LocalWorkDone[];
  defects: readonly EntryOf<"defect">[];
  /** Answers and final words on the causes of defects, oldest first. */
  causes: readonly EntryOf<"cause">[];
  /** Colour on the cloth, since the plan in force. */
  through: EntryOf<"throughClear"> | null;
  /** The plan in force, its steps as the marks read since have told them. */
  plan: EntryOf<"plan"> | null;
  /** What marks read on this panel tell of any work on it, and of the plan in force beyond what it knew. */
  told: MarkConditions;
  toldSince: MarkConditions;
  /** What plans took off the panel since it was last read: its doubt and that of the steps to come have parts in common. */
  doneSince: Removal;
  stepsDone: readonly EntryOf<"step">[];
  extraPasses: readonly EntryOf<"step">[];
  gaugeChecks: readonly EntryOf<"gaugeCheck">[];
  spotPlan: EntryOf<"spotPlan"> | null;
  handedOver: EntryOf<"handOver"> | null;
  outcome: EntryOf<"outcome"> | null;
  /** Marked faults whose hold is over, as told. */
  seenTo: readonly EntryOf<"seenTo">[];
  /** Looked over with nothing found, newest. */
  lookedOver: EntryOf<"lookedOver"> | null;
  /** The panel beside, newest last, and colour and coverage by eye. */
  neighbours: readonly EntryOf<"neighbour">[];
  eye: EntryOf<"eye"> | null;
  /** The newest pictures of a light tube in this panel and in the one beside. */
  reflection: EntryOf<"reflection"> | null;
  mix: EntryOf<"mix"> | null;
  /** Pots of the panel's own clear, oldest first. */
  pots: PotState[];
  /** Clear by a metal strip beside a part on which no gauge reads. */
  strip: StripClear | null;
  strips: readonly EntryOf<"strip">[];
  /** Gloss mix that was chosen. */
  matteMix: EntryOf<"matteMix"> | null;
  /** Gun and settings taken up after the last coat, on this panel or another of the job. */
  gunSet: EntryOf<"gunSet"> | null;
  /** The newest coat of the same product on another panel of the job: its gun is still in the hand. */
  coatElsewhere: EntryOf<"coat"> | null;
  /** What was done below the clear, oldest first, and the layers it added. */
  under: readonly EntryOf<"under">[];
  knownUnder: KnownUnder;
  /** Its topcoat carries the colour itself. */
  coloured: boolean;
  /** And flakes that sanding moves. */
  flakes: boolean;
  addedUnder: UnderLayer[];
  /** Coats below the clear that were logged one at a time, oldest first, and the layers they build with what is planned of them, from below up. */
  colourCoats: readonly EntryOf<"colourCoat">[];
  layerPlan: EntryOf<"layerPlan"> | null;
  below: readonly LayerState[];
  /** Mends on the way, the one begun last first. */
  mends: MendRun[];
  preflight: EntryOf<"preflight"> | null;
  climates: readonly EntryOf<"climate">[];
  texture: readonly EntryOf<"texture">[];
  /** The probe's newest log, its samples by their times. */
  oven: EntryOf<"oven"> | null;
  /** A coat started in the booth view and not stopped yet. */
  spraying: EntryOf<"coatStart"> | null;
  /** How the part lies since it was last turned; null: as it is planned. */
  turned: EntryOf<"turn"> | null;
  /** Heat that is on, and bakes that were told, since the newest coat. */
  baking: EntryOf<"bakeStart"> | null;
  bakes: readonly EntryOf<"bake">[];
  /** A step's card started and not done yet. */
  working: EntryOf<"stepStart"> | null;
  gloss: readonly EntryOf<"gloss">[];
  matteCheck: EntryOf<"matteCheck"> | null;
  simulated: boolean;
}

/** A probe's log by the times of its samples, whatever order they came in; of two for one moment the later one counts. One moment is no log. */
function inTimeOrder(oven: EntryOf<"oven"> | undefined): EntryOf<"oven"> | null {
  if (!oven) return null;
  const samples = [...new Map(oven.body.samples.map((s) => [s.at_s, s])).values()].sort((a, b) => a.at_s - b.at_s);
  return samples.length < 2 ? null : { ...oven, body: { ...oven.body, samples } };
}

/**
 * What a panel's ledger says: coats with their predicted film, builds, readings with the surface they were taken on, work, defects.
 * @param shop what this shop lays against the model, once learnt
 * @param brief the panel as planned @param sheet the product's figures @param ledger all entries
 */
export function derivePanel(
  brief: PanelBrief,
  sheet: ProductSheet,
  ledger: readonly LedgerEntry[],
  shop: ShopFilm = MODEL_FILM,
): PanelFacts {
  const all = livingEntries(ledger);
  const entries = ownEntries(all);
  const everyMix = ofKind(all, "mix");
  const mixes = everyMix.filter((m) => isOf(m, sheet));
  const sprayLog = sprayLogOf(ofKind(all, "climate"));
  const { front: coats, back: backCoats } = coatsOf(entries, { ...sprayLog, mixes, sheet, shop });
  const handedOver = ofKind(entries, "handOver").at(-1) ?? null;
  const climates = climatesOf(ofKind(all, "climate"), { coats, handedOver }, brief);
  const stepsDone = ofKind(entries, "step");
  const thinning = [...stepsDone.filter(thinsPanel), ...ofKind(entries, "flatten")].sort((a, b) => a.seq - b.seq);
  const takenBy = takenOnMean(entries);
  const builds = buildsOf(coats, thinning, shop, takenBy);
  const gaugeChecks = ofKind(entries, "gaugeCheck");
  const { changes, plan, marks, leaning, ticked, ofPlan } = plannedWork({ entries, stepsDone, builds, brief });
  const { under, addedUnder, colourCoats, layerPlan, below } = belowClear({ entries, sprayLog, everyMix, mixes, all });
  const whole = coats.filter(overPanel).map((c) => c.predicted);
  const predictedClear = whole.length > 0 ? sumCoats(whole, shop) : null;
  const record = filmRecord(ofKind(entries, "reading"), gaugeChecks, { builds, changes });
  const strips = ofKind(entries, "strip");
  return {
    ...record,
    strips,
    strip: stripClear(strips, { changes, repeatability_m: record.repeatability_m }),
    climate: climates.at(-1) ?? null,
    coats,
    backCoats,
    predictedClear,
    builds,
    expectedClear: predictedClear && {
      clear_m: predictedClear.clear_m - thinning.reduce((a, s) => a + takenBy(s), 0),
      u_m: Math.hypot(predictedClear.u_m, ...thinning.map((s) => s.body.u_m)),
    },
    localWork: localWorkDone(entries),
    ...notedOn(entries),
    plan,
    ...marks,
    doneSince: leaning.open,
    stepsDone: ticked,
    extraPasses: ofPlan.filter((s) => s.body.extra),
    gaugeChecks,
    handedOver,
    mix: mixes.at(-1) ?? null,
    pots: potsOf(mixes, ofKind(all, "coat"), {
      others: everyMix.filter((m) => !mixes.includes(m)),
      volumeOf: (c) => c.body.volume_m3 ?? (c.elsewhere ? null : sprayedVolume(brief, LET_GO, c.body)),
    }),
    matteMix: ofKind(all, "matteMix").at(-1) ?? null,
    gunSet: newerThan(ofKind(all, "gunSet").at(-1), coats.at(-1)?.entry),
    coatElsewhere: ofKind(all, "coat").findLast((c) => c.elsewhere) ?? null,
    under,
    knownUnder: knownFrom(addedUnder, sheet),
    coloured: isColoured(sheet),
    flakes: isColoured(sheet) && sheet.settles_s !== null,
    addedUnder,
    colourCoats,
    layerPlan,
    below,
    mends: mendRuns(ofKind(entries, "mendStep").map((m) => ({ ...m.body, at_ms: m.at_ms }))),
    climates,
    texture: ofKind(entries, "texture"),
    oven: inTimeOrder(ofKind(entries, "oven").at(-1)),
    working: runningStep(ofKind(entries, "stepStart").at(-1), plan, ticked),
    spraying: runningCoat(ofKind(entries, "coatStart").at(-1), [...coats, ...backCoats]),
    turned: ofKind(entries, "turn").at(-1) ?? null,
    ...heatOf(entries),
    gloss: ofKind(entries, "gloss"),
    matteCheck: ofKind(entries, "matteCheck").at(-1) ?? null,
    simulated: [...entries, ...climates.slice(-1)].some((e) => e.simulated),
  };
}

/** The plan in force, as the marks have it, and what of it is done. */
function plannedWork({
  entries,
  stepsDone,
  builds,
  brief,
}: {
  entries: readonly LedgerEntry[];
  stepsDone: readonly EntryOf<"step">[];
  builds: Build[];
  brief: PanelBrief;
}) {
  const { sinceOf, ...marks } = readMarks(entries);
  const inForce = ofKind(entries, "plan").at(-1);
  const ofPlan = stepsDone.filter((s) => s.body.planId === inForce?.id);
  const ticked = ofPlan.filter((s) => !s.body.extra);
  const leaning = leaningOn(entries, allDoneSteps(entries, sinceOf));
  const changes = changesOf(entries, { builds, outline: brief.shape.outline, bodyLines: brief.shape.bodyLines, u_m: leaning.u_m });
  const plan = inForce ? planOnMarks(inForce, marks.toldSince, ticked.length) : null;
  return { changes, plan, marks, leaning, ticked, ofPlan };
}

/** What was done and laid below the clear. */
function belowClear({
  entries,
  sprayLog,
  everyMix,
  mixes,
  all,
}: {
  entries: readonly LedgerEntry[];
  sprayLog: SprayLog;
  everyMix: readonly EntryOf<"mix">[];
  mixes: EntryOf<"mix">[];
  all: readonly LedgerEntry[];
}) {
  const under = ofKind(entries, "under");
  const colourCoats = ofKind(entries, "colourCoat");
  const layerPlan = ofKind(entries, "layerPlan").at(-1) ?? null;
  const below = layersOf(layerPlan, colourCoats, {
    ...sprayLog,
    mixes: everyMix.filter((m) => !mixes.includes(m)),
    elsewhere: ofKind(all, "colourCoat").filter((c) => c.elsewhere),
  });
  const told = underLayers(under.map((u) => u.body));
  // What was told of a layer in all goes before what its coats usually come to.
  const addedUnder = inLayerOrder([...told, ...layersLaid(layerFilms(below)).filter((l) => !told.some((t) => t.step === l.step))]);
  return { under, addedUnder, colourCoats, layerPlan, below };
}

/** How a trigger is held where nobody says: let go at each end. */
const LET_GO = { trigger: "released" } as const;

/** A climate logged on another panel holds for a coat so long after: a day's work in the same booth. Common practice. */
const SAME_DAY_MS = 12 * 3600e3;

/** Under what each coat was sprayed: the climate in force then (the first logged here, where that came later), the hardener of the pot it came out of. */
function sprayLogOf(climates: readonly EntryOf<"climate">[]): SprayLog {
  return {
    sprayedIn: (logged, { sheet, mixes }) => {
      const held = (c: EntryOf<"climate">) => c.seq < logged.seq && (!c.elsewhere || logged.at_ms - c.at_ms <= SAME_DAY_MS);
      const climate = climates.findLast(held) ?? climates.find((c) => !c.elsewhere);
      const pot = mixes.find((m) => m.id === logged.body.potId) ?? mixes.findLast((m) => m.seq < logged.seq);
      return {
        air_K: climate?.body.air_K ?? UNLOGGED_AIR_K,
        material_K: climate?.body.material_K ?? null,
        speed: pot?.body.speed ?? sheet.speed,
      };
    },
  };
}

/** Coats as logged, with the comb read in each, out of the pot that was mixed, in the climate that was in force when it was sprayed. */
function coatsOf(
  entries: readonly LedgerEntry[],
  { sprayedIn, mixes, sheet, shop }: SprayLog & { mixes: readonly EntryOf<"mix">[]; sheet: ProductSheet; shop: ShopFilm },
): { front: CoatState[]; back: CoatState[] } {
  const combs = ofKind(entries, "wetComb");
  const coats = ofKind(entries, "coat");
  const placed = { front: 0, back: 0 };
  const all = coats.map((logged, i): CoatState => {
    const loggedAs = logged.body.number;
    const next = coats.slice(i + 1).find((c) => c.body.number === loggedAs);
    const comb = combs.findLast((c) => c.body.number === loggedAs && c.seq > logged.seq && !(next && c.seq > next.seq));
    const entry = {
      ...logged,
      body: { ...logged.body, number: ++placed[logged.body.side], ...(comb ? { wetReading_m: comb.body.thickness_m } : {}) },
    };
    const sprayed = sprayedIn(logged, { sheet, mixes });
    return { entry, loggedAs, sprayed, predicted: predictCoat(entry.body, sheet, sprayed, shop) };
  });
  const of = (side: Side) => all.filter((c) => c.entry.body.side === side);
  return { front: of("front"), back: of("back") };
}

/** Climates that say something of this panel: what is logged on another one when its coats are all on, or it has gone out, is no longer its own. */
function climatesOf(
  climates: readonly EntryOf<"climate">[],
  { coats, handedOver }: Pick<PanelFacts, "coats" | "handedOver">,
  brief: PanelBrief,
): EntryOf<"climate">[] {
  const closed = coats.length >= brief.coatsPlanned ? coats.at(-1)?.entry.seq : handedOver?.seq;
  return climates.filter((c) => !c.elsewhere || closed === undefined || c.seq < closed);
}

/** The entry, unless a coat has been logged since: then that coat's own settings hold. */
function newerThan(entry: EntryOf<"gunSet"> | undefined, coat: EntryOf<"coat"> | undefined): EntryOf<"gunSet"> | null {
  return entry && (!coat || entry.seq > coat.seq) ? entry : null;
}

/** What was seen and noted on a panel. */
const notedOn = (entries: readonly LedgerEntry[]) => ({
  defects: ofKind(entries, "defect"),
  causes: ofKind(entries, "cause"),
  through: ofKind(entries, "throughClear").at(-1) ?? null,
  spotPlan: ofKind(entries, "spotPlan").at(-1) ?? null,
  outcome: ofKind(entries, "outcome").at(-1) ?? null,
  seenTo: ofKind(entries, "seenTo"),
  lookedOver: ofKind(entries, "lookedOver").at(-1) ?? null,
  neighbours: ofKind(entries, "neighbour"),
  eye: ofKind(entries, "eye").at(-1) ?? null,
  reflection: ofKind(entries, "reflection").at(-1) ?? null,
  preflight: ofKind(entries, "preflight").at(-1) ?? null,
});

/** Logged layers as the prior of the stack takes them; below a single stage lies no base but a logged one. */
function knownFrom(layers: readonly UnderLayer[], sheet: ProductSheet): KnownUnder {
  const base = layers.find((l) => l.step === "base") ?? (isColoured(sheet) ? { film_m: 0, u_m: 0 } : undefined);
  const added = layers.filter((l) => l.step !== "base").map((l) => [l.film_m, l.u_m] as const);
  return { ...(base ? { base: [base.film_m, base.u_m] as const } : {}), ...(added.length ? { added } : {}) };
}

/** Heat since the newest coat of either face. */
function heatOf(entries: readonly LedgerEntry[]): Pick<PanelFacts, "baking" | "bakes"> {
  const since = ofKind(entries, "coat").at(-1)?.seq ?? 0;
  const bakes = ofKind(entries, "bake").filter((b) => b.seq > since);
  const start = ofKind(entries, "bakeStart").at(-1);
  return { baking: start && start.seq > Math.max(since, bakes.at(-1)?.seq ?? 0) ? start : null, bakes };
}

/** The started coat, unless one has been logged since. */
function runningCoat(start: EntryOf<"coatStart"> | undefined, coats: readonly CoatState[]): EntryOf<"coatStart"> | null {
  return start && !coats.some((c) => c.entry.seq > start.seq) ? start : null;
}

/** The started step of the plan in force, unless it is done. */
function runningStep(
  start: EntryOf<"stepStart"> | undefined,
  plan: EntryOf<"plan"> | null,
  steps: readonly EntryOf<"step">[],
): EntryOf<"stepStart"> | null {
  const done = (s: EntryOf<"stepStart">) => steps.some((d) => !d.body.extra && d.body.planId === plan?.id && d.body.index >= s.body.index);
  return start && start.body.planId === plan?.id && !done(start) ? start : null;
}

/** What stands higher was measured in another unit, or is no run of clear: it is sized anew. Default of ours. */
export const MOST_RUN_HEIGHT_M = 1e-3;

/** Runs on the panel as the correction needs them; a run without its size is left to be measured. */
export function measuredRuns(
  state: Pick<PanelFacts, "defects">,
): { entry: EntryOf<"defect">; height_m: number; width_m: number; length_m: number }[] {
  return state.defects.flatMap((entry) => {
    const { kind, height_m, width_m, length_m } = entry.body;
    return isFold(kind) && height_m && height_m <= MOST_RUN_HEIGHT_M && width_m && length_m ? [{ entry, height_m, width_m, length_m }] : [];
  });
}
