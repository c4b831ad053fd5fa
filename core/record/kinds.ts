export { DEFECT_KINDS, type DefectKind, isFold } from "../models/defects/kinds";
/** When a film reading was taken. */
export const PHASES = { before: "before clear", after: "after clear", recheck: "after sanding" } as const;
export type Phase = keyof typeof PHASES;

/** What a plan was found to be: kept with it. */
export const VERDICTS = ["safe", "caution", "stop", "uncertain", "none"] as const;
export type Verdict = (typeof VERDICTS)[number];
