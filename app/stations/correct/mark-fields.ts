/** Fields of the marks that a step may be read at, before and after each. */
export const MARK_FIELDS = [
  ["before", "after"],
  ["before2", "after2"],
  ["before3", "after3"],
] as const;
export type MarkField = (typeof MARK_FIELDS)[number][number];
