import { clearByDifference } from "../film/difference";
import type { FilmObservation } from "../film/film-field";
import { DEFAULT_GAUGE, type SpotFilm, pooledRepeatability, spotFilm } from "../film/gauge";
import { type KnownUnder, STACKS, type StackWeights, clearFromMixture } from "../film/stack-prior";
import { type UnderLayer, underLayers } from "../prep/under-clear";
import type { PanelShape } from "../panel/shapes";
import type { Point } from "../panel/geometry";
import type { ProductSheet } from "../product/sheet";
import { SPRAY } from "../spray/constants";
import { type Deposit, deposit } from "../spray/deposit";
import { type Phase, isFold } from "./kinds";
import { type Sessions, correctedReadings, sessionsOf } from "./gauge-sessions";
import { type BodyOf } from "./bodies";
import { type EntryOf, type LedgerEntry, livingEntries, ofKind } from "./entry";

export const SUBSTRATES = {
  factory: { name: "Factory finish below", weights: { factory: 1, refinish: 0 } },
  refinish: { name: "Refinished before", weights: { factory: 0, refinish: 1 } },
  unknown: { name: "History not known", weights: { factory: 0.8, refinish: 0.2 } },
} as const satisfies Record<string, { name: string; weights: StackWeights }>;
export type Substrate = keyof typeof SUBSTRATES;

/** A panel as planned: what does not change while it is worked on. */
export interface PanelBrief {
  shape: PanelShape;
  substrate: Substrate;
  /** Inclination of the surface: π/2 vertical, 0 horizontal. */
  tilt_rad: number;
  coatsPlanned: number;
}

export interface PhaseFilm {
  film: SpotFilm;
  readings_m: number[];
  entryIds: string[];
  simulated: boolean;
  last_ms: number;
}
export interface Spot {
  name: string;
  at: Point;
  films: Partial<Record<Phase, PhaseFilm>>;
  /** Clear there now; null when it cannot be said. */
  clear: { clear_m: number; u_m: number; how: "measured" | "inferred" | "measured less removal" } | null;
}

export interface CoatState {
  entry: EntryOf<"coat">;
  predicted: Deposit;
}

export interface Layer {
  key: string;
  name: string;
  thickness_m: number;
  u_m: number | null;
  tone: "steel" | "ecoat" | "primer" | "base" | "under" | "clear";
  how: "measured" | "measured less removal" | "inferred" | "predicted" | "told";
}

export interface PanelState {
  climate: EntryOf<"climate"> | null;
  coats: CoatState[];
  /** Predicted clear of all coats with its standard uncertainty; null with no coat. */
  predictedClear: { clear_m: number; u_m: number } | null;
  spots: Spot[];
  defects: EntryOf<"defect">[];
  /** Answers and final words on the causes of defects, oldest first. */
  causes: EntryOf<"cause">[];
  /** Colour on the cloth, since the plan in force. */
  through: EntryOf<"throughClear"> | null;
  plan: EntryOf<"plan"> | null;
  stepsDone: EntryOf<"step">[];
  extraPasses: EntryOf<"step">[];
  /** Removal done since the last reading, as forecast. */
  removedSince: { removal_m: number; u_m: number };
  observations: FilmObservation[];
  hasBefore: boolean;
  /** How the visits before and after clear belong together. */
  sessions: Sessions;
  gaugeChecks: EntryOf<"gaugeCheck">[];
  spotPlan: EntryOf<"spotPlan"> | null;
  layers: Layer[];
  handedOver: EntryOf<"handOver"> | null;
  mix: EntryOf<"mix"> | null;
  /** Gun and settings taken up after the last coat. */
  gunSet: EntryOf<"gunSet"> | null;
  /** What was done below the clear, oldest first, and the layers it added. */
  under: EntryOf<"under">[];
  knownUnder: KnownUnder;
  preflight: EntryOf<"preflight"> | null;
  climates: EntryOf<"climate">[];
  texture: EntryOf<"texture">[];
  oven: EntryOf<"oven"> | null;
  /** A coat started in the booth view and not stopped yet. */
  spraying: EntryOf<"coatStart"> | null;
  /** A step's card started and not done yet. */
  working: EntryOf<"stepStart"> | null;
  gloss: EntryOf<"gloss">[];
  matteCheck: EntryOf<"matteCheck"> | null;
  simulated: boolean;
}

