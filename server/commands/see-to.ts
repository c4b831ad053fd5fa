import { holdOf } from "#core/models/defects/holds";
import { seenToOf } from "#core/panel/seen-to";
import { ofKind } from "#core/record/entry";
import { livingEntries } from "#core/record/timeline";
import type { BodyInputOf } from "#core/record/bodies";
import type { ServerContext } from "../context";
import { listEntries } from "../repos/ledger-repo";
import { entryBefore, recordEntry } from "./record-entry";
import { Refusal } from "./refusal";

/**
 * Tells that what a marked fault waited for is done. @returns the entry's id
 * @throws Refusal for a mark that is not there any more, holds nothing back, waits for something else, or was seen to in another window
 */
export async function markSeenTo(
  ctx: ServerContext,
  { panelId, body, by, clientKey }: { panelId: string; body: BodyInputOf<"seenTo">; by: string; clientKey: string | null },
): Promise<string> {
  const before = await entryBefore(ctx, panelId, clientKey, body);
  if (before) return before;
  const living = livingEntries(await listEntries(ctx.db, panelId));
  const mark = ofKind(living, "defect").find((d) => d.id === body.markId);
  if (!mark) throw new Refusal(null, "This mark was put right or taken out meanwhile. Look again.", 409);
  const hold = holdOf(mark.body.kind);
  if (!hold) throw new Refusal(null, "This kind of fault holds nothing back");
  if (hold.until !== body.as) throw new Refusal("as", "This fault waits for something else");
  if (seenToOf({ seenTo: ofKind(living, "seenTo") }, mark)) throw new Refusal(null, "This was told in another window meanwhile.", 409);
  return recordEntry(ctx, { panelId, kind: "seenTo", body, by, clientKey, asked: body });
}
