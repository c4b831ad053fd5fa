export { DEFECTS, type DefectKind, isFold } from "../defects/catalogue";
/** When a film reading was taken. */
export const PHASES = { before: "before clear", after: "after clear", recheck: "after sanding" } as const;
export type Phase = keyof typeof PHASES;
