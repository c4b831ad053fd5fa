import { keysOf } from "../../kernel/keys";

/** What a step of a mend waits for, and until when it may be done. */
export interface MendStep {
  do: string;
  why: string;
  /** Left alone so long after it. */
  wait_s?: number;
  /** To be done within so long of the step before, while it is hot or wet. */
  within_s?: number;
}
export interface MendCard {
  name: string;
  when: string;
  /** What is to be at hand before it is begun. */
  need: string;
  steps: readonly MendStep[];
  caution?: string;
}
const MINUTE_S = 60;
const wait = (minutes: number) => ({ wait_s: minutes * MINUTE_S });

/** Faults that are mended on the way, step by step. Common practice of the trade; the product's own sheet comes first. */
export const MEND_CARDS = {
  dirtInBase: {
    name: "Dirt in wet base",
    when: "A fibre or nib shows in the base before clear",
    need: "P1000 or finer, tack cloth, the same base",
    steps: [
      { do: "Leave it alone until the base has flashed dull", why: "picked at wet it only grows", ...wait(10) },
      { do: "Sand the spot with P1000 or finer, by hand, no wider than it is", why: "coarser shows through metallic" },
      { do: "Wipe and tack the spot", why: "its own dust would lie in the next coat" },
      { do: "First light coat on the spot, close in, dry-ish", why: "a wet one would lift the edge", ...wait(4) },
      { do: "Tack, second light coat, a hand wider", why: "each one hides the edge of the one before", ...wait(4) },
      { do: "Tack, third light coat, wider again; a fourth if it shows", why: "judged under a strong light from both sides", ...wait(8) },
    ],
  },
  rubThrough: {
    name: "Rubbed through while sanding",
    when: "Metal, plastic or old colour shows where primer or sealer was sanded through",
    need: "P400 to P600, the primer its sheet names for what shows, a small gun or a can of it",
    caution: "Primers with hardener contain isocyanates: gloves, eye and breathing protection, also for a small place.",
    steps: [
      { do: "Stop there; feather the ring with P400, then P600, a hand wide", why: "a hard ring swells up under base" },
      { do: "Clean the spot, until dry; no bare metal touched", why: "a print on metal rusts under the paint" },
      {
        do: "First thin coat of primer on the place, just over its ring",
        why: "base on bare metal lifts, on plastic it wrinkles",
        ...wait(10),
      },
      { do: "Second thin coat, a little wider", why: "one alone is sanded through again", ...wait(60) },
      { do: "Sand it level by hand with P600, not through; scuff round it", why: "its rim shows in the clear" },
      { do: "A coat of base more over the place, or sealer of the right shade", why: "another undercoat shade shows through the colour" },
    ],
  },
  cratersInBase: {
    name: "Silicone craters in base",
    when: "Round eyes open in the base",
    need: "Clean cloths, silicone remover, low pressure",
    steps: [
      { do: "Stop; let it flash", why: "a wet coat on it crawls back again", ...wait(10) },
      { do: "First dust coat over the eyes, dry, further back", why: "dry drops stay where they fall", ...wait(3) },
      { do: "Second dust coat", why: "it bridges what the first began", ...wait(3) },
      { do: "Third dust coat, then look along it", why: "closed eyes take a usual coat", ...wait(5) },
      { do: "One usual coat over it all", why: "dust coats alone lie rough and dark" },
    ],
  },
  cratersInClear: {
    name: "Craters in clear, hot from the bake",
    when: "Eyes in the clear seen when the heat goes off",
    need: "Clear with its additive, a fine brush",
    caution: "The part is hot. Fresh clear with additive still contains isocyanates: gloves, eye and breathing protection.",
    steps: [
      {
        do: "Dab clear with additive into each eye with the tip of a brush",
        why: "hot film takes it up and levels",
        within_s: 15 * MINUTE_S,
      },
      { do: "Let it level while the part is warm; no blowing on it", why: "cold it stands proud", ...wait(20) },
      { do: "Next day: block the dabs flush, then polish", why: "what is missed hot has to be sanded out cold", ...wait(24 * 60) },
    ],
  },
  poorBlend: {
    name: "Blend that shows",
    when: "The edge of the colour can be seen",
    need: "Blender, the colour, about 1 bar at the gun",
    steps: [
      { do: "Mix colour and blender one to one", why: "half strength hides its own edge" },
      { do: "First pass a little beyond the edge, low pressure", why: "high pressure lays a dry rim", ...wait(5) },
      { do: "Second pass further out, into the neighbour", why: "the eye finds a straight edge, not a slow one", ...wait(5) },
      { do: "Blender alone over the last of it", why: "dry overspray goes clear under it", ...wait(8) },
      { do: "Look in daylight or under a daylight lamp, from both sides", why: "clear makes every step of colour plainer" },
    ],
  },
  notCovered: {
    name: "Coverage not reached",
    when: "The ground or black plastic shows at corners and edges",
    need: "Base, a strong light",
    steps: [
      { do: "Let the last coat flash", why: "wet base looks covered where it is not", ...wait(10) },
      { do: "One more coat on corners and edges first, then over all", why: "film draws back from an edge", ...wait(10) },
      { do: "Drop coat for metallic or pearl", why: "the flakes lie as on the rest", ...wait(10) },
      { do: "Look in the sun or under the lamp", why: "what does not cover now never will" },
    ],
  },
  oldColour: {
    name: "Colour older than a day",
    when: "More than 24 h since the last coat of base",
    need: "Fine scuff pad, cleaner, tack cloth",
    steps: [
      { do: "Scuff all of it dull, no shiny spot left", why: "clear peels where it cannot bite" },
      { do: "Clean twice, until dry; tack", why: "the pad leaves dust and grease", ...wait(10) },
      { do: "One thin coat of base if it was scuffed through or patchy", why: "scratches of the pad show in metallic", ...wait(15) },
      { do: "Then clear, within the day", why: "the clock begins again with that coat" },
    ],
  },
  dirtInClear: {
    name: "Dirt in wet clear",
    when: "A fibre lands in clear that is still wet",
    need: "Fine tweezers or a needle, clean gloves",
    steps: [
      { do: "Lift it out at once, straight up", why: "wet clear closes over the place", within_s: 3 * MINUTE_S },
      { do: "If it has skinned, leave it: it is sanded out when hard", why: "a torn skin is a bigger fault than a nib" },
      { do: "Mist a little clear over the place if it has drawn a hair", why: "wet on wet it levels", within_s: 5 * MINUTE_S },
    ],
  },
} as const satisfies Record<string, MendCard>;

