import { mixShares, readRatio } from "#core/models/product/ratio";

const figure = (n: number): string => String(Number((100 * n).toFixed(1)));

/** A ratio as it was understood, in words: "2 parts to 1, then 10 % reducer on top. Of 100 parts 60.6, 33.3 and 9.1." Null while it is none. */
export function ratioWords(text: string): string | null {
  const read = text.trim() === "" ? null : readRatio(text);
  if (!read?.ok) return null;
  const { parts, reducer } = read;
  const [first, ...rest] = parts;
  const ratio = rest.length === 0 ? "As it is, nothing to it" : `${first} ${first === 1 ? "part" : "parts"} to ${rest.join(" and ")}`;
  if (!reducer) return `${ratio}.${rest.length === 0 ? "" : shared(parts, 0)}`;
  const { min, max } = reducer;
  if (min !== max) return `${ratio}, then ${figure(min)} to ${figure(max)} % reducer on top.`;
  return `${ratio}, then ${figure(max)} % reducer on top.${shared(parts, max)}`;
}

function shared(parts: readonly number[], reducer: number): string {
  const shares = mixShares(parts, { reducer, roles: [] }).map((s) => figure(s.share));
  return ` Of 100 parts ${shares.slice(0, -1).join(", ")} and ${shares.at(-1)}.`;
}
