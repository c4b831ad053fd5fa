import { isDeepStrictEqual } from "node:util";
import { tiltHeld } from "#core/panel/wet-build";
import { type CoatSprayed, sprayedVolume } from "#core/panel/pots";
import type { BodyInputOf } from "#core/record/bodies";
import { type PutRightKind, isPutRight } from "#core/record/put-right";
import { type LedgerEntry, ofKind } from "#core/record/entry";
import { livingEntries } from "#core/record/timeline";
import type { ServerContext } from "../context";
import { getJob } from "../repos/job-repo";
import { listEntries } from "../repos/ledger-repo";
import { getPanel } from "../repos/panel-repo";
import { recordEntry } from "./record-entry";
import { Refusal } from "./refusal";

export type EntryToPutRight = LedgerEntry & { kind: PutRightKind };

/** Those parts of a body that are put right; the others stay. */
export type ChangedBody = { [K in PutRightKind]: Partial<BodyInputOf<K>> }[PutRightKind];

/** An entry that counts and may be put right. @throws Refusal when it is not there, counts no more or is of another kind */
export async function entryToPutRight(ctx: ServerContext, panelId: string, entryId: string): Promise<EntryToPutRight> {
  const all = await listEntries(ctx.db, panelId);
  const entry = livingEntries(all).find((e) => e.id === entryId);
  if (!entry)
    throw all.some((e) => e.id === entryId)
      ? new Refusal(null, "This was put right or taken out meanwhile. The newest state is in the ledger.")
      : new Refusal(null, "This entry is not on this panel", 404);
  if (!isPutRight(entry)) throw new Refusal(null, "This kind of entry is taken out and entered again", 404);
  return entry;
}

/**
 * Puts an entry right: a new one stands in its place, the old one stays in the ledger. A coat stays between its neighbours in time.
 * @returns false when nothing was different
 * @throws Refusal for a time ahead or across another coat, and when another window was first
 */
export async function putRight(
  ctx: ServerContext,
  { panelId, entryId, body, at_ms, by }: { panelId: string; entryId: string; body: ChangedBody; at_ms: number; by: string },
): Promise<boolean> {
  const entry = await entryToPutRight(ctx, panelId, entryId);
  if (isDeepStrictEqual({ ...entry.body, ...body }, entry.body) && at_ms === entry.at_ms) return false;
  if (at_ms > ctx.now_ms()) throw new Refusal("at", "That is still to come");
  if (entry.kind === "coat") {
    const coats = ofKind(livingEntries(await listEntries(ctx.db, panelId)), "coat");
    const i = coats.findIndex((c) => c.id === entryId);
    const [before, after] = [coats[i - 1], coats[i + 1]];
    if (before && at_ms < before.at_ms) throw new Refusal("at", "The coat before it ended later than that");
    if (after && at_ms > after.at_ms) throw new Refusal("at", "The coat after it ended earlier than that");
  }
  const next = { ...entry, body: { ...entry.body, ...body } } as EntryToPutRight;
  await recordEntry(ctx, {
    panelId,
    kind: entry.kind,
    body: await bodyOn(ctx, panelId, next),
    by,
    at_ms,
    simulated: entry.simulated,
    supersedes: entry.id,
  });
  return true;
}

/** A body with what of it follows from its panel: what a coat took with its settings as they are now, how a turned part lies. */
export async function bodyOn(ctx: ServerContext, panelId: string, { kind, body }: EntryToPutRight): Promise<BodyInputOf<PutRightKind>> {
  const panel = await getPanel(ctx.db, panelId);
  if (!panel) return body;
  const takenBy = async (coat: CoatSprayed): Promise<number | null> => {
    const job = await getJob(ctx.db, panel.jobId);
    return job ? sprayedVolume(panel, job.way, coat) : null;
  };
  switch (kind) {
    case "coat":
      return { ...body, volume_m3: await takenBy(body) };
    case "colourCoat": {
      const { settings, zone = "whole" } = body;
      return settings ? { ...body, volume_m3: await takenBy({ settings, zone, number: 1 }) } : body;
    }
    case "turn":
      return { ...body, tilt_rad: tiltHeld(body.how, panel) };
    default:
      return body;
  }
}