/** A shop's own factor on the film laid down and what is left of its doubt. */
export interface ShopFilm {
  factor: number;
  u_log: number;
}
/** Before anything has been learnt. */
export const MODEL_FILM: ShopFilm = { factor: 1, u_log: SPRAY.shopLogSd };

/** Conditions when no climate was logged: 22 °C, the state at which the model's constants hold. */
export const DEFAULT_AIR_K = 295.15;

/**
 * Everything shown of a panel, derived from its ledger: coats with their predicted film, spots with statistics and clear, what was taken
 * off, the layers of the section.
 * @param shop what this shop lays against the model, once learnt
 * @param brief the panel as planned @param sheet the product's figures @param ledger all entries, oldest first
 */
export function derivePanel(
  brief: PanelBrief,
  sheet: ProductSheet,
  ledger: readonly LedgerEntry[],
  shop: ShopFilm = MODEL_FILM,
): PanelState {
  const entries = livingEntries(ledger);
  const climate = ofKind(entries, "climate").at(-1) ?? null;
  const combs = ofKind(entries, "wetComb");
  const coats = ofKind(entries, "coat").map((logged): CoatState => {
    const comb = combs.findLast((c) => c.body.number === logged.body.number);
    const entry = comb ? { ...logged, body: { ...logged.body, wetReading_m: comb.body.thickness_m } } : logged;
    return { entry, predicted: predictCoat(entry.body, sheet, climate?.body.air_K, shop) };
  });
  const predictedClear = coats.length
    ? sumCoats(
        coats.map((c) => c.predicted),
        shop,
      )
    : null;
  const plan = ofKind(entries, "plan").at(-1) ?? null;
  const stepsDone = ofKind(entries, "step");
  const readings = ofKind(entries, "reading");
  const lastFilm_ms = Math.max(-Infinity, ...readings.filter((r) => r.body.phase !== "before").map((r) => r.recordedAt_ms));
  const thinning = stepsDone.filter(thinsPanel);
  const since = thinning.filter((s) => s.recordedAt_ms > lastFilm_ms);
  const removedSince = {
    removal_m: since.reduce((a, s) => a + s.body.removal_m, 0),
    u_m: Math.hypot(0, ...since.map((s) => s.body.u_m)),
  };
  const gaugeChecks = ofKind(entries, "gaugeCheck");
  const current = latestSession(readings, thinning);
  const sessions = sessionsOf(current, gaugeChecks);
  const films = groupSpots(current, gaugeChecks);
  const hasBefore = films.some((s) => s.films.before);
  const under = ofKind(entries, "under");
  const added = underLayers(under.map((u) => u.body));
  const knownUnder = knownFrom(added);
  const spots = films.map((s): Spot => ({
    ...s,
    clear: clearAt(s.films, { brief, stepsDone: thinning, anyBefore: hasBefore, knownUnder, sessions }),
  }));
  return {
    climate,
    coats,
    predictedClear,
    spots,
    defects: ofKind(entries, "defect"),
    causes: ofKind(entries, "cause"),
    through: ofKind(entries, "throughClear").at(-1) ?? null,
    plan,
    stepsDone: stepsDone.filter((s) => s.body.planId === plan?.id && !s.body.extra),
    extraPasses: stepsDone.filter((s) => s.body.planId === plan?.id && s.body.extra),
    removedSince,
    observations: observationsOf(spots, removedSince.removal_m),
    hasBefore,
    sessions,
    gaugeChecks,
    spotPlan: ofKind(entries, "spotPlan").at(-1) ?? null,
    layers: layersOf(brief, spots, coats, predictedClear, {
      removedSince_m: removedSince.removal_m,
      removedTotal_m: thinning.reduce((a, s) => a + s.body.removal_m, 0),
      added,
    }),
    handedOver: ofKind(entries, "handOver").at(-1) ?? null,
    mix: ofKind(entries, "mix").at(-1) ?? null,
    gunSet: newerThan(ofKind(entries, "gunSet").at(-1), coats.at(-1)?.entry),
    under,
    knownUnder,
    preflight: ofKind(entries, "preflight").at(-1) ?? null,
    climates: ofKind(entries, "climate"),
    texture: ofKind(entries, "texture"),
    oven: ofKind(entries, "oven").at(-1) ?? null,
    working: runningStep(ofKind(entries, "stepStart").at(-1), plan, stepsDone),
    spraying: runningCoat(ofKind(entries, "coatStart").at(-1), coats),
    gloss: ofKind(entries, "gloss"),
    matteCheck: ofKind(entries, "matteCheck").at(-1) ?? null,
    simulated: entries.some((e) => e.simulated),
  };
}

