import { courseOf } from "#core/course/course";
import { type StepHold, isNo } from "#core/course/step-hold";
import { type StepKind, nextAction } from "#core/course/steps";
import type { LayerKey } from "#core/models/prep/layer-names";
import type { BeforeCoat, PanelInFlight } from "#core/models/schedule/next-panel";
import { nextWait } from "#core/coat/next-wait";
import { isTurned } from "#core/panel/wet-build";
import { coatsOn, newestCoat } from "#core/panel/coats-on";
import { coatsAsked } from "#core/coat/asked";
import { type NextCoat, nextCoat } from "#core/coat/next-coat";
import type { Polygon } from "#core/kernel/geometry/geometry";
import { inRange } from "#core/kernel/guard";
import { fanOf } from "#core/models/spray/deposit";
import { rowsOver } from "#core/models/spray/row-plan";
import type { Pass } from "#core/models/spray/strokes";
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
  /** What says no to its next coat. */
  holds: readonly StepHold[];
  /** The coat below the clear that comes before it; null: none. */
  below: { layer: LayerKey; number: number; of: number } | null;
  /** The passes of its next coat, where its rows were planned, and how quickly the hand goes along them. */
  path: { outline: Polygon; passes: readonly Pass[]; handSpeed_m_s: number } | null;
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
  return { vehicle: first.job.vehicle, formKey: first.formKey, panels: there.map((v) => boothPanel(v, ctx.now_ms())) };
}

const BEFORE: Partial<Record<StepKind, BeforeCoat>> = {
  flatten: "flatten",
  cureToSand: "flatten",
  turn: "turn",
  settle: "turn",
  readBefore: "read",
};

/** The passes of a coat over a panel whose rows somebody planned. */
function pathOf({ shape, rows }: PanelView["panel"], { settings, number, zone }: NextCoat): BoothPanel["path"] {
  if (!rows || zone !== "whole") return null;
  const passes = inRange(() => rowsOver(shape.outline, { fan_m: fanOf(settings), overlap: settings.overlap }, rows, number));
  return passes && { outline: shape.outline, passes, handSpeed_m_s: settings.handSpeed_m_s };
}

/** One panel as the booth sees it. */
export function boothPanel(view: PanelView, now_ms: number): BoothPanel {
  const { job, panel, product, state } = view;
  const { spraying } = state;
  const asked = { ...coatsAsked(view, now_ms), finish: job.finish, forecast: false };
  const wait = nextWait(asked);
  const step = nextAction(courseOf(asked));
  const coming = step?.kind === "coat" || step?.layer ? step : null;
  const below = step?.kind === "colour" && step.layer ? { layer: step.layer, number: step.number!, of: step.of! } : null;
  const last = newestCoat(state);
  const next = nextCoat(asked);
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
    flash: wait
      ? { due_ms: wait.least_ms, late_ms: wait.latest_ms }
      : coming && coming.from_ms !== null
        ? { due_ms: coming.from_ms, late_ms: coming.latest_ms }
        : null,
    // The panel's own course says what comes first; booth view only says it large.
    before: coming?.holds.some(isNo)
      ? "held"
      : below
        ? "below"
        : step && BEFORE[step.kind]
          ? BEFORE[step.kind]!
          : wait?.what === "turn" && !isTurned(state)
            ? "turn"
            : null,
    holds: coming?.holds ?? [],
    below,
    path: pathOf(panel, next),
  };
}
