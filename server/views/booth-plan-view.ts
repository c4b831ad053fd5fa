import { startOfDay } from "date-fns";
import { timesAt } from "#core/models/product/sheet";
import { UNLOGGED_AIR_K } from "#core/models/trade-limits";
import { BOOTH_PARTS_MOST, type BoothPart, type BoothProblem, type BoothRules, type BoothWait } from "#core/models/schedule/booth-problem";
import { turnAfter_s } from "#core/models/ways/after-last-coat";
import { coatsAsked, nextAsked } from "#core/coat/asked";
import { nextWait } from "#core/coat/next-wait";
import { coatsOn, facesOf, newestCoat } from "#core/panel/coats-on";
import { isTurned } from "#core/panel/wet-build";
import type { ServerContext } from "../context";
import { type BoothPlanBody, getBoothPlan, rulesVersion } from "../repos/booth-plan-repo";
import { listClocks } from "../repos/clock-repo";
import { jobOfPanel } from "../repos/panel-repo";
import { countUnfinished, listUnfinished } from "../repos/summary-repo";
import { nextCoatTime_s } from "#core/coat/coat-time";
import { type CoatsAsked, coatsAhead } from "#core/coat/coats-ahead";
import { coatsToMix, facesToCome } from "#core/coat/litres";
import type { Side } from "#core/record/kinds";
import { type BoothPanel, boothPanel } from "./booth-view";
import { clearFrom_ms } from "#core/course/layer-steps";
import { type PanelView, loadPanelView } from "./panel-view";

const MS = 1000;
const MINUTE_MS = 60_000;
/** A booth of a small shop: common practice, to be changed on the page. */
export const DEFAULT_RULES: BoothRules = { painters: 1, places: 6, mix_s: 300, potsMost: null, carryOut_s: 900, end_s: null };
const MOST_CLOCKS = 200;

export interface BoothCandidate {
  panelId: string;
  jobId: string;
  name: string;
  vehicle: string;
  product: string;
  coatsPlanned: number;
  coats: number;
  chosen: boolean;
  sides: 1 | 2;
  group: string | null;
  /** What is typed for it, and what a coat takes otherwise, by the coat's owner; null: it is not chosen, and was not read whole. */
  typedSpray_s: number | null;
  usualSpray_s: number | null;
}
export interface BoothPlanView {
  candidates: BoothCandidate[];
  /** Unfinished panels beyond those that are offered. */
  notOffered: number;
  rules: BoothPlanBody["rules"];
  problem: BoothProblem;
  /** The plan's zero, and midnight before it by the shop's clock. */
  origin_ms: number;
  midnight_ms: number;
  start_ms: number;
  /** Coats that are on, of the chosen parts: what the chart shows before the plan. */
  sprayed: { panelId: string; coat: number; start_ms: number; end_ms: number }[];
  /** Of the chosen parts those that something comes before, or says no to. */
  first: { panelId: string; before: NonNullable<BoothPanel["before"]>; holds: BoothPanel["holds"] }[];
  fixed: BoothPlanBody["fixed"];
  /** Fixed times that have passed without their coat. */
  missed: number;
  promisedEnd_ms: number | null;
  stored: boolean;
  /** Of the plan with its fixed times; what moves one is sent upon it. */
  version: number;
  /** Of parts, rules and start, which the form says. */
  rulesVersion: string;
}

/** So many others are offered beside those that stand in a plan, newest jobs first. */
const OFFERED_MOST = 60;

/**
 * The day's plan as the page and its calendar file need it: the chosen panels as a problem from now on, and unfinished ones to choose from. Only
 * the chosen ones are read whole.
 * @param jobId whose panels are chosen as long as no plan is stored
 * @param proposed a plan about to be stored, looked at in the place of the stored one
 */
