import { isDeepStrictEqual } from "node:util";
import { sprayedVolume } from "#core/panel/pots";
import { tiltHeld } from "#core/panel/wet-build";
import type { BodyInputOf, BodyOf } from "#core/record/bodies";
import { ofKind } from "#core/record/entry";
import { livingEntries } from "#core/record/timeline";
import type { ServerContext } from "../context";
import { getJob } from "../repos/job-repo";
import { listEntries } from "../repos/ledger-repo";
import { type Panel, getPanel } from "../repos/panel-repo";
import { type ChangedBody, type EntryToPutRight, entryToPutRight } from "./put-right";
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
  const moved = await bodyThere(ctx, { ...entry, body: { ...entry.body, ...body } } as EntryToPutRight, { from, to, at_ms });
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

/** The body as the other panel has it. */
async function bodyThere(
  ctx: ServerContext,
  entry: EntryToPutRight,
  { from, to, at_ms }: { from: Panel; to: Panel; at_ms: number },
): Promise<BodyInputOf<EntryToPutRight["kind"]>> {
  switch (entry.kind) {
    case "reading":
      if (!isDeepStrictEqual(from.shape.outline, to.shape.outline))
        throw new Refusal("panel", `${to.name} has another outline: take this reading out, and type it at its spot there`);
      return entry.body;
    case "coat": {
      const side = to.sides === 2 ? entry.body.side : "front";
      const coats = ofKind(livingEntries(await listEntries(ctx.db, to.id)), "coat").filter((c) => c.body.side === side);
      if (coats.some((c) => c.at_ms > at_ms)) throw new Refusal("panel", `A coat that is on ${to.name} already ended later than that`);
      return { ...entry.body, side, number: coats.length + 1, volume_m3: await takenThere(ctx, to, entry.body) };
    }
    case "colourCoat": {
      const { settings, zone = "whole" } = entry.body;
      return settings ? { ...entry.body, volume_m3: await takenThere(ctx, to, { settings, zone }) } : entry.body;
    }
    case "mix":
      return { ...entry.body, panels: [...new Set(entry.body.panels.map((id) => (id === from.id ? to.id : id)))] };
    case "turn":
      return { ...entry.body, tilt_rad: tiltHeld(entry.body.how, to) };
    default:
      return entry.body;
  }
}

async function takenThere(ctx: ServerContext, to: Panel, coat: Pick<BodyOf<"coat">, "settings" | "zone">): Promise<number | null> {
  const job = await getJob(ctx.db, to.jobId);
  return job ? sprayedVolume(to, job.way, coat) : null;
}