/** Whether a step took film off the panel; work at runs, spots, rim and lines stays where it was done. */
export const thinsPanel = (step: EntryOf<"step">): boolean => step.body.zone === "panel";

/** The entry, unless a coat has been logged since: then that coat's own settings hold. */
function newerThan(entry: EntryOf<"gunSet"> | undefined, coat: EntryOf<"coat"> | undefined): EntryOf<"gunSet"> | null {
  return entry && (!coat || entry.recordedAt_ms > coat.recordedAt_ms) ? entry : null;
}

/** Logged layers as the prior of the stack takes them. */
function knownFrom(layers: readonly UnderLayer[]): KnownUnder {
  const base = layers.find((l) => l.step === "base");
  const added = layers.filter((l) => l.step !== "base").map((l) => [l.film_m, l.u_m] as const);
  return { ...(base ? { base: [base.film_m, base.u_m] as const } : {}), ...(added.length ? { added } : {}) };
}

/** The started coat, unless it has been logged since. */
function runningCoat(start: EntryOf<"coatStart"> | undefined, coats: readonly CoatState[]): EntryOf<"coatStart"> | null {
  return start && !coats.some((c) => c.entry.body.number >= start.body.number) ? start : null;
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

/** Film a logged coat is predicted to have laid. */
export function predictCoat(
  coat: Pick<BodyOf<"coat">, "settings" | "reducer">,
  sheet: ProductSheet,
  air_K: number = DEFAULT_AIR_K,
  shop: ShopFilm = MODEL_FILM,
): Deposit {
  return deposit(coat.settings, {
    air_K,
    speed: sheet.speed,
    volumeSolids: sheet.volumeSolids,
    reducer: coat.reducer,
    shopFactor: shop.factor,
    shopLogSd: shop.u_log,
  });
}

/** Sum of coats: the model's own error is common to all of them, the rest from coat to coat is not. */
export function sumCoats(coats: readonly Deposit[], shop: ShopFilm = MODEL_FILM): { clear_m: number; u_m: number } {
  const clear_m = coats.reduce((a, c) => a + c.dry_m, 0);
  return { clear_m, u_m: Math.hypot(shop.u_log * clear_m, ...coats.map((c) => SPRAY.coatLogSd * c.dry_m)) };
}

/** Readings without the rechecks that later sanding has made old: only those after the last step before the newest recheck count. */
function latestSession(readings: EntryOf<"reading">[], steps: readonly EntryOf<"step">[]): EntryOf<"reading">[] {
  const newest = Math.max(-Infinity, ...readings.filter((r) => r.body.phase === "recheck").map((r) => r.recordedAt_ms));
  const since = Math.max(-Infinity, ...steps.map((s) => s.recordedAt_ms).filter((t) => t <= newest));
  return readings.filter((r) => r.body.phase !== "recheck" || r.recordedAt_ms > since);
}

function groupSpots(readings: readonly EntryOf<"reading">[], checks: readonly EntryOf<"gaugeCheck">[]): Omit<Spot, "clear">[] {
  const spots = new Map<string, { name: string; at: Point; entries: Partial<Record<Phase, EntryOf<"reading">[]>> }>();
  for (const r of readings) {
    const spot = spots.get(r.body.spot) ?? { name: r.body.spot, at: [r.body.at.x_m, r.body.at.y_m] as Point, entries: {} };
    (spot.entries[r.body.phase] ??= []).push(r);
    spots.set(r.body.spot, spot);
  }
  const values = (list: readonly EntryOf<"reading">[]) => list.flatMap((e) => correctedReadings(e, checks));
  const repeatability = pooledRepeatability(
    [...spots.values()].flatMap((s) => Object.values(s.entries).map(values)),
    DEFAULT_GAUGE,
  );
  return [...spots.values()]
    .sort((a, b) => a.name.localeCompare(b.name, "en", { numeric: true }))
    .map(({ name, at, entries }) => ({
      name,
      at,
      films: Object.fromEntries(
        Object.entries(entries).map(([phase, list]): [string, PhaseFilm] => [
          phase,
          {
            film: spotFilm(values(list), { gauge: DEFAULT_GAUGE, repeatability }),
            readings_m: values(list),
            entryIds: list.map((e) => e.id),
            simulated: list.some((e) => e.simulated),
            last_ms: Math.max(...list.map((e) => e.recordedAt_ms)),
          },
        ]),
      ),
    }));
}

interface ClearContext {
  brief: PanelBrief;
  stepsDone: readonly EntryOf<"step">[];
  anyBefore: boolean;
  knownUnder: KnownUnder;
  sessions: Sessions;
}

function clearAt(films: Spot["films"], { brief, stepsDone, anyBefore, knownUnder, sessions }: ClearContext): Spot["clear"] {
  const latest = films.recheck ?? films.after;
  if (!latest) return null;
  const since = stepsDone.filter((s) => s.recordedAt_ms > latest.last_ms);
  const taken = { m: since.reduce((a, s) => a + s.body.removal_m, 0), u: Math.hypot(0, ...since.map((s) => s.body.u_m)) };
  if (films.before) {
    const d = clearByDifference({
      after_m: latest.film.mean_m,
      before_m: films.before.film.mean_m,
      uA_after_m: latest.film.uA_m,
      uA_before_m: films.before.film.uA_m,
      ...sessions,
    });
    return { clear_m: d.clear_m - taken.m, u_m: Math.hypot(d.u_m, taken.u), how: since.length ? "measured less removal" : "measured" };
  }
  if (anyBefore) return null; // neighbours tell its clear: the map's work, not this spot's
  const inferred = clearFromMixture(latest.film.mean_m, latest.film.u_m, SUBSTRATES[brief.substrate].weights, knownUnder);
  return { clear_m: inferred.clear_m - taken.m, u_m: Math.hypot(inferred.u_m, taken.u), how: "inferred" };
}

/** Readings for the film field: the latest of each spot after clear, less what was taken off since, and those before clear. */
function observationsOf(spots: readonly Spot[], removedSince_m: number): FilmObservation[] {
  return spots.flatMap((s) => {
    const latest = s.films.recheck ?? s.films.after;
    const list: FilmObservation[] = [];
    if (s.films.before) list.push({ at: s.at, layer: "before", total_m: s.films.before.film.mean_m, n: s.films.before.film.n });
    if (latest) list.push({ at: s.at, layer: "after", total_m: Math.max(0, latest.film.mean_m - removedSince_m), n: latest.film.n });
    return list;
  });
}

const meanOf = (xs: readonly number[]) => xs.reduce((a, b) => a + b, 0) / xs.length;

/** Layers from the metal up, for the section. The undivided under-layers are split in the usual proportions and then called inferred. */
function layersOf(
  brief: PanelBrief,
  spots: readonly Spot[],
  coats: readonly CoatState[],
  predicted: PanelState["predictedClear"],
  { removedSince_m, removedTotal_m, added }: { removedSince_m: number; removedTotal_m: number; added: readonly UnderLayer[] },
): Layer[] {
  const before = spots.flatMap((s) => (s.films.before ? [s.films.before.film] : []));
  const stack = STACKS[brief.substrate === "factory" ? "factory" : "refinish"];
  const logged = (step: UnderLayer["step"]) => added.find((l) => l.step === step);
  const base = logged("base");
  const told_m = added.reduce((a, l) => a + l.film_m, 0);
  const usual_m = stack.ecoat[0] + stack.primer[0] + (base ? 0 : stack.base[0]);
  // What was read below the clear, less the layers that the job has logged, is shared among the older ones in the usual proportions.
  const under_m = before.length ? Math.max(0, meanOf(before.map((f) => f.mean_m)) - told_m) : usual_m;
  const scale = under_m / usual_m;
  const part = (key: "ecoat" | "primer" | "base", name: string): Layer => ({
    key,
    name,
    thickness_m: stack[key][0] * scale,
    u_m: null,
    tone: key,
    how: "inferred",
  });
  const loggedLayer = (step: UnderLayer["step"], name: string, tone: Layer["tone"]): Layer[] => {
    const l = logged(step);
    return l ? [{ key: step, name, thickness_m: l.film_m, u_m: l.u_m, tone, how: l.how === "told" ? "told" : "inferred" }] : [];
  };
  const layers = [
    part("ecoat", "e-coat"),
    part("primer", "primer"),
    ...loggedLayer("seal", "sealer", "primer"),
    ...loggedLayer("ground", "ground", "base"),
    ...(base ? loggedLayer("base", "base", "base") : [part("base", "base")]),
  ];
  const clears = spots.flatMap((s) => (s.clear ? [s.clear] : []));
  const measured = clears.length ? { clear_m: meanOf(clears.map((c) => c.clear_m)), u_m: meanOf(clears.map((c) => c.u_m)) } : null;
  const total = measured ?? (predicted ? { clear_m: predicted.clear_m - removedSince_m, u_m: predicted.u_m } : null);
  if (!total) return layers;
  const how = howTogether(clears.map((c) => c.how));
  const clear_m = Math.max(0, total.clear_m);
  if (coats.length === 0) return [...layers, { key: "clear", name: "clear", thickness_m: clear_m, u_m: total.u_m, tone: "clear", how }];
  // The newest coat loses what was sanded: shares are laid from below up to the clear that is there.
  const laid_m = coats.reduce((a, c) => a + c.predicted.dry_m, 0);
  const asSprayed_m = measured ? clear_m + removedTotal_m : laid_m;
  let left = clear_m;
  return [
    ...layers,
    ...coats.map((c, i): Layer => {
      const thickness_m = Math.max(0, Math.min(left, (c.predicted.dry_m / laid_m) * asSprayed_m));
      left -= thickness_m;
      return {
        key: `coat-${c.entry.id}`,
        name: `clear ${c.entry.body.number}`,
        thickness_m,
        u_m: i === coats.length - 1 ? total.u_m : null,
        tone: "clear",
        how,
      };
    }),
  ];
}

/** One word for several spots: the least sure way in which any of them was found. */
function howTogether(ways: readonly NonNullable<Spot["clear"]>["how"][]): Layer["how"] {
  if (ways.length === 0) return "predicted";
  if (ways.every((w) => w === "inferred")) return "inferred";
  return ways.includes("measured less removal") ? "measured less removal" : "measured";
}

/** Runs on the panel as the correction needs them; a run without its size is left to be measured. */
export function measuredRuns(state: PanelState): { entry: EntryOf<"defect">; height_m: number; width_m: number; length_m: number }[] {
  return state.defects.flatMap((entry) => {
    const { kind, height_m, width_m, length_m } = entry.body;
    return isFold(kind) && height_m && width_m && length_m ? [{ entry, height_m, width_m, length_m }] : [];
  });
}