export async function loadBoothPlan(ctx: ServerContext, jobId: string | null, proposed?: BoothPlanBody): Promise<BoothPlanView> {
  const now_ms = ctx.now_ms();
  const [stored, clocks, offered, unfinished] = await Promise.all([
    getBoothPlan(ctx.db),
    listClocks(ctx.db, now_ms, MOST_CLOCKS),
    listUnfinished(ctx.db, { most: OFFERED_MOST }),
    countUnfinished(ctx.db),
  ]);
  const body = proposed ?? stored?.body ?? null;
  const own = body || jobId === null ? [] : await listUnfinished(ctx.db, { most: BOOTH_PARTS_MOST, jobId });
  const chosenIds = body ? body.parts.map((p) => p.panelId) : own.map((c) => c.panelId);
  const start_ms = body?.start_ms ?? now_ms;
  const origin_ms = Math.max(start_ms, Math.ceil(now_ms / MINUTE_MS) * MINUTE_MS);
  const { chosen, others, rules, parts, ahead, fixed } = await partsOf({ chosenIds, ctx, body, offered, origin_ms });
  return {
    candidates: [
      ...chosen.map(({ v, typed }) => ({
        panelId: v.panel.id,
        jobId: v.job.id,
        name: v.panel.name,
        vehicle: v.job.vehicle,
        product: v.product.sheet.name,
        coatsPlanned: v.panel.coatsPlanned,
        coats: coatsOn(v.state),
        chosen: true,
        sides: typed?.sides ?? v.panel.sides ?? (1 as const),
        group: typed?.group ?? null,
        typedSpray_s: typed?.spray_s ?? null,
        usualSpray_s: sprayTime_s(v),
      })),
      ...others.map((c) => ({ ...c, chosen: false, sides: 1 as const, group: null, typedSpray_s: null, usualSpray_s: null })),
    ],
    notOffered: Math.max(0, unfinished - others.length - chosen.length),
    rules,
    problem: {
      parts,
      rules: {
        painters: rules.painters,
        places: rules.places,
        mix_s: rules.mix_s,
        potsMost: rules.potsMost,
        carryOut_s: rules.carryOut_s,
        end_s: rules.end_ms === null ? null : (rules.end_ms - origin_ms) / MS,
      },
      fixed: ahead.map((f) => ({ part: f.panelId, coat: f.coat, start_s: (f.start_ms - origin_ms) / MS })),
      openPots: clocks
        .filter((c) => c.kind === "pot" && c.due_ms > origin_ms)
        .flatMap((c) => {
          const v = chosen.find(({ v: x }) => x.panel.id === c.panelId)?.v;
          return v ? [{ product: v.product.sheet.name, until_s: (c.due_ms - origin_ms) / MS }] : [];
        })
        .sort((a, b) => a.until_s - b.until_s),
    },
    origin_ms,
    midnight_ms: startOfDay(origin_ms).getTime(),
    start_ms,
    sprayed: chosen.flatMap(({ v }) =>
      v.state.coats.map(({ entry }) => ({
        panelId: v.panel.id,
        coat: entry.body.number,
        start_ms: entry.at_ms - (entry.body.duration_s ?? sprayTime_s(v)) * MS,
        end_ms: entry.at_ms,
      })),
    ),
    first: chosen.flatMap(({ v }) => {
      const { before = null, holds } = boothPanel(v, now_ms);
      return before === "read" || before === "held" ? [{ panelId: v.panel.id, before, holds }] : [];
    }),
    fixed,
    missed: fixed.length - ahead.length,
    promisedEnd_ms: body?.promisedEnd_ms ?? null,
    stored: stored !== null,
    version: stored?.version ?? 0,
    rulesVersion: rulesVersion(stored?.body ?? null),
  };
}

/** The parts that take part, as they stand, and the times that were fixed for them. */
async function partsOf({
  chosenIds,
  ctx,
  body,
  offered,
  origin_ms,
}: {
  chosenIds: string[];
  ctx: ServerContext;
  body: BoothPlanBody | null;
  offered: ({ panelId: string; jobId: string; name: string; vehicle: string } & { product: string; coatsPlanned: number; coats: number })[];
  origin_ms: number;
}) {
  const views = await Promise.all(
    chosenIds.map(async (id) => {
      const job = await jobOfPanel(ctx.db, id);
      return job === null ? null : loadPanelView(ctx, job, id);
    }),
  );
  const chosen = views
    .filter((v) => v !== null)
    .filter((v) => v.job.archivedAt_ms === null)
    .map((v) => ({ v, typed: body?.parts.find((p) => p.panelId === v.panel.id) ?? null }));
  const others = offered.filter((c) => !chosen.some(({ v }) => v.panel.id === c.panelId));
  const parts = chosen.map(({ v, typed }) => partOf(v, typed, origin_ms));
  const rules = body?.rules ?? { ...DEFAULT_RULES, end_ms: null };
  const fixed = (body?.fixed ?? []).filter((f) => {
    const p = parts.find((x) => x.id === f.panelId);
    return p && f.coat > p.done;
  });
  const ahead = fixed.filter((f) => f.start_ms >= origin_ms);
  return { chosen, others, rules, parts, ahead, fixed };
}

