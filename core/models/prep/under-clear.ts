import { requireNumber } from "../../kernel/guard";
import { FILM_BOUNDS } from "../bounds";

/** What lies below the clear sets its ceiling: every step with its reason, and what leaving it out shows as later. Common practice. */
export const UNDER_STEPS = [
  {
    id: "strip",
    name: "Old clear taken back",
    ask: "To sound clear and 125 to 150 mm beyond",
    why: "clear on peeling clear comes off with it",
    asks: ["reach"],
  },
  {
    id: "sand",
    name: "Sanded",
    ask: "To the way's last paper before base; no shiny spot left",
    why: "coarser scratches show through, a shiny spot peels",
    asks: ["grit"],
  },
  {
    id: "clean",
    name: "Cleaned twice",
    ask: "Water-borne, then solvent; one way, clean face, until dry",
    why: "a fingerprint shows as a flake months later",
    asks: [],
  },
  { id: "mask", name: "Masked", ask: "Tape edges soft where clear will be blended", why: "a hard edge lifts and peels", asks: [] },
  {
    id: "barrier",
    name: "Barrier primer on plastic",
    ask: "Washed, scuffed, wiped anti-static; two coats one on the other, or a sealer primer",
    why: "solvent wrinkles plastic, and nothing holds on it bare",
    asks: ["coats", "film"],
  },
  {
    id: "prime",
    name: "Primer",
    ask: "Two or three coats over filler and bare places; finished at the way's last paper",
    why: "what it does not fill shows in the clear",
    asks: ["coats", "film", "pressure"],
  },
  {
    id: "seal",
    name: "Sealer",
    ask: "Reduced 20 to 30 % more to lie flat",
    why: "clear cannot be smoother than what is below it",
    asks: ["film", "pressure"],
  },
  {
    id: "ground",
    name: "Ground coat",
    ask: "Where the base covers badly",
    why: "the light finds every thin place in the base",
    asks: ["film"],
  },
  {
    id: "base",
    name: "Base coats",
    ask: "Even; drop coat for metallics; blend reach",
    why: "its film, age and texture are what the clear sees",
    asks: ["coats", "film", "pressure", "reach"],
  },
  {
    id: "cover",
    name: "Coverage looked at",
    ask: "Under a strong light, from both sides",
    why: "what does not cover now never will",
    asks: [],
  },
  {
    id: "mend",
    name: "Faults in the base mended",
    ask: "P1000 or finer locally, three to four light coats, tack each time",
    why: "dirt under clear costs the clear",
    asks: ["grit"],
  },
  {
    id: "dry",
    name: "Washed and dry",
    ask: "Porous filler: half an hour of bake before masking",
    why: "wash water in the filler lifts or blushes the clear",
    asks: [],
  },
] as const satisfies readonly { id: string; name: string; ask: string; why: string; asks: readonly UnderField[] }[];

export type UnderField = "grit" | "film" | "coats" | "pressure" | "reach";
export type UnderStepId = (typeof UNDER_STEPS)[number]["id"];
export const UNDER_STEP_IDS = UNDER_STEPS.map((s) => s.id) as [UnderStepId, ...UnderStepId[]];

/** Film of a step where nobody measured it, mean and standard deviation: common practice. */
export const USUAL_FILM_M: Partial<Record<UnderStepId, readonly [number, number]>> = {
  barrier: [15e-6, 5e-6],
  prime: [75e-6, 25e-6],
  seal: [22e-6, 6e-6],
  ground: [10e-6, 3e-6],
  base: [15e-6, 4e-6],
};
/** A film told by the one who sprayed it is good to about this share; a default of ours. */
const TOLD_SHARE = 0.2;

export interface UnderLayer {
  step: UnderStepId;
  film_m: number;
  u_m: number;
  /** Typed by the painter, worked out from the settings of its coats, or taken as usual. */
  how: "told" | "forecast" | "usual";
}

/** Films that the log adds, from below up. A step without a typed film takes the usual one. @throws RangeError */
export function underLayers(log: readonly { step: UnderStepId; film_m: number | null }[]): UnderLayer[] {
  return UNDER_STEP_IDS.flatMap((step): UnderLayer[] => {
    const entry = log.findLast((e) => e.step === step);
    const usual = USUAL_FILM_M[step];
    if (!entry || !usual) return [];
    if (entry.film_m === null) return [{ step, film_m: usual[0], u_m: usual[1], how: "usual" }];
    const film_m = requireNumber("film_m", entry.film_m, FILM_BOUNDS.layer_m);
    return [{ step, film_m, u_m: TOLD_SHARE * film_m, how: "told" as const }];
  });
}

/** Layers from below up. */
export const inLayerOrder = (layers: readonly UnderLayer[]): UnderLayer[] =>
  [...layers].sort((a, b) => UNDER_STEP_IDS.indexOf(a.step) - UNDER_STEP_IDS.indexOf(b.step));

/** Base older than this is scuffed before clear: common practice 24 h, the product's own limit before it. */
export const BASE_OPEN_S = 24 * 3600;

/** What decides which steps a part asks for. */
export interface PartBelow {
  /** Of plastic or composite: a barrier. */
  plastic?: boolean;
  /** Its topcoat carries the colour itself: no base. */
  coloured?: boolean;
}
const OF_BASE: readonly UnderStepId[] = ["base", "cover", "mend"];

/** The steps that a part asks for. */
export const underSteps = ({ plastic = false, coloured = false }: PartBelow) =>
  UNDER_STEPS.filter((s) => (plastic || s.id !== "barrier") && !(coloured && OF_BASE.includes(s.id)));

/** Steps that were left out when clear went on, with what that may show as: evidence for a diagnosis, never proof. */
export function omissions(
  log: readonly { step: UnderStepId }[],
  { plastic = false, coloured = false }: PartBelow = {},
): { step: UnderStepId; name: string; why: string }[] {
  const must: UnderStepId[] = [
    "sand",
    "clean",
    ...(plastic ? (["barrier"] as const) : []),
    ...(coloured ? [] : (["cover"] as const)),
    "dry",
  ];
  return UNDER_STEPS.filter((s) => must.includes(s.id) && !log.some((e) => e.step === s.id)).map((s) => ({
    step: s.id,
    name: s.name,
    why: s.why,
  }));
}
