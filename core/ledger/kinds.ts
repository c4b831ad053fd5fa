export const DEFECT_KINDS = { run: "run", peel: "peel", nib: "nib" } as const;
export type DefectKind = keyof typeof DEFECT_KINDS;

/** When a film reading was taken. */
export const PHASES = { before: "before clear", after: "after clear", recheck: "after sanding" } as const;
export type Phase = keyof typeof PHASES;
