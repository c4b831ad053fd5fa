import type { PanelInFlight } from "#core/models/schedule/next-panel";
import { houseWay, plannedCoat } from "#core/models/ways/house-ways";
import type { ServerContext } from "../context";
import { listClocks } from "../repos/clock-repo";
import { loadJobViews } from "./panel-view";

export interface BoothPanel extends PanelInFlight {
  name: string;
  role: string;
  product: string;
  /** What the last coat was logged as: its wet comb names that number. */
  loggedAs: number;
  /** The last coat's wet comb, when one was read. */
  wetReading_m: number | null;
  /** A plan being worked through. */
  work: { done: number; steps: number } | null;
  /** When the last coat ended. */
  lastCoat_ms: number | null;
}

/** All panels of a job as the booth sees them; null when the job is not there. */
export async function loadBooth(
  ctx: ServerContext,
  jobId: string,
): Promise<{ vehicle: string; panels: BoothPanel[]; formKey: string } | null> {
  const [there, clocks] = await Promise.all([loadJobViews(ctx, jobId), listClocks(ctx.db, ctx.now_ms(), 200)]);
  const [first] = there;
  if (!first) return null;
  return {
    vehicle: first.job.vehicle,
    formKey: first.formKey,
    panels: there.map((v) => {
      const flash = clocks.find((c) => c.panelId === v.panel.id && c.kind === "flash");
      const { coats, spraying } = v.state;
      return {
        id: v.panel.id,
        name: v.panel.name,
        product: v.product.sheet.name,
        role: plannedCoat(houseWay(v.job.wayId), coats.length + 1).role,
        coatsPlanned: v.panel.coatsPlanned,
        coats: coats.length,
        lastCoat_ms: coats.at(-1)?.entry.at_ms ?? null,
        loggedAs: coats.at(-1)?.loggedAs ?? 0,
        wetReading_m: coats.at(-1)?.entry.body.wetReading_m ?? null,
        spraying: spraying ? { number: coats.length + 1, since_ms: spraying.at_ms } : null,
        work: v.state.plan && { done: v.state.stepsDone.length, steps: v.state.plan.body.steps.length },
        flash: flash ? { due_ms: flash.due_ms, late_ms: flash.late_ms } : null,
      };
    }),
  };
}
