import { requireInteger, requireNumber } from "../../kernel/guard";
import { DEFECT_KINDS, type DefectKind, isFold } from "./kinds";

/**
 * Ways to deal with what is wrong with clear, from leaving it to new base and clear. What each does to the film and costs is worked out where the
 * options are weighed; here stands what each can mend, and when it may be done.
 */
export const REMEDIES = {
  leave: { name: "Leave it", when: "always" },
  /** While it still flows. */
  wet: { name: "Mend it while it is wet", when: "wet" },
  halfCoat: { name: "Half a coat more there", when: "open" },
  /** On the hot part, straight from the bake. */
  dab: { name: "Dab while hot from the bake", when: "hot" },
  wait: { name: "Wait, or bake it again", when: "always" },
  clean: { name: "Clean the neighbours", when: "always" },
  polish: { name: "Polish only", when: "cured" },
  spot: { name: "Sand and polish the places", when: "cured" },
  run: { name: "Take the run down", when: "cured" },
  dropFill: { name: "Fill with a drop of clear, then level", when: "cured" },
  /** Only where it was marked on the panel; runs and nibs at their own places. */
  part: { name: "Level and polish only where it is marked", when: "cured" },
  full: { name: "Level and polish the panel", when: "cured" },
  sandOut: { name: "Sand out to sound clear and re-clear", when: "cured" },
  flow: { name: "Flat and re-clear", when: "cured" },
  rebase: { name: "New base and clear", when: "cured" },
} as const satisfies Record<string, { name: string; when: RemedyWhen }>;
/** How far the clear is, as far as it says what may be done now. */
export type CurePhase = "wet" | "open" | "hot" | "curing" | "cured";
export type RemedyWhen = "always" | "wet" | "open" | "hot" | "cured";
export type RemedyId = keyof typeof REMEDIES;
export const REMEDY_IDS = Object.keys(REMEDIES) as RemedyId[];

export interface Fault {
  kind: DefectKind;
  count: number;
  /** How high it stands or how deep it goes; null: nobody sized it. */
  height_m: number | null;
  area_m2: number | null;
  /** Whether all of it lies where the panel is marked for levelling; left away: no. */
  marked?: boolean;
}

interface FaultKnowledge {
  /** Chance that one of them (of an area, that it) is rejected on a usual finish. */
  seen: number;
  /** At arm's length, and in the sun. */
  arm: string;
  sun: string;
  /** What the film is asked for before anything is chosen. */
  measureFirst: "size" | null;
  /** Share of the chance that each way leaves; a way not named leaves it as it is. New base and clear leaves none of it. */
  leaves: Partial<Record<RemedyId, number>>;
  /** What may go wrong with the usual one. */
  risk: string;
  /** How sure the trade is of these figures: 1 sure, 2 fairly, 3 a guess. */
  confidence: 1 | 2 | 3;
}

/** Shares left by a way: it mends it, mostly, in part, hardly. Defaults of ours. */
const MENDS = 0.05;
const MOSTLY = 0.15;
const PARTLY = 0.4;
const HARDLY = 0.7;

const fold = (seen: number): FaultKnowledge => ({
  seen,
  arm: "seen from the side as a hanging edge",
  sun: "throws a shadow",
  measureFirst: "size",
  leaves: { run: MENDS, full: MENDS, flow: MENDS },
  risk: "The film beside it is burnt while it is levelled",
  confidence: 1,
});

/**
 * What is known of each fault: how it shows, what mends it, what may go wrong. Common practice put into figures by us; nibs, peel and sized runs
 * have their own formulas beside this (docs/models.md, "Options").
 */
