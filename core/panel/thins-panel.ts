import type { EntryOf } from "../record/entry";

/** Whether a step took film off the panel; work at runs, spots, rim and lines stays where it was done. */
export const thinsPanel = (step: EntryOf<"step">): boolean => step.body.zone === "panel";
