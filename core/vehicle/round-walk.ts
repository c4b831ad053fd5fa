import type { PartColour } from "../models/colour/job-colours";
import { BORDER_WEIGHT, type VehicleBorder } from "./vehicles";
import type { WalkAsked } from "./walk";

/** A panel that the gun goes over in one go with others. */
export interface RoundPart {
  id: string;
  name: string;
  /** Its next coat on the face that is next. */
  coat: number;
  spray_s: number;
  volume_m3: number;
  /** How long its borders stay open, and with a slow hardener. */
  open_s: number;
  openSlow_s: number;
  /** A shut or jamb. */
  shut?: boolean;
  /** Which of the job's two colours, where each is sprayed to its end by itself. */
  colour?: PartColour;
}

/** Who goes round, and what stands in his way. */
export interface RoundHand {
  cup_m3: number;
  refill_s: number;
  between_s: number;
}
/** A cup of a usual gun, filled by its side; a step and a look from part to part. Common practice. */
export const USUAL_ROUND: RoundHand = { cup_m3: 600e-6, refill_s: 60, between_s: 10 };

export interface Round {
  parts: RoundPart[];
  borders: (Omit<VehicleBorder, "a" | "b"> & { a: number; b: number })[];
  /** A shut, and the part that closes over it. */
  before: { first: number; later: number }[];
  /** From each to each other with the hose, beyond the step to the part beside it. */
  way_s: number[][];
  /** Of two colours without a clear over both: which of them goes first. */
  goesFirst: "first" | "second" | null;
  /** Panels that do not go round: no coat over the whole of it is to come, or a setting lies beyond the model. */
  left: { id: string; name: string }[];
}

/** The walk that a round asks for. @param slow with a slow hardener */
export const walkAsked = (
  { parts, borders, before, way_s }: Pick<Round, "parts" | "borders" | "before" | "way_s">,
  hand: RoundHand,
  slow = false,
): WalkAsked => ({
  ...hand,
  way_s,
  before,
  parts: parts.map(({ spray_s, volume_m3, open_s, openSlow_s }) => ({ spray_s, volume_m3, open_s: slow ? openSlow_s : open_s })),
  borders: borders.map(({ a, b, lies, meets }) => ({ a, b, lies, weight: BORDER_WEIGHT[meets] })),
});

/** Only some parts of a round, those that are sprayed in one go: what they meet of the others is masked, or was on before. */
export function partOfRound(round: Round, goes: (part: RoundPart) => boolean): Round {
  const kept = round.parts.flatMap((part, p) => (goes(part) ? [p] : []));
  const at = new Map(kept.map((p, i) => [p, i]));
  return {
    parts: kept.map((p) => round.parts[p]!),
    borders: round.borders.flatMap(({ a, b, ...border }) => (at.has(a) && at.has(b) ? [{ ...border, a: at.get(a)!, b: at.get(b)! }] : [])),
    before: round.before.flatMap(({ first, later }) =>
      at.has(first) && at.has(later) ? [{ first: at.get(first)!, later: at.get(later)! }] : [],
    ),
    way_s: kept.map((from) => kept.map((to) => round.way_s[from]![to]!)),
    goesFirst: round.goesFirst,
    left: round.left,
  };
}

/** What is sprayed in one go: shuts by themselves before they are masked, a colour that has no clear over it, or all there is. */
export const GOES = ["shuts", "body", "first", "second", "all"] as const;
export type Go = (typeof GOES)[number];

/** Whether a part belongs to a go; the line of two colours goes through some, which are sprayed with each. */
export const isOfGo = ({ shut = false, colour = "first" }: RoundPart, go: Go): boolean =>
  go === "all" || (go === "shuts" ? shut : !shut && (go === "body" || colour === go || colour === "both"));

/** The goes of a round in their order: shuts first, masked from behind, then the body; single stages colour by colour. Common practice. All in one go comes last where there are more. */
export function goesOf({ parts, goesFirst }: Pick<Round, "parts" | "goesFirst">): readonly [Go, ...Go[]] {
  const shuts = parts.some((p) => p.shut) ? (["shuts"] as const) : [];
  const body: readonly Go[] = !parts.some((p) => !p.shut)
    ? []
    : goesFirst === null
      ? ["body"]
      : goesFirst === "first"
        ? ["first", "second"]
        : ["second", "first"];
  const [one, ...more] = [...shuts, ...body];
  return one === undefined || more.length === 0 ? ["all"] : goesFirst === null ? [one, ...more, "all"] : [one, ...more];
}
