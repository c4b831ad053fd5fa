import { requireNumber } from "../../kernel/guard";

/** What "10 % reducer" is a share of: the activated mix it is added to, or the finished mix that it becomes part of. */
export const REDUCER_MEANINGS = {
  activated: "on top of the activated mix",
  finished: "of the finished mix",
} as const;
export type ReducerMeaning = keyof typeof REDUCER_MEANINGS;

/** Roles of a ratio's places in the trade's order, where no sheet says otherwise (`roles.ts`). A fourth place and beyond are additives. */
const PLACE_NAMES: readonly string[] = ["clear", "hardener", "reducer", "additive", "additive 2"];

export type ParsedRatio = { ok: true; parts: number[] } | { ok: false; message: string };

/**
 * Reads a ratio by volume as it stands on a can: "2:1", "4 : 1", "3:1:1", "7:1:2,5".
 * @example parseRatio("7:1:2.5") // { ok: true, parts: [7, 1, 2.5] }
 */
export function parseRatio(text: string): ParsedRatio {
  const trimmed = text.trim();
  if (trimmed === "") return { ok: false, message: "Type a ratio such as 2:1" };
  const places = trimmed.split(":").map((p) => p.trim());
  if (places.some((p) => !/^\d+([.,]\d+)?$/.test(p)))
    return { ok: false, message: `"${trimmed}" is not a ratio; write it as 2:1 or 3:1:1` };
  const parts = places.map((p) => Number(p.replace(",", ".")));
  if (parts.length > PLACE_NAMES.length) return { ok: false, message: `A ratio has at most ${PLACE_NAMES.length} parts` };
  if (parts.some((p) => !(p > 0 && p <= 1000))) return { ok: false, message: "Every part must be above 0 and at most 1000" };
  return { ok: true, parts };
}

export interface MixPart {
  role: string;
  /** Share of the finished mix by volume; all add up to 1. */
  share: number;
}

/**
 * Shares of the finished mix by volume. Percent reducer comes on top of what the ratio itself holds.
 * `activated`: reducer = r × (all parts of the ratio). `finished`: reducer = r × the whole, so it needs more: r/(1 − r) on top.
 * @param roles of the places of the ratio
 * @throws RangeError for no parts, a part that is not above zero, or a reducer outside 0…1 (finished: below 0.9).
 * @example mixShares([2, 1], { reducer: 0.1, meaning: "activated" }) // clear .6061, hardener .3030, reducer .0909
 */
export function mixShares(
  parts: readonly number[],
  {
    reducer = 0,
    meaning = "activated",
    roles = PLACE_NAMES,
  }: { reducer?: number; meaning?: ReducerMeaning; roles?: readonly string[] } = {},
): MixPart[] {
  if (parts.length === 0) throw new RangeError("parts must have at least 1 member, got 0");
  parts.forEach((p, i) => requireNumber(`parts[${i}]`, p, { above: 0 }));
  requireNumber("reducer", reducer, meaning === "finished" ? { min: 0, max: 0.9 } : { min: 0, max: 1 });
  const sum = parts.reduce((a, p) => a + p, 0);
  const onTop = meaning === "finished" ? reducer / (1 - reducer) : reducer;
  const whole = 1 + onTop;
  const shares = parts.map((p, i): MixPart => ({ role: roles[i] ?? `part ${i + 1}`, share: p / sum / whole }));
  if (onTop === 0) return shares;
  const own = shares.findIndex((s) => s.role === "reducer");
  if (own >= 0) return shares.map((s, i) => (i === own ? { ...s, share: s.share + onTop / whole } : s));
  return [...shares, { role: "reducer", share: onTop / whole }];
}

/** Reducer as a share of the activated mix, whatever was meant: the form in which film and viscosity want it. */
export function reducerOnActivated(reducer: number, meaning: ReducerMeaning): number {
  requireNumber("reducer", reducer, meaning === "finished" ? { min: 0, max: 0.9 } : { min: 0, max: 1 });
  return meaning === "finished" ? reducer / (1 - reducer) : reducer;
}
