import { requireNumber } from "../../kernel/guard";
import { normalCdf } from "../../kernel/stats/normal";
import { type CardBody, cardGloss, shownEffects } from "./card";
import { CARDS_LEAST, type MatteCurve, curveU, matteCurve } from "../gloss/matte-fit";
import { PATCH_GU, PATCH_SHARE } from "../gloss/gloss-statistics";

/** How a face is sprayed and dried: what moves matte gloss most after the mix. */
export type MatteFace = Pick<CardBody, "orientation" | "cure">;

export interface MatteForecast {
  gloss_GU: number;
  u_GU: number;
  /** Nineteen times in twenty. */
  low_GU: number;
  high_GU: number;
  /** Cards sprayed and dried as the face is; cards of another kind, moved by what pairs of cards show, or by nothing known; the sheet's own levels. */
  from: "cards" | "moved cards" | "other cards" | "sheet";
  /** How many cards it rests on. */
  cards: number;
  /** The film differs from the cards' by more than a sixth: thicker reads brighter. */
  film: "thicker" | "thinner" | null;
  /** Part of the doubt that is each face's own: the hand, and what differs from the cards. As a log standard deviation. */
  ownLogSd: number;
}

/** Doubts as log standard deviations: defaults of ours, docs/models.md "Matte". */
const HAND_LOG_SD = 0.05;
const UNKNOWN_EFFECT_LOG_SD = 0.15;
const PAIR_LOG_SD = 0.05;
const SHEET_LOG_SD = 0.2;
const FILM_APART = 1.15;
/** Thicker is brighter: 0 to 0.25 GU a µm at 60°, anything between alike likely. The sign is known, the size set to common practice. */
const FILM_GU_UM = { mean: 0.125, sd: 0.25 / Math.sqrt(12) } as const;
const CARD_READ = { cv: 0.02, floor_GU: 0.4 } as const;
const SAME_SHARE = 0.005;
const UM = 1e6;
const LEAST_GU = 0.3;

const pointOf = (c: CardBody, i: number) => ({ id: String(i), share: c.mattingShare!, gloss_GU: cardGloss(c, 60)! });

/**
 * Gloss to expect on a face of a matte part at 60°: from cards sprayed and dried as it is; else from other cards of the product, moved by what pairs
 * of cards show of lying or of heat; else from the sheet's levels. More film than the cards have reads brighter. What nobody has shown widens the span
 * and is said.
 * @param cards of one product and base, each with a share and a reading at 60°
 * @returns null where neither cards nor levels bracket the share @throws RangeError
 */
export function matteForecast({
  share,
  face,
  cards,
  levels,
  film_m = null,
}: {
  share: number;
  face: MatteFace;
  cards: readonly CardBody[];
  levels: readonly { share: number; gloss60_GU: number }[];
  film_m?: number | null;
}): MatteForecast | null {
  requireNumber("share", share, { min: 0, max: 1 });
  const usable = cards.filter((c) => c.mattingShare !== null && cardGloss(c, 60) !== null);
  const groups = groupsOf(usable).flatMap((g) => {
    const curve = curveOver(g.cards, share);
    return curve ? [{ ...g, curve }] : [];
  });
  const own = groups.find((g) => g.face.orientation === face.orientation && g.face.cure === face.cure);
  const other = groups.sort((a, b) => b.cards.length - a.cards.length)[0];
  const best = own ?? other;
  if (!best) return fromSheet(share, levels);
  const moved = own ? { factor: 1, logSd: 0, known: true } : shift(best.face, face, usable);
  const asCards_GU = best.curve.at(share) * moved.factor;
  const common = curveU(best.curve, share) / best.curve.at(share);
  const film = filmApart(best.cards, film_m);
  const apart_um = UM * filmFromCards_m(best.cards, film_m);
  const slope = filmSlope(usable);
  const gloss_GU = Math.max(LEAST_GU, asCards_GU + slope.mean * apart_um);
  const ownLogSd = Math.hypot(HAND_LOG_SD, moved.logSd, (slope.sd * Math.abs(apart_um)) / gloss_GU);
  return {
    ...spanOf(gloss_GU, Math.hypot(common, ownLogSd)),
    from: own ? "cards" : moved.known ? "moved cards" : "other cards",
    cards: best.cards.length,
    film,
    ownLogSd,
  };
}

const spanOf = (gloss_GU: number, logSd: number) => ({
  gloss_GU,
  u_GU: gloss_GU * logSd,
  low_GU: gloss_GU * Math.exp(-1.96 * logSd),
  high_GU: gloss_GU * Math.exp(1.96 * logSd),
});

function groupsOf(cards: readonly CardBody[]): { face: MatteFace; cards: CardBody[] }[] {
  const faces = (["vertical", "horizontal"] as const).flatMap((orientation) =>
    (["air", "forced"] as const).map((cure): MatteFace => ({ orientation, cure })),
  );
  return faces.map((face) => ({ face, cards: cards.filter((c) => c.orientation === face.orientation && c.cure === face.cure) }));
}

function curveOver(cards: readonly CardBody[], share: number): MatteCurve | null {
  const shares = [...new Set(cards.map((c) => c.mattingShare!))];
  if (shares.length < CARDS_LEAST || share < Math.min(...shares) || share > Math.max(...shares)) return null;
  return matteCurve(cards.map(pointOf));
}

