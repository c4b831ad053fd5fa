import { isDeepStrictEqual } from "node:util";
import { ofKind } from "#core/record/entry";
import { livingEntries } from "#core/record/timeline";
import type { ServerContext } from "../context";
import { listEntries } from "../repos/ledger-repo";
import { type Panel, getPanel } from "../repos/panel-repo";
import { type ChangedBody, type EntryToPutRight, bodyOn, entryToPutRight } from "./put-right";
import { appendEntries } from "./record-entry";
import { Refusal } from "./refusal";
import { run } from "./run";

interface Move {
  panelId: string;
  entryId: string;
  /** The panel of the same job that it belonged to. */
  toPanelId: string;
  body: ChangedBody;
  at_ms: number;
  by: string;
}

/**
 * Moves an entry to the panel of its job that it belonged to: there it stands as if it had been entered there, at its own time; here it is taken out,
 * and both ledgers keep what was done. All of it or nothing.
 * @throws Refusal where it does not fit there: a place of another outline, a coat before one that is on already, an entry that counts no more
 */
export async function moveEntry(ctx: ServerContext, { panelId, entryId, toPanelId, body, at_ms, by }: Move): Promise<void> {
  const entry = await entryToPutRight(ctx, panelId, entryId);
  const [from, to] = await Promise.all([getPanel(ctx.db, panelId), getPanel(ctx.db, toPanelId)]);
  if (!from || to?.jobId !== from.jobId) throw new Refusal("panel", "That panel is not of this job");
  if (at_ms > ctx.now_ms()) throw new Refusal("at", "That is still to come");
  const there = await placedThere(ctx, entry, { from, to, at_ms });
  const moved = await bodyOn(ctx, toPanelId, { ...entry, body: { ...entry.body, ...body, ...there } } as EntryToPutRight);
  await run(ctx, null, async (running) => {
    const common = { by, simulated: false };
    await appendEntries(ctx, running, panelId, [
      { ...common, panelId, kind: "strike", body: { reason: `belongs to ${to.name}`, whole: true }, supersedes: entryId },
    ]);
    await appendEntries(ctx, running, toPanelId, [
      { ...common, panelId: toPanelId, kind: entry.kind, body: moved, at_ms, simulated: entry.simulated },
    ]);
  });
}

/** What of an entry is another on the other panel. */
async function placedThere(
  ctx: ServerContext,
  entry: EntryToPutRight,
  { from, to, at_ms }: { from: Panel; to: Panel; at_ms: number },
): Promise<ChangedBody> {
  switch (entry.kind) {
    case "reading":
      if (!isDeepStrictEqual(from.shape.outline, to.shape.outline))
        throw new Refusal("panel", `${to.name} has another outline: take this reading out, and type it at its spot there`);
      return {};
    case "coat": {
      const side = to.sides === 2 ? entry.body.side : "front";
      const coats = ofKind(livingEntries(await listEntries(ctx.db, to.id)), "coat").filter((c) => c.body.side === side);
      if (coats.some((c) => c.at_ms > at_ms)) throw new Refusal("panel", `A coat that is on ${to.name} already ended later than that`);
      return { side, number: coats.length + 1 };
    }
    case "mix":
      return { panels: [...new Set(entry.body.panels.map((id) => (id === from.id ? to.id : id)))] };
    default:
      return {};
  }
}
