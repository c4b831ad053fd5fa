import type { Phase } from "#core/record/kinds";
import { ofKind } from "#core/record/entry";
import { livingEntries } from "#core/record/timeline";
import { thinsPanel } from "#core/panel/thins-panel";
import { noGaugeReads } from "#core/panel/brief";
import { derivePanel } from "#core/panel/derive-panel";
import { type Point, boundingBox } from "#core/kernel/geometry/geometry";
import { type HiddenPanel, standInGauge } from "#stand-ins/film-gauge";
import { Refusal } from "../commands/refusal";
import { type EntryInput, recordEntries, recordEntry } from "../commands/record-entry";
import type { ServerContext } from "../context";
import { listEntries } from "../repos/ledger-repo";
import { getPanel } from "../repos/panel-repo";
import { getProductRevision } from "../repos/product-repo";
import { seedOf } from "#core/kernel/stats/seed-of";
import { requireStandIns } from "./stand-ins-allowed";

const SEED_START = 7;

/**
 * Reads spots with the stand-in gauge and records them, marked simulated. The hidden panel follows what was logged: coats add their film
 * (times a hidden factor), steps take theirs off.
 */
export async function takeStandInReadings(
  ctx: ServerContext,
  input: { panelId: string; phase: Phase; spots: readonly { name: string; at: Point }[]; count: number; by: string; template?: boolean },
): Promise<string[]> {
  const hidden = await hiddenPanel(ctx, input.panelId, input.phase);
  const gauge = standInGauge(hidden, { visitSeed: seedOf(`${input.panelId} ${input.phase} ${ctx.now_ms()}`, SEED_START) });
  const entries = input.spots.map((spot): EntryInput<"reading"> => ({
    panelId: input.panelId,
    kind: "reading",
    by: input.by,
    simulated: gauge.simulated,
    body: {
      phase: input.phase,
      spot: spot.name,
      at: { x_m: spot.at[0], y_m: spot.at[1] },
      gauge: gauge.name,
      template: input.template ?? false,
      readings: Array.from({ length: input.count }, () => {
        const answer = gauge.read(spot.at);
        if (!answer.ok) throw new Refusal(null, answer.fault);
        return { thickness_m: answer.total_m, entered: (answer.total_m * 1e6).toFixed(0), unit: "µm" };
      }),
    },
  }));
  return recordEntries(ctx, input.panelId, entries);
}

/** More comes off the hidden panel than forecast. */
const TRUE_REMOVAL = 1.05;
const MARK_READINGS = 3;

/** Readings of the stand-in gauge at the mark of the step in hand: before it, or after as much as it truly takes off. Nothing is recorded. */
export async function readStandInMark(ctx: ServerContext, panelId: string, when: "before" | "after"): Promise<{ readings_m: number[] }> {
  await requireStandIns(ctx);
  const panel = await getPanel(ctx.db, panelId);
  const product = panel && (await getProductRevision(ctx.db, panel.productRevisionId));
  if (!panel || !product) throw new Refusal(null, "This panel is no longer there");
  const state = derivePanel(panel, product.sheet, await listEntries(ctx.db, panelId));
  const step = state.plan?.body.steps[state.stepsDone.length];
  const hidden = await hiddenPanel(ctx, panelId, "recheck");
  const taken_m = when === "after" ? TRUE_REMOVAL * (step?.removal_m ?? 0) : 0;
  const gauge = standInGauge(
    { ...hidden, clear_m: Math.max(0, hidden.clear_m - taken_m) },
    { visitSeed: seedOf(`${panelId} ${when} ${ctx.now_ms()}`, SEED_START) },
  );
  const { x0, y0, x1, y1 } = boundingBox(panel.shape.outline);
  const at: Point = state.spots[0]?.at ?? [(x0 + x1) / 2, (y0 + y1) / 2];
  const readings_m = Array.from({ length: MARK_READINGS }, () => {
    const answer = gauge.read(at);
    if (!answer.ok) throw new Refusal(null, answer.fault);
    return answer.total_m;
  });
  return { readings_m };
}

/** Foil of the stand-in's own case, and how well it is known. */
const STAND_IN_FOIL = { foil_m: 148e-6, uFoil_m: 1e-6 } as const;
const CHECK_READINGS = 3;

/** Checks the stand-in gauge on bare metal and on its foil and records that, marked simulated. */
export async function checkStandInGauge(ctx: ServerContext, { panelId, by }: { panelId: string; by: string }): Promise<string> {
  const hidden = await hiddenPanel(ctx, panelId, "before");
  const gauge = standInGauge(hidden, { visitSeed: seedOf(`${panelId} check ${ctx.now_ms()}`, SEED_START) });
  const read = (foil_m: number) =>
    Array.from({ length: CHECK_READINGS }, () => {
      const answer = gauge.readFoil(foil_m);
      if (!answer.ok) throw new Refusal(null, answer.fault);
      return { thickness_m: answer.total_m, entered: (answer.total_m * 1e6).toFixed(0), unit: "µm" };
    });
  const body = { gauge: gauge.name, ...STAND_IN_FOIL, zero: read(0), onFoil: read(STAND_IN_FOIL.foil_m), correct: false };
  return recordEntry(ctx, { panelId, kind: "gaugeCheck", body, by, simulated: gauge.simulated });
}

/** The true film behind the stand-in gauge, as it follows from what was logged: for checking what the program says against. */
export async function hiddenPanel(ctx: ServerContext, panelId: string, phase: Phase): Promise<HiddenPanel> {
  const panel = await getPanel(ctx.db, panelId);
  const product = panel && (await getProductRevision(ctx.db, panel.productRevisionId));
  if (!panel || !product) throw new Refusal(null, "This panel is no longer there");
  if (noGaugeReads(panel.substrate)) throw new Refusal(null, "No magnetic gauge reads on plastic: read a metal strip beside it");
  const entries = await listEntries(ctx.db, panelId);
  const state = derivePanel(panel, product.sheet, entries);
  const seed = seedOf(panelId, SEED_START);
  const laid_m = state.coats.reduce((a, c) => a + c.predicted.dry_m, 0) * (0.94 + (seed % 13) / 100);
  const living = livingEntries(entries);
  const thinned = [...ofKind(living, "step").filter(thinsPanel), ...ofKind(living, "flatten")];
  const taken_m = thinned.reduce((a, s) => a + s.body.removal_m, 0) * TRUE_REMOVAL;
  const under_m = panel.substrate === "factory" ? 70e-6 : 96e-6;
  const factoryClear_m = panel.substrate === "factory" && state.coats.length === 0 ? 44e-6 : 0;
  return { outline: panel.shape.outline, under_m, clear_m: phase === "before" ? 0 : Math.max(0, laid_m + factoryClear_m - taken_m), seed };
}
