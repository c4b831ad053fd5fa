import { requireNumber } from "../../kernel/guard";
import { normals, type Random } from "../../kernel/stats/random";
import { decreasingFit } from "./isotonic";
import { monotoneCubic } from "./pchip";

/** One sprayed card: share of matting component in the mix (0: all gloss clear, 1: all matte) and its gloss. */
export interface MatteCard {
  id: string;
  share: number;
  gloss_GU: number;
}

export interface MatteCurve {
  /** Gloss at a share. */
  at(share: number): number;
  /** Cards that stood against the order (more matting, more gloss) and were pooled. */
  against: string[];
  cards: MatteCard[];
}

/** Fewest cards for a fit, and how many make it trustworthy. */
export const CARDS_LEAST = 3;
export const CARDS_WANTED = 4;
/** Error of the curve itself in share, by the number of cards (rms, from trials on synthetic cards). */
const METHOD_U = [0.029, 0.01, 0.006, 0.003] as const;
const CARD_CV = 0.02;
const CARD_FLOOR_GU = 0.4;
const SHARE_U = 0.005;
const GLOSS_LOW = 0.3;
const GLOSS_HIGH = 94.5;

/**
 * Gloss against the share of matting component: weighted monotone regression, weights (g/max(0.5, 0.03 g))², then a monotone cubic on
 * ln GU (docs/models.md "Matte"). Cards of one share are averaged first.
 * @throws RangeError for fewer than 3 different shares, a share outside 0…1, or a gloss that is not above zero.
 */
export function matteCurve(cards: readonly MatteCard[]): MatteCurve {
  cards.forEach((c, i) => {
    requireNumber(`cards[${i}].share`, c.share, { min: 0, max: 1 });
    requireNumber(`cards[${i}].gloss_GU`, c.gloss_GU, { above: 0, max: 200 });
  });
  const shares = [...new Set(cards.map((c) => c.share))].sort((a, b) => a - b);
  if (shares.length < CARDS_LEAST) throw new RangeError(`cards must have at least ${CARDS_LEAST} different shares, got ${shares.length}`);
  const groups = shares.map((s) => cards.filter((c) => c.share === s));
  const gloss = groups.map((g) => g.reduce((a, c) => a + c.gloss_GU, 0) / g.length);
  const weights = gloss.map((g, i) => groups[i]!.length * (g / Math.max(0.5, 0.03 * g)) ** 2);
  const { fitted, pooled } = decreasingFit(gloss, weights);
  const ln = fitted.map((g, i) => Math.log(Math.min(GLOSS_HIGH, Math.max(GLOSS_LOW, g))) - 1e-6 * i);
  const curve = monotoneCubic(shares, ln);
  return {
    at: (share) => Math.exp(curve(share)),
    against: groups.flatMap((g, i) => (pooled[i] ? g.map((c) => c.id) : [])),
    cards: [...cards],
  };
}

/** Share at which the curve has a gloss; null outside what the cards span. */
export function shareForGloss(
  curve: Pick<MatteCurve, "at">,
  target_GU: number,
  [low, high]: readonly [number, number] = [0, 1],
): number | null {
  const target = requireNumber("target_GU", target_GU, { above: 0, max: 200 });
  if (target > curve.at(low) || target < curve.at(high)) return null;
  let [a, b] = [low, high];
  for (let i = 0; i < 60; i++) {
    const m = (a + b) / 2;
    if (curve.at(m) > target) a = m;
    else b = m;
  }
  return (a + b) / 2;
}

export interface MatteAnswer {
  share: number;
  /** Standard uncertainty of the share and the 95 % span; card repeatability and the method's own error together. */
  u_share: number;
  low: number;
  high: number;
  /** Gloss lost for one percentage point more matting component. */
  slope_GU_per_point: number;
  /** Gloss to expect when that share is sprayed: standard uncertainty. */
  u_gloss_GU: number;
  against: string[];
  cards: number;
  few: boolean;
  draws: number;
}

/**
 * The share for a target gloss with its interval by Monte Carlo over card repeatability (2 % + 0.4 GU; mixed to ±0.5 point).
 * @returns null when the target lies outside the cards.
 * @throws RangeError
 */