export const FAULTS = {
  run: fold(0.75),
  sag: fold(0.6),
  curtain: fold(0.9),
  peel: {
    seen: 0.45,
    arm: "a light tube breaks up in it",
    sun: "hardly, but beside a flat neighbour",
    measureFirst: null,
    leaves: { full: MENDS, flow: MENDS },
    risk: "Edges go through while the middle is levelled",
    confidence: 1,
  },
  peelFine: {
    seen: 0.35,
    arm: "a frosty edge of the light tube",
    sun: "hardly",
    measureFirst: null,
    leaves: { polish: PARTLY, full: MENDS, flow: MENDS },
    risk: "Comes back as solvent leaves, where it is polished too soon",
    confidence: 2,
  },
  drySpray: {
    seen: 0.85,
    arm: "dull and rough",
    sun: "grey",
    measureFirst: null,
    leaves: { halfCoat: MOSTLY, full: MOSTLY, sandOut: 0.1, flow: MENDS, polish: HARDLY },
    risk: "Film is thin there: paper goes through first where it is dry",
    confidence: 1,
  },
  nib: {
    seen: 0.15,
    arm: "a speck that can be felt",
    sun: "a point of light",
    measureFirst: null,
    leaves: { wet: 0.1, spot: MENDS, run: MENDS, full: MENDS, flow: MENDS },
    risk: "A dull spot wider than the nib",
    confidence: 1,
  },
  fibre: {
    seen: 0.2,
    arm: "a hair that can be felt",
    sun: "a line of light",
    measureFirst: null,
    leaves: { wet: 0.1, spot: MENDS, run: MENDS, full: MENDS, flow: MENDS },
    risk: "Its end lifts under the paper and leaves a hole",
    confidence: 1,
  },
  crater: {
    seen: 0.35,
    arm: "a dish with a rim",
    sun: "a point that catches the light",
    measureFirst: null,
    leaves: { wet: PARTLY, dab: MOSTLY, dropFill: MOSTLY, flow: MOSTLY },
    risk: "Silicone crawls again unless the additive is in",
    confidence: 2,
  },
  pop: {
    seen: 0.85,
    arm: "grains with a pinprick on top",
    sun: "glitters",
    measureFirst: null,
    leaves: { full: PARTLY, flow: MOSTLY },
    risk: "Holes open deeper than the sanding goes: solvent is still below",
    confidence: 2,
  },
  pinhole: {
    seen: 0.75,
    arm: "pinpricks over the repair",
    sun: "seen at once",
    measureFirst: null,
    leaves: { flow: HARDLY },
    risk: "The filler below drinks the next clear as well",
    confidence: 1,
  },
  dieBack: {
    seen: 0.6,
    arm: "dull, edges of the repair show",
    sun: "grey",
    measureFirst: null,
    leaves: { polish: 0.2, full: MOSTLY, flow: MOSTLY },
    risk: "It goes on dying back: polished too soon it comes again",
    confidence: 1,
  },
  microFoam: {
    seen: 0.8,
    arm: "milky",
    sun: "a veil through the depth",
    measureFirst: null,
    leaves: { full: HARDLY, flow: PARTLY },
    risk: "It lies through the whole film: sanding opens the next bubbles",
    confidence: 2,
  },
  blush: {
    seen: 0.8,
    arm: "a white veil",
    sun: "white",
    measureFirst: null,
    leaves: { polish: PARTLY, full: 0.25, flow: MOSTLY },
    risk: "Water is below the surface: the bond may be poor",
    confidence: 2,
  },
  mottle: {
    seen: 0.85,
    arm: "bands along the passes",
    sun: "seen from far away",
    measureFirst: null,
    leaves: { flow: 0.1 },
    risk: "The same hand lays the same bands again",
    confidence: 1,
  },
  glossPatch: {
    seen: 0.8,
    arm: "a place that shines",
    sun: "seen from far away",
    measureFirst: null,
    leaves: { flow: 0.1 },
    risk: "A thick or wet place shines again",
    confidence: 1,
  },
  dryTexture: {
    seen: 0.6,
    arm: "heavy peel under a wet look",
    sun: "restless",
    measureFirst: null,
    leaves: { full: MENDS, flow: MENDS },
    risk: "Levelling it takes more clear than a usual peel",
    confidence: 1,
  },
  scratches: {
    seen: 0.8,
    arm: "fine lines under the clear",
    sun: "seen at once",
    measureFirst: null,
    leaves: { full: HARDLY, flow: HARDLY },
    risk: "They go on swelling for weeks: wait until they have",
    confidence: 1,
  },
  edgeLift: {
    seen: 0.85,
    arm: "a line that stands up",
    sun: "throws a shadow",
    measureFirst: null,
    leaves: { sandOut: 0.08, flow: PARTLY },
    risk: "What looks sound beside it lifts next",
    confidence: 1,
  },
  peeling: {
    seen: 0.97,
    arm: "flakes",
    sun: "seen from far away",
    measureFirst: null,
    leaves: { sandOut: 0.08, flow: HARDLY },
    risk: "Not taken back far enough, 125 to 150 mm beyond, it goes on below the new clear",
    confidence: 1,
  },
  haze: {
    seen: 0.5,
    arm: "hardly",
    sun: "a veil that turns with the light",
    measureFirst: null,
    leaves: { polish: MENDS, full: MENDS, flow: MENDS },
    risk: "A pad that stands makes heat: edges burn",
    confidence: 1,
  },
  trails: {
    seen: 0.55,
    arm: "hardly",
    sun: "bands that turn with the light",
    measureFirst: null,
    leaves: { polish: MENDS, full: MENDS, flow: MENDS },
    risk: "The same pad leaves the same trails: a finer one",
    confidence: 1,
  },
  burn: {
    seen: 0.9,
    arm: "dull or yellow on an edge",
    sun: "seen at once",
    measureFirst: null,
    leaves: { flow: PARTLY },
    risk: "Nearly through: the next touch of paper is colour",
    confidence: 1,
  },
  cutThrough: {
    seen: 0.98,
    arm: "a ring of other colour",
    sun: "seen from far away",
    measureFirst: null,
    leaves: { flow: HARDLY },
    risk: "Clear over bare base shows its ring",
    confidence: 1,
  },
  softFilm: {
    seen: 0.9,
    arm: "prints and marks",
    sun: "dull by the evening",
    measureFirst: null,
    leaves: { wait: 0.25, flow: HARDLY },
    risk: "Short or old hardener never gets hard: then it is stripped",
    confidence: 1,
  },
  lostTexture: {
    seen: 0.5,
    arm: "another light tube than beside it",
    sun: "hardly",
    measureFirst: null,
    leaves: { full: PARTLY, flow: PARTLY },
    risk: "Sanded flat it is as wrong as before, the other way round",
    confidence: 2,
  },
  wrinkling: {
    seen: 0.97,
    arm: "like skin",
    sun: "seen from far away",
    measureFirst: null,
    leaves: { sandOut: HARDLY, flow: HARDLY },
    risk: "What lies below lifts again without a barrier",
    confidence: 1,
  },
  halo: {
    seen: 0.85,
    arm: "an edge of colour",
    sun: "seen from one side",
    measureFirst: null,
    leaves: {},
    risk: "Blended no further than before, it moves the edge only",
    confidence: 1,
  },
  notCovered: {
    seen: 0.9,
    arm: "darker at corners and edges",
    sun: "seen at once",
    measureFirst: null,
    leaves: {},
    risk: "The light finds every thin place again",
    confidence: 1,
  },
  colourOff: {
    seen: 0.9,
    arm: "another colour than beside it",
    sun: "seen from far away",
    measureFirst: null,
    leaves: {},
    risk: "Without a card beside the neighbour it is off again",
    confidence: 1,
  },
  solventMark: {
    seen: 0.3,
    arm: "a dull print",
    sun: "a print",
    measureFirst: null,
    leaves: { polish: 0.3, spot: MENDS, run: MENDS, full: MENDS, flow: MENDS },
    risk: "It swelled the film: it may sink again",
    confidence: 2,
  },
  dustInBase: {
    seen: 0.2,
    arm: "a speck below the surface",
    sun: "a point",
    measureFirst: null,
    leaves: {},
    risk: "Sanding for it goes through the clear",
    confidence: 1,
  },
  waterSpots: {
    seen: 0.45,
    arm: "rings",
    sun: "rings",
    measureFirst: null,
    leaves: { polish: MOSTLY, full: MENDS, flow: MENDS },
    risk: "Etched deeper than a polish goes, they want paper",
    confidence: 2,
  },
  overspray: {
    seen: 0.7,
    arm: "rough to the hand",
    sun: "dull",
    measureFirst: null,
    leaves: { clean: MENDS },
    risk: "Trim and glass take scratches more easily than clear",
    confidence: 1,
  },
} as const satisfies Record<DefectKind, FaultKnowledge>;

