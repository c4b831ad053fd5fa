import { type FaultHold, holdOf } from "../models/defects/holds";
import type { EntryOf } from "../record/entry";
import type { PanelFacts } from "./derive-panel";

type Told = Pick<PanelFacts, "seenTo">;

/** What was told of a mark since: that what it waited for is done; null where nobody said so. A mark put right since holds anew. */
export const seenToOf = ({ seenTo }: Told, mark: EntryOf<"defect">): EntryOf<"seenTo"> | null =>
  seenTo.findLast((s) => s.body.markId === mark.id) ?? null;

/** Whether a mark has gone with what was done: what only dried out is there still, and is worked as any other. */
export const isGone = (panel: Told, mark: EntryOf<"defect">): boolean => {
  const told = seenToOf(panel, mark);
  return told !== null && told.body.as !== "dry";
};

/** What a mark holds back now; null: nothing, or it was seen to. */
export const holdOfMark = (panel: Told, mark: EntryOf<"defect">): FaultHold | null =>
  seenToOf(panel, mark) ? null : holdOf(mark.body.kind);