export type MendCardId = keyof typeof MEND_CARDS;
export const MEND_CARD_IDS = keysOf<MendCardId>(MEND_CARDS);

/** Where a card stands by its logged steps. */
export interface MendRun {
  card: MendCardId;
  begun_ms: number;
  done: number;
  /** The step in hand; null: all are done. */
  step: MendStep | null;
  /** Not before this; null: at once. */
  from_ms: number | null;
  /** Not later than this; null: no hurry. */
  until_ms: number | null;
}

/** The newest run of each card that was begun, newest first: a first step logged again begins it anew. */
export function mendRuns(log: readonly { card: MendCardId; step: number; at_ms: number }[]): MendRun[] {
  const runs = MEND_CARD_IDS.flatMap((card): MendRun[] => {
    const own = log.filter((l) => l.card === card);
    const first = own.findLastIndex((l) => l.step === 0);
    if (first < 0) return [];
    const run = own.slice(first);
    const steps: readonly MendStep[] = MEND_CARDS[card].steps;
    const last = run.reduce((a, b) => (b.step > a.step ? b : a));
    const done = last.step + 1;
    const step = steps[done] ?? null;
    const waits = steps[last.step]?.wait_s;
    return [
      {
        card,
        begun_ms: run[0]!.at_ms,
        done,
        step,
        from_ms: waits === undefined ? null : last.at_ms + 1000 * waits,
        until_ms: step?.within_s === undefined ? null : last.at_ms + 1000 * step.within_s,
      },
    ];
  });
  return runs.sort((a, b) => b.begun_ms - a.begun_ms);
}
