import type { PanelInFlight } from "#core/models/schedule/next-panel";
import { nextWait } from "#core/course/next-wait";
import { isTurned } from "#core/panel/wet-build";
import { coatsOn, newestCoat, nextCoat } from "#core/panel/next-coat";
import type { Side } from "#core/record/kinds";
import type { ServerContext } from "../context";
import { type PanelView, loadJobViews } from "./panel-view";

export interface BoothPanel extends PanelInFlight {
  name: string;
  role: string;
  /** The coat to come, counted on its own face; side null where only one is sprayed. */
  next: { side: Side | null; number: number };
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
  const there = await loadJobViews(ctx, jobId);
  const [first] = there;
  if (!first) return null;
  return { vehicle: first.job.vehicle, formKey: first.formKey, panels: there.map(boothPanel) };
}

function boothPanel({ job, panel, product, state, shopFactors }: PanelView): BoothPanel {
  const { spraying } = state;
  const way = job.way;
  const wait = nextWait({ brief: panel, sheet: product.sheet, way, facts: state, shop: shopFactors });
  const last = newestCoat(state);
  const next = nextCoat(state, way, panel);
  const coats = coatsOn(state);
  return {
    id: panel.id,
    name: panel.name,
    product: product.sheet.name,
    role: next.role,
    coatsPlanned: panel.coatsPlanned * (panel.sides ?? 1),
    coats,
    next: { side: panel.sides === 2 ? next.side : null, number: next.number },
    lastCoat_ms: last?.entry.at_ms ?? null,
    loggedAs: last?.loggedAs ?? 0,
    wetReading_m: last?.entry.body.wetReading_m ?? null,
    spraying: spraying ? { number: coats + 1, since_ms: spraying.at_ms } : null,
    work: state.plan && { done: state.stepsDone.length, steps: state.plan.body.steps.length },
    flash: wait && { due_ms: wait.least_ms, late_ms: wait.latest_ms },
    before: wait?.what === "sand" ? "flatten" : wait?.what === "turn" && !isTurned(state) ? "turn" : null,
  };
}
