import type { ProductSheet } from "./sheet";

/** What stands second in a sheet's ratio, and what follows it. */
export const SECOND_PARTS = { hardener: "hardener", reducer: "reducer, no hardener" } as const;
export type SecondPart = keyof typeof SECOND_PARTS;

const AFTER: Record<SecondPart, readonly string[]> = {
  hardener: ["clear", "hardener", "reducer", "additive", "additive 2"],
  reducer: ["clear", "reducer", "additive", "additive 2", "additive 3"],
};

/** As its sheet says; else as usual for its kind: a base and a blender take reducer alone, all others a hardener. Common practice. */
export const secondPartOf = ({ kind, secondPart }: Pick<ProductSheet, "kind" | "secondPart">): SecondPart =>
  secondPart ?? (kind === "base" || kind === "blender" ? "reducer" : "hardener");

/** Where a sheet names no ratio: two to one with a hardener, one to one with a reducer. Common practice. */
export const usualRatio = (sheet: Pick<ProductSheet, "kind" | "secondPart">): string =>
  secondPartOf(sheet) === "hardener" ? "2:1" : "1:1";

/** The role of each place of its ratio; the first is the product itself. */
export const rolesOf = (sheet: Pick<ProductSheet, "kind" | "secondPart">): readonly string[] => AFTER[secondPartOf(sheet)];