/** A finish that is looked at more closely, and one on which everything stays: chances of being seen against a usual one. Defaults of ours. */
const CLOSELY = { match: 1, flat: 1.15, asSprayed: 1, matte: 1.1 } as const;
/** A place so large (8 × 8 cm) is seen whole; a smaller one less, never less than this share. */
const WHOLE_M2 = 6.4e-3;
const SMALLEST = 0.4;
/** However small, these go on by themselves. */
const GROWS = new Set<DefectKind>(["peeling", "edgeLift", "wrinkling", "softFilm", "cutThrough"]);

/** Kinds that nibs, peel and sized runs have their own formulas for. */
const OWN_FORMULA = new Set<DefectKind>(["nib", "fibre", "peel"]);
export const hasOwnFormula = ({ kind, height_m }: Pick<Fault, "kind" | "height_m">): boolean =>
  OWN_FORMULA.has(kind) || (isFold(kind) && height_m !== null);

/** Chance that a fault is rejected as it lies there. @throws RangeError */
export function seenChance({ kind, count, area_m2 }: Fault, finish: keyof typeof CLOSELY): number {
  const { seen } = FAULTS[kind];
  const many = requireInteger("count", count, { min: 1, max: 5000 });
  const one = Math.min(0.99, seen * CLOSELY[finish]);
  if (DEFECT_KINDS[kind].reach === "point") return 1 - (1 - one) ** many;
  const share =
    area_m2 === null || GROWS.has(kind)
      ? 1
      : Math.max(SMALLEST, Math.min(1, Math.sqrt(requireNumber("area_m2", area_m2, { min: 0 }) / WHOLE_M2)));
  return one * share;
}

