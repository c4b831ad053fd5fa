import type { PartSheet, ProductSheet } from "./sheet";

/** Parts that a product's sheet names; any of their kind where it names none. */
export function boundTo<T extends { sheet: PartSheet }>(sheet: ProductSheet, parts: readonly T[], kind: PartSheet["kind"]): readonly T[] {
  const all = parts.filter((p) => p.sheet.kind === kind);
  const own = all.filter((p) => sheet.goesWith.includes(p.sheet.name));
  return own.length > 0 ? own : all;
}
