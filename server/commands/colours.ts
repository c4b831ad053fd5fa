import { type JobColours, type PartColour, shadeOf } from "#core/models/colour/job-colours";
import type { ServerContext } from "../context";
import { getJob, setJobColours } from "../repos/job-repo";
import { listPanels, setPartColour } from "../repos/panel-repo";
import { coloursVersion } from "../views/vehicle-view";
import { appendEntries } from "./record-entry";
import { Refusal, refuseOther } from "./refusal";
import { run } from "./run";

/**
 * Says which colours a vehicle has and which of its parts has which; each part that has another keeps word of it. All in one.
 * @param parts colour of each panel by its id; those not named stay as they are
 * @throws ChangedMeanwhile where another window has changed them since
 */
export async function setColours(
  ctx: ServerContext,
  {
    jobId,
    colours,
    parts,
    by,
    expected,
  }: { jobId: string; colours: JobColours; parts: ReadonlyMap<string, PartColour>; by: string; expected: string | null },
): Promise<void> {
  await run(ctx, null, async (running) => {
    const { db, tell } = running;
    const [before, panels] = [await getJob(db, jobId), await listPanels(db, jobId)];
    if (!before) throw new Refusal(null, "This job is no longer there", 404);
    refuseOther(expected, before, coloursVersion(before, panels));
    const after = { ...before, colours };
    await setJobColours(db, jobId, colours);
    for (const { id, colour: was = "first" } of panels) {
      const colour = colours.second ? (parts.get(id) ?? was) : "first";
      if (colour !== was) await setPartColour(db, id, colour);
      const [from, to] = [shadeOf(before, was).name || "no name", shadeOf(after, colour).name || "no name"];
      if (from !== to)
        await appendEntries(ctx, running, id, [{ panelId: id, kind: "note", body: { text: `Colour of this part: ${from} → ${to}` }, by }]);
    }
    tell({ topic: "job", id: jobId });
  });
}
