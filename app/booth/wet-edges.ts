/** Names of wet edges: parts of one name keep theirs together. */
export const WET_EDGES = ["A", "B", "C", "D"] as const;