/** What pairs of cards show of the ways in which two faces differ; what none shows counts as unknown. */
function shift(from: MatteFace, to: MatteFace, cards: readonly CardBody[]): { factor: number; logSd: number; known: boolean } {
  const effects = shownEffects(cards);
  let log = 0;
  let known = true;
  const doubts: number[] = [];
  const apply = (what: string, sign: 1 | -1) => {
    const seen = effects.filter((e) => e.what === what).map((e) => Math.log(e.to_GU / e.from_GU));
    if (seen.length === 0) {
      known = false;
      doubts.push(UNKNOWN_EFFECT_LOG_SD);
      return;
    }
    log += (sign * seen.reduce((a, e) => a + e, 0)) / seen.length;
    doubts.push(PAIR_LOG_SD / Math.sqrt(seen.length));
  };
  if (from.cure !== to.cure) apply("forced drying", to.cure === "forced" ? 1 : -1);
  if (from.orientation !== to.orientation) apply("lying instead of upright", to.orientation === "horizontal" ? 1 : -1);
  return { factor: Math.exp(log), logSd: Math.hypot(...doubts), known };
}

const filmsOf = (cards: readonly CardBody[]): number[] => cards.flatMap((c) => (c.dryFilm_m === null ? [] : [c.dryFilm_m]));
const meanOf = (list: readonly number[]): number => list.reduce((a, f) => a + f, 0) / list.length;

/** Film over that of the cards; 0 where either is not known. */
function filmFromCards_m(cards: readonly CardBody[], film_m: number | null): number {
  const films = filmsOf(cards);
  return film_m === null || films.length === 0 ? 0 : film_m - meanOf(films);
}

/** GU a µm of film, and its doubt: as it is thought before, and as pairs of cards show it that differ in their film alone; never below none. */
function filmSlope(cards: readonly CardBody[]): { mean: number; sd: number } {
  let precision = 1 / FILM_GU_UM.sd ** 2;
  let sum = FILM_GU_UM.mean * precision;
  const measured = cards.flatMap((c) => (c.dryFilm_m === null ? [] : [{ c, film_um: UM * c.dryFilm_m, gloss_GU: cardGloss(c, 60)! }]));
  measured.forEach((a, i) =>
    measured.slice(i + 1).forEach((b) => {
      const alike =
        a.c.orientation === b.c.orientation && a.c.cure === b.c.cure && Math.abs(a.c.mattingShare! - b.c.mattingShare!) <= SAME_SHARE;
      const apart_um = b.film_um - a.film_um;
      if (!alike || Math.abs(apart_um) < 1) return;
      const sd = Math.hypot(...[a, b].map((x) => CARD_READ.cv * x.gloss_GU + CARD_READ.floor_GU)) / Math.abs(apart_um);
      precision += 1 / sd ** 2;
      sum += (b.gloss_GU - a.gloss_GU) / apart_um / sd ** 2;
    }),
  );
  return { mean: Math.max(0, sum / precision), sd: 1 / Math.sqrt(precision) };
}

function filmApart(cards: readonly CardBody[], film_m: number | null): MatteForecast["film"] {
  const films = filmsOf(cards);
  if (film_m === null || films.length === 0) return null;
  const ratio = film_m / meanOf(films);
  return ratio > FILM_APART ? "thicker" : ratio < 1 / FILM_APART ? "thinner" : null;
}

/** Between two levels of the sheet the logarithm of the gloss is a straight line. */
function fromSheet(share: number, levels: readonly { share: number; gloss60_GU: number }[]): MatteForecast | null {
  const sorted = [...levels].sort((a, b) => a.share - b.share);
  const i = sorted.findIndex((l) => l.share >= share);
  const [low, high] = [sorted[Math.max(0, i - 1)], sorted[i]];
  if (!low || !high || share < sorted[0]!.share) return null;
  const part = high.share > low.share ? (share - low.share) / (high.share - low.share) : 0;
  const gloss_GU = Math.exp((1 - part) * Math.log(low.gloss60_GU) + part * Math.log(high.gloss60_GU));
  const ownLogSd = HAND_LOG_SD;
  return { ...spanOf(gloss_GU, Math.hypot(SHEET_LOG_SD, ownLogSd)), from: "sheet", cards: 0, film: null, ownLogSd };
}

/**
 * Chance that two faces out of one pot differ so that it shows: by more than 2 GU and 15 % of their mean, as on one panel (common practice). What
 * they have in common, the mix and the curve, moves both. @throws RangeError
 */
export function chanceApart(a: Pick<MatteForecast, "gloss_GU" | "ownLogSd">, b: Pick<MatteForecast, "gloss_GU" | "ownLogSd">): number {
  const [ga, gb] = [a, b].map((f) => requireNumber("gloss_GU", f.gloss_GU, { above: 0, max: 200 })) as [number, number];
  const shows_GU = Math.max(PATCH_GU, (PATCH_SHARE * (ga + gb)) / 2);
  const sd = Math.hypot(ga * a.ownLogSd, gb * b.ownLogSd);
  const d = ga - gb;
  if (sd === 0) return Math.abs(d) > shows_GU ? 1 : 0;
  return normalCdf((-shows_GU - d) / sd) + 1 - normalCdf((shows_GU - d) / sd);
}
