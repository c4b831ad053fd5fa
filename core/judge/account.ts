import { inRange } from "../kernel/guard";
import { sameList } from "../kernel/same-list";
import { type PanelBrief, noGaugeReads } from "../panel/brief";
import { STACKS } from "../models/film/stack-prior";
import type { UnderLayer } from "../models/prep/under-clear";
import { isColoured } from "../models/product/kinds";
import type { ProductSheet } from "../models/product/sheet";
import type { Build } from "../panel/builds";
import { type ShopFilm, overPanel } from "../panel/shop-film";
import { thinsPanel } from "../panel/thins-panel";
import { type PanelFacts, derivePanel } from "../panel/derive-panel";
import type { ReadSpot } from "../panel/film-record";
import type { InTheWay } from "../panel/in-the-way";
import { type LedgerEntry, ownEntries } from "../record/entry";
import { livingEntries } from "../record/timeline";
import { type DoubtfulFilm, doubtfulFilm } from "./doubtful";
import { type HoldingFault, faultsHolding, softFilm, workedAhead } from "../panel/fault-holds";
import { filmFacts, foretoldClear } from "./film-question";
import type { StackHypothesis } from "./film-facts";
import { type HowKnown, SURENESS, clearNow } from "./how-known";
import { type ClearThere, FilmJudge, type Thinnest } from "./film-judge";

export interface Spot extends ReadSpot {
  /** Clear there now as the judge has it; null where no reading over clear is at hand. */
  clear: (ClearThere & { how: HowKnown }) | null;
}

export interface Layer {
  key: string;
  name: string;
  thickness_m: number;
  u_m: number | null;
  tone: "steel" | "ecoat" | "primer" | "base" | "under" | "clear";
  how: HowKnown | "predicted" | "told";
}

/** Clear of a panel as every page shows it. */
export interface FilmAccount {
  /** Mean over the panel and the thinnest place outside the usual rim; null before any spot is read over clear. */
  mean: ClearThere | null;
  thinnest: Thinnest | null;
  inferred: boolean;
  how: HowKnown | null;
  /** Mean clear of the newest build as it was before any of it was taken off; null while nothing was read again since. */
  beforeWork: ClearThere | null;
  /** Spots that tell it. */
  spots: number;
  /** Histories with their fitted beliefs: a judge of the same facts needs no second fit. */
  hypotheses: readonly StackHypothesis[];
}

export interface PanelState extends Omit<PanelFacts, "spots"> {
  spots: Spot[];
  /** Entries left out of all of this: the models cannot work with them beside the others. None for every usual ledger. */
  inTheWay: readonly InTheWay[];
  /** Readings that cannot be right together, and clear that comes out as less than none: asked about on every page, and nothing on it is called safe. */
  doubtful: readonly DoubtfulFilm[];
  /** Spots that a stand-in filled in, where others were read: what is made of both is not the real part's. Null where there is no such mix. */
  mixed: { simulated: number; of: number } | null;
  film: FilmAccount;
  /** Marked faults that hold the steps of the plan in force that are still to come. */
  heldAhead: readonly HoldingFault[];
  /** The film is marked as soft: it is hard at no hour that its age tells. */
  soft: HoldingFault | null;
  layers: Layer[];
}

/**
 * Everything shown of a panel: its facts, and its clear by the judge at every spot, on the mean, at its thinnest, and layer by layer.
 * @param shop what this shop lays against the model, once learnt
 */
