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

/** A ratio as people write it: its parts, and the reducer that goes on top, where it says one. */
export type ReadRatio = { ok: true; parts: number[]; reducer: { min: number; max: number } | null } | { ok: false; message: string };

const NUMBER = String.raw`\d+(?:[.,]\d+)?`;
const ENDS_IN_PER_CENT = new RegExp(`^(.*?)(${NUMBER})\\s*%$`);
const ENDS_IN_NUMBER = new RegExp(`^(.*?)[:/+\\s]*(${NUMBER})$`);
/** Between the places of a ratio: one and the same all through. */
const SEPARATORS = /[:/+-]/;
const numberOf = (text: string): number => Number(text.replace(",", "."));

/**
 * Reads a ratio as people write it, by volume: "2:1", "4-1-1", "3/1/1", "2 to 1", with its reducer on top, as one figure or from to:
 * "2:1 + 10 %", "2:1:10%", "2:1:5-10 %".
 * @example readRatio("2:1 + 10 %") // { ok: true, parts: [2, 1], reducer: { min: 0.1, max: 0.1 } }
 */
export function readRatio(text: string): ReadRatio {
  const plain = text
    .trim()
    .toLowerCase()
    .replace(/[\u2010-\u2015\u2212]/g, "-")
    .replace(/\u2236/g, ":")
    .replace(/\s+to\s+/g, ":");
  const [, ahead, most] = ENDS_IN_PER_CENT.exec(plain) ?? [];
  if (ahead === undefined || most === undefined) return partsOf(plain, text, null);
  const head = ahead.replace(/[:/+,;\s-]*$/, "");
  const joint = ahead.slice(head.length).trim();
  const between = SEPARATORS.exec(head)?.[0];
  // "2:1:5-10 %": a stroke that is not this ratio's own stands between the least and the most.
  const [, rest, least] = joint === "-" && between !== "-" ? (ENDS_IN_NUMBER.exec(head) ?? []) : [];
  const [ratio, from] = rest && least ? [rest, numberOf(least)] : [head, numberOf(most)];
  const reducer = { min: from / 100, max: numberOf(most) / 100 };
  if (reducer.max > 1 || reducer.min > reducer.max) return { ok: false, message: "Reducer goes from 0 to 100 %, the least first" };
  return partsOf(ratio, text, reducer);
}

/** @param typed as it stands in the message */
function partsOf(plain: string, typed: string, reducer: { min: number; max: number } | null): ReadRatio {
  const between = SEPARATORS.exec(plain)?.[0];
  const parsed = parseRatio(between === undefined ? plain : plain.split(between).join(":"));
  if (parsed.ok) return { ok: true, parts: parsed.parts, reducer };
  return plain !== "" && parsed.message.includes("is not a ratio")
    ? { ok: false, message: `"${typed.trim()}" is not a ratio; write it as 2:1, 3:1:1 or 2:1 + 10 %` }
    : parsed;
}

/** The parts as a sheet keeps them: "7:1:2.5". */
export const ratioText = (parts: readonly number[]): string => parts.join(":");

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
