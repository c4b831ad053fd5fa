import type { FlowClass } from "#core/models/flow/flow-window";

/** What the flow model says of a film, in a word. */
export const CLASS_WORDS: Record<FlowClass, { word: string; tag: "good" | "caution" | "stop" }> = {
  flows: { word: "Flows", tag: "good" },
  lean: { word: "Leans: near a run", tag: "caution" },
  peels: { word: "Peels", tag: "caution" },
  runs: { word: "Runs", tag: "stop" },
};