export function accountPanel(brief: PanelBrief, sheet: ProductSheet, ledger: readonly LedgerEntry[], shop?: ShopFilm): PanelState {
  const all = livingEntries(ledger);
  const entries = ownEntries(all);
  const facts = derivePanel(brief, sheet, all, shop);
  const judge = firstJudge(brief, facts);
  const there = judge?.at(facts.spots.map((s) => s.at)) ?? [];
  const spots = facts.spots.map((s, i): Spot => ({ ...s, clear: judge && s.latest ? { ...there[i]!, how: howKnown(s, facts) } : null }));
  /** The clear of the ledger up to an entry: by the same judge, and by the coats alone. */
  const clearAt = (seq: number) =>
    clearOf(
      brief,
      sheet,
      all.filter((e) => e.seq < seq),
      shop,
    );
  const began = firstWork(facts, entries);
  const told = spots.flatMap((s) => (s.clear ? [s.clear.how] : []));
  const film: FilmAccount = {
    mean: judge?.mean() ?? null,
    thinnest: judge?.thinnest() ?? null,
    inferred: judge?.inferred ?? false,
    how: foretoldClear(brief, facts)?.how ?? leastSure(told),
    spots: told.length,
    beforeWork: began === null ? null : clearAt(began).mean,
    hypotheses: judge?.hypotheses ?? [],
  };
  // What was left of each build when the next went on it.
  const surfaces = facts.builds.slice(1).map((b) => {
    const { mean, expected } = clearAt(b.from_seq);
    return (mean ?? expected)?.clear_m ?? 0;
  });
  return {
    ...facts,
    spots,
    inTheWay: [],
    doubtful: doubtfulFilm(spots, film.thinnest),
    mixed: mixedOf(spots),
    film,
    heldAhead: heldAhead(facts),
    soft: softFilm(facts),
    layers: [...underClear({ brief, sheet }, facts), ...clearLayers(facts, film, surfaces)],
  };
}

/** Typed and simulated readings beside each other, at two spots or at one. */
function mixedOf(spots: readonly ReadSpot[]): PanelState["mixed"] {
  const filmsOf = ({ films, latest }: ReadSpot) => [films.before, latest?.film].flatMap((f) => f ?? []);
  const simulated = spots.filter((s) => filmsOf(s).some((f) => f.simulated)).length;
  const typed = spots.some((s) => filmsOf(s).some((f) => !f.allSimulated));
  return simulated > 0 && typed ? { simulated, of: spots.length } : null;
}

function heldAhead(facts: PanelFacts): HoldingFault[] {
  const ahead = workedAhead(facts);
  return ahead ? faultsHolding(facts, "paper", ahead) : [];
}

interface ClearThen {
  mean: ClearThere | null;
  expected: PanelFacts["expectedClear"];
}
/** What a ledger once said of the clear does not change with what is written after it: kept by its last entry. */
const clearThen = new WeakMap<LedgerEntry, { of: readonly unknown[]; clear: ClearThen }>();
function clearOf(brief: PanelBrief, sheet: ProductSheet, entries: readonly LedgerEntry[], shop?: ShopFilm): ClearThen {
  const of = [JSON.stringify([brief, sheet, shop]), ...entries];
  const last = entries.at(-1);
  const known = last && clearThen.get(last);
  if (known && sameList(known.of, of)) return known.clear;
  // What can be worked out now may not have been then: nothing is told of it.
  const clear = inRange((): ClearThen => {
    const facts = derivePanel(brief, sheet, entries, shop);
    return { mean: firstJudge(brief, facts)?.mean() ?? null, expected: facts.expectedClear };
  }) ?? { mean: null, expected: null };
  if (last) clearThen.set(last, { of, clear });
  return clear;
}

/** The judge of facts that nobody has judged yet; null where nothing is read over clear. */
const firstJudge = (brief: PanelBrief, facts: PanelFacts): FilmJudge | null => {
  const film = filmFacts(brief, facts);
  return film.observations.some((o) => o.layer === "after") ? new FilmJudge(film) : null;
};

/** Where the work on the newest build began, once it was read again since: at its first thinning, or at that reading where none was logged. */
function firstWork({ builds, spots }: Pick<PanelFacts, "builds" | "spots">, entries: readonly LedgerEntry[]): number | null {
  const again = spots.flatMap((s) => (s.films.after && s.films.recheck ? [s.films.recheck.last_seq] : []));
  if (again.length === 0) return null;
  const from = builds.at(-1)?.from_seq ?? -Infinity;
  return Math.min(...again, ...entries.flatMap((e) => (e.kind === "step" && thinsPanel(e) && e.seq > from ? [e.seq] : [])));
}

function howKnown({ films, latest }: ReadSpot, { hasBefore }: Pick<PanelFacts, "hasBefore">): HowKnown {
  if (!hasBefore) return "inferred";
  if (!films.before) return "by its neighbours";
  if (latest!.since.laid_m > 0) return "measured with coats since";
  return latest!.since.taken_m > 0 ? "measured less removal" : "measured";
}