/** Share that new base and clear leaves of what was stripped first. Defaults of ours. */
const REBASE_LEAVES: Partial<Record<DefectKind, number>> = {
  wrinkling: 0.12,
  peeling: 0.08,
  edgeLift: 0.08,
  pinhole: 0.08,
  microFoam: 0.05,
  softFilm: 0.05,
};

/** Share of that chance which a way leaves: all of it where the way does nothing for it. A part of the panel is levelled as the whole of it is. */
export function leftShare(kind: DefectKind, way: RemedyId): number {
  // What has to be stripped may not have been taken back far enough, or lifts again.
  if (way === "rebase") return kind === "overspray" ? 1 : (REBASE_LEAVES[kind] ?? 0);
  if (way === "part") return leftShare(kind, "full");
  const leaves: Partial<Record<RemedyId, number>> = FAULTS[kind].leaves;
  return leaves[way] ?? 1;
}

/** The same of a fault as it lies on the panel: what is levelled only where it is marked leaves what lies elsewhere. */
export const leftOf = ({ kind, marked = false }: Pick<Fault, "kind" | "marked">, way: RemedyId): number =>
  way === "part" && !marked ? 1 : leftShare(kind, way);

/** Faults that nothing is chosen for before they are sized. */
export const measureFirst = (faults: readonly Fault[]): Fault[] =>
  faults.filter((f) => FAULTS[f.kind].measureFirst === "size" && f.height_m === null);

/** The ways that do something for a fault, what mends it best first. */
export const waysFor = (kind: DefectKind): RemedyId[] =>
  REMEDY_IDS.filter((w) => w !== "leave" && leftShare(kind, w) < 1).sort((a, b) => leftShare(kind, a) - leftShare(kind, b));
