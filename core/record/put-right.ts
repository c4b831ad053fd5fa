import type { EntryKind } from "./bodies";

/** Kinds that are put right in place; any other is taken out and entered again. */
export const PUT_RIGHT = [
  "coat",
  "colourCoat",
  "mix",
  "climate",
  "reading",
  "wetComb",
  "flatten",
  "bake",
  "turn",
  "strip",
] as const satisfies readonly EntryKind[];
export type PutRightKind = (typeof PUT_RIGHT)[number];

export const isPutRight = <E extends { kind: EntryKind }>(entry: E): entry is E & { kind: PutRightKind } =>
  (PUT_RIGHT as readonly string[]).includes(entry.kind);