/** One word for several spots: the least sure way in which any of them that was read itself was found. */
function leastSure(ways: readonly HowKnown[]): HowKnown | null {
  const own = ways.filter((w) => w !== "by its neighbours");
  return (own.length > 0 ? own : ways).reduce<HowKnown | null>(
    (a, w) => (a === null || SURENESS.indexOf(w) > SURENESS.indexOf(a) ? w : a),
    null,
  );
}

const meanOf = (xs: readonly number[]) => xs.reduce((a, b) => a + b, 0) / xs.length;

/** Layers from the metal up to the base. The undivided ones are split in the usual proportions and then called inferred. */
function underClear(
  { brief, sheet }: { brief: PanelBrief; sheet: ProductSheet },
  { spots, addedUnder }: Pick<PanelFacts, "spots" | "addedUnder">,
): Layer[] {
  const before = spots.flatMap((s) => (s.films.before ? [s.films.before.film.mean_m] : []));
  const stack = STACKS[brief.substrate === "factory" ? "factory" : "refinish"];
  const logged = (step: UnderLayer["step"]) => addedUnder.find((l) => l.step === step);
  const base = logged("base");
  const noBase = base !== undefined || isColoured(sheet);
  const told_m = addedUnder.reduce((a, l) => a + l.film_m, 0);
  const usual_m = stack.ecoat[0] + stack.primer[0] + (noBase ? 0 : stack.base[0]);
  // What was read below the clear, less the layers that the job has logged, is shared among the older ones in the usual proportions.
  const under_m = before.length ? Math.max(0, meanOf(before) - told_m) : usual_m;
  const part = (key: "ecoat" | "primer" | "base", name: string): Layer => ({
    key,
    name,
    thickness_m: (stack[key][0] * under_m) / usual_m,
    u_m: null,
    tone: key,
    how: "inferred",
  });
  const loggedLayer = (step: UnderLayer["step"], name: string, tone: Layer["tone"]): Layer[] => {
    const l = logged(step);
    return l ? [{ key: step, name, thickness_m: l.film_m, u_m: l.u_m, tone, how: l.how === "told" ? "told" : "inferred" }] : [];
  };
  return [
    ...(noGaugeReads(brief.substrate) ? [] : [part("ecoat", "e-coat")]),
    part("primer", "primer"),
    ...loggedLayer("barrier", "barrier", "primer"),
    ...loggedLayer("seal", "sealer", "primer"),
    ...loggedLayer("ground", "ground", "base"),
    ...(noBase ? loggedLayer("base", "base", "base") : [part("base", "base")]),
  ];
}

/** The clear build by build, coat by coat. Film goes from the top: what is there is dealt out from below, and together it is the mean. */
function clearLayers(
  { builds, expectedClear }: Pick<PanelFacts, "builds" | "expectedClear">,
  film: FilmAccount,
  surfaces: readonly number[],
): Layer[] {
  const total = clearNow({ film, expectedClear });
  if (!total) return [];
  const { how } = total;
  const clear_m = Math.max(0, total.clear_m);
  if (builds.length === 0) return [{ key: "clear", name: "clear", thickness_m: clear_m, u_m: total.u_m, tone: "clear", how }];
  let left = clear_m;
  let below = 0;
  const coats = builds.flatMap((build, i) => {
    const top = i < surfaces.length ? Math.max(below, surfaces[i]!) : Infinity;
    const own = Math.min(left, top - below);
    below = top;
    left -= own;
    return dealOut(build, own);
  });
  return coats.map(({ coat, thickness_m }, i): Layer => ({
    key: `coat-${coat.entry.id}`,
    name: `clear ${coat.entry.body.number}`,
    thickness_m,
    u_m: i === coats.length - 1 ? total.u_m : null,
    tone: "clear",
    how,
  }));
}

/** A build's film among its coats, as they were laid; the newest loses first what was taken off. */
function dealOut({ coats, predicted, taken_m }: Build, there_m: number) {
  const sprayed_m = there_m + Math.max(0, taken_m);
  let left = there_m;
  return coats.filter(overPanel).map((coat) => {
    const thickness_m = Math.max(0, Math.min(left, (coat.predicted.dry_m / predicted.clear_m) * sprayed_m));
    left -= thickness_m;
    return { coat, thickness_m };
  });
}