const sprayTime_s = (v: PanelView): number => nextCoatTime_s(nextAsked(v));

function partOf(v: PanelView, typed: BoothPlanBody["parts"][number] | null, origin_ms: number): BoothPart {
  const { panel, state } = v;
  const { sheet } = v.product;
  const air_K = state.climate?.body.air_K ?? UNLOGGED_AIR_K;
  const sides = typed?.sides ?? panel.sides ?? 1;
  const spray_s = typed?.spray_s ?? sprayTime_s(v);
  const { coatsPlanned } = panel;
  const running = state.spraying;
  const clear_ms = clearFrom_ms({ ...coatsAsked(v, origin_ms), now_ms: origin_ms });
  const coats = coatsOn(state);
  const done = Math.min(coatsPlanned * sides, coats + (running ? 1 : 0));
  const last_ms = running ? Math.max(origin_ms, running.at_ms + spray_s * MS) : (newestCoat(state)?.entry.at_ms ?? null);
  const turn_s = turnAfter_s(sheet, air_K);
  const asked: CoatsAsked = { ...coatsAsked(v, origin_ms), brief: { ...panel, sides } };
  const faces = facesOf({ sides });
  const waits = faces.flatMap((side, i) => [...(i > 0 ? [{ least_s: turn_s, most_s: null }] : []), ...faceWaits(asked, side, air_K)]);
  // The wait that runs is the panel's own: by what was sprayed, at the temperatures that were logged.
  const now = running ? null : nextWait(asked);
  if (!running && waits[coats - 1] && isTurned(state)) waits[coats - 1] = { least_s: 0, most_s: null };
  if (now && waits[coats - 1]) {
    const most_ms = now.best_ms !== null && now.best_ms > origin_ms ? now.best_ms : now.latest_ms;
    waits[coats - 1] = { least_s: (now.least_ms - now.from_ms) / MS, most_s: most_ms === null ? null : (most_ms - now.from_ms) / MS };
  }
  const volumes = facesToCome(asked).flatMap((side) => coatsToMix(asked, side).map((c) => c.volume_m3));
  return {
    id: panel.id,
    coats: coatsPlanned,
    spray_s,
    ...timesAt(sheet, air_K),
    waits,
    sides,
    turn_s,
    group: typed?.group ?? null,
    product: sheet.name,
    volume_m3: volumes.length > 0 ? volumes.reduce((a, x) => a + x, 0) / volumes.length : 0,
    done,
    doneEnd_s: done > 0 && last_ms !== null ? (last_ms - origin_ms) / MS : null,
    ...(clear_ms !== null && done === 0 ? { from_s: (clear_ms - origin_ms) / MS } : {}),
  };
}

/** The waits on one face, coat by coat, as the coats to come have them; the sheet's own where the model does not reach. */
function faceWaits(asked: CoatsAsked, side: Side, air_K: number): BoothWait[] {
  const ahead = coatsAhead(asked, side) ?? [];
  const { flashMin_s, flashMax_s } = timesAt(asked.sheet, air_K);
  return Array.from({ length: asked.brief.coatsPlanned - 1 }, (_, i): BoothWait => {
    const wait = ahead.find((c) => c.number === i + 1)?.wait;
    return wait
      ? { least_s: wait.least_s, most_s: Number.isFinite(wait.best_s) ? wait.best_s : null }
      : { least_s: flashMin_s, most_s: flashMax_s };
  });
}