export function matteMix(
  cards: readonly MatteCard[],
  target_GU: number,
  { random, draws = 2000 }: { random: Random; draws?: number },
): MatteAnswer | null {
  const curve = matteCurve(cards);
  const shares = curve.cards.map((c) => c.share);
  const span: [number, number] = [Math.min(...shares), Math.max(...shares)];
  const share = shareForGloss(curve, target_GU, span);
  if (share === null) return null;
  const normal = normals(random);
  const found: number[] = [];
  for (let k = 0; k < draws; k++) {
    const moved = cards.map((c) => ({
      ...c,
      share: c.share > span[0] && c.share < span[1] ? Math.min(span[1], Math.max(span[0], c.share + SHARE_U * normal())) : c.share,
      gloss_GU: Math.max(0.05, c.gloss_GU * (1 + CARD_CV * normal()) + CARD_FLOOR_GU * normal()),
    }));
    const drawn = matteCurve(moved);
    const s = shareForGloss(drawn, target_GU, span);
    found.push(s ?? (target_GU > drawn.at(span[0]) ? span[0] : span[1]));
  }
  const sorted = found.sort((a, b) => a - b);
  const mean = sorted.reduce((a, s) => a + s, 0) / draws;
  const repeat = Math.sqrt(sorted.reduce((a, s) => a + (s - mean) ** 2, 0) / (draws - 1));
  const different = new Set(shares).size;
  const method = methodU(different);
  const slope = slopeAt(curve, share);
  const u_share = Math.hypot(repeat, method);
  return {
    share,
    u_share,
    low: Math.max(0, share - 1.96 * u_share),
    high: Math.min(1, share + 1.96 * u_share),
    slope_GU_per_point: slope / 100,
    u_gloss_GU: Math.abs(slope) * u_share,
    against: curve.against,
    cards: different,
    few: different < CARDS_WANTED,
    draws,
  };
}

const methodU = (different: number) => METHOD_U[Math.min(different, CARDS_LEAST + METHOD_U.length - 1) - CARDS_LEAST]!;
const SLOPE_STEP = 0.005;
const slopeAt = (curve: Pick<MatteCurve, "at">, share: number) =>
  (curve.at(Math.min(1, share + SLOPE_STEP)) - curve.at(Math.max(0, share - SLOPE_STEP))) / (2 * SLOPE_STEP);

/** Standard uncertainty of what a curve says at a share: mixing and the method through its slope, and a card's own repeatability. @throws RangeError */
export function curveU(curve: MatteCurve, share: number): number {
  requireNumber("share", share, { min: 0, max: 1 });
  const gloss_GU = curve.at(share);
  const slope = Math.abs(slopeAt(curve, share));
  return Math.hypot(slope * methodU(new Set(curve.cards.map((c) => c.share)).size), slope * SHARE_U, CARD_CV * gloss_GU, CARD_FLOOR_GU);
}

/**
 * The next card worth spraying: the target's own share when no card lies near it, else the middle of the widest gap beside it.
 * @throws RangeError
 */
export function nextCard(cards: readonly MatteCard[], answer: Pick<MatteAnswer, "share"> | null): { share: number; why: string } {
  const shares = [...new Set(cards.map((c) => requireNumber("share", c.share, { min: 0, max: 1 })))].sort((a, b) => a - b);
  const round = (s: number) => Math.round(s * 50) / 50;
  if (shares.length === 0) return { share: 0.5, why: "spray this card first: the middle tells most" };
  if (answer && shares.every((s) => Math.abs(s - answer.share) > 0.04))
    return { share: round(answer.share), why: "the mix itself: it proves the answer" };
  const ends = [0, ...shares, 1];
  const near = answer?.share ?? 0.5;
  const gaps = ends.slice(1).map((b, i) => ({ a: ends[i]!, b, worth: (b - ends[i]!) / (0.15 + Math.abs((ends[i]! + b) / 2 - near)) }));
  const best = gaps.reduce((p, q) => (q.worth > p.worth ? q : p));
  const edge = best.a === 0 && !shares.includes(0) ? 0 : best.b === 1 && !shares.includes(1) ? 1 : null;
  return edge !== null && shares.length < CARDS_LEAST
    ? { share: edge, why: "an end of the range is still open" }
    : { share: round((best.a + best.b) / 2), why: "the widest gap between cards near the target" };
}

/** The sheet's level nearest to a target, for when there are too few cards. Null when the sheet lists none. */
export function nearestLevel(
  levels: readonly { share: number; gloss60_GU: number }[],
  target_GU: number,
): { share: number; gloss60_GU: number } | null {
  requireNumber("target_GU", target_GU, { above: 0, max: 200 });
  return levels.reduce<{ share: number; gloss60_GU: number } | null>(
    (best, l) =>
      best === null || Math.abs(Math.log(l.gloss60_GU / target_GU)) < Math.abs(Math.log(best.gloss60_GU / target_GU)) ? l : best,
    null,
  );
}
