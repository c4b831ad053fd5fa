import { correctionSchool } from "#core/models/correction/schools";
import type { Point } from "#core/kernel/geometry/geometry";
import { type ShapeKind, SHAPES, panelShape, suggestSpots } from "#core/kernel/geometry/shapes";
import { holdOf } from "#core/models/defects/holds";
import type { DefectKind } from "#core/models/defects/kinds";
import { normals, seededRandom } from "#core/kernel/stats/random";
import type { RowPlan } from "#core/models/spray/row-plan";
import type { BodyInputOf, EntryKind } from "#core/record/bodies";
import { threeFilms, typedFilm } from "#core/panel/testing/test-ledger";
import { livingEntries } from "#core/record/timeline";
import { usualChoice } from "#core/judge/questions";
import { completeStep, passAgain, storePlan } from "#server/commands/correction";
import { createJob, saveProduct } from "#server/commands/jobs";
import { recordEntry, strikeEntry } from "#server/commands/record-entry";
import { markSeenTo } from "#server/commands/see-to";
import { recordReading } from "#server/commands/record-reading";
import type { ServerContext } from "#server/context";
import { layBelow } from "./layers";
import { listEntries } from "#server/repos/ledger-repo";
import { coatBody, sheet } from "#server/testing/fixtures";
import { loadPanelView } from "#server/views/panel-view";

const by = "painter A";
const KINDS: ShapeKind[] = ["bonnet", "door", "wing", "quarter", "bootLid"];
const SUBSTRATES = ["factory", "refinish", "unknown"] as const;
const FINISHES = ["flat", "match", "match", "matte"] as const;
const um = (x: number) => x * 1e-6;
/** A mark read three times before a step and after it. */
const atMark = (total_um: number, off_um: number) => ({ before: threeFilms(total_um), after: threeFilms(total_um - off_um) });

/** An area as somebody may draw it about a place, kept on the drawing. */
const squareAbout = ([x, y]: Point, half_m: number) =>
  [
    [-1, -1],
    [1, -1],
    [1, 1],
    [-1, 1],
  ].map(([i, j]) => ({ x_m: Math.max(0, x + i! * half_m), y_m: Math.max(0, y + j! * half_m) }));

export interface MadePanel {
  seed: number;
  jobId: string;
  panelId: string;
  /** What was done, in words: what a disagreement is told with. */
  story: string[];
}

/** Its clear, out of a random stream of its own: now and then a single stage, a cup time, two reducers. */
function sheetOf(seed: number): typeof sheet {
  const random = seededRandom(500_003 + 13 * seed);
  const kind = random() < 0.12 ? ("single stage" as const) : sheet.kind;
  const viscosity = random() < 0.3 ? { cup: "din4" as const, efflux_s: 15 + 12 * random(), temperature_K: 293.15 } : null;
  return { ...sheet, kind, viscosity, reducerMin: random() < 0.3 ? 0.05 : sheet.reducerMin, reducerMax: Math.max(0.1, sheet.reducerMax) };
}

/** How a command reaches the shop: at once, or by way of a device that the shop does not answer. */
export type Send = <T>(command: (ctx: ServerContext) => Promise<T>) => Promise<T>;

/**
 * A panel with a life: builds, readings with and without before, sanding, runs and nibs, plans half worked, corrections, strikes and their undoing,
 * all through the commands that the pages use. The seed alone decides it.
 */
export async function makePanel(
  ctx: ServerContext & { advance(ms: number): void },
  seed: number,
  send: Send = (command) => command(ctx),
): Promise<MadePanel> {
  const random = seededRandom(700_001 + 31 * seed);
  const normal = normals(random);
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!;
  const chance = (p: number) => random() < p;
  const kind = pick(KINDS);
  const [width_m, height_m] = SHAPES[kind].size_m;
  const shape = panelShape(kind, { width_m, height_m });
  const product = await send((at) => saveProduct(at, sheetOf(seed)));
  const story: string[] = [`seed ${seed}, ${kind}`];
  const finish = pick(FINISHES);
  const sides: 1 | 2 = chance(0.2) ? 2 : 1;
  const coatsPlanned = pick([2, 2, 3]);
  if (sides === 2) story.push("two faces");
  const rows = rowsOf(seed);
  if (rows) story.push("rows planned");
  const job: Parameters<typeof createJob>[1] = {
    vehicle: `Panel ${seed}`,
    colourName: "grey",
    colourCss: "#888888",
    finish,
    wayId: pick(["two-full", "tack-full", "second-heavier", "patch-first"]),
    clientKey: null,
    panel: {
      name: "Part",
      shape,
      sides,
      tilt_rad: pick([0, Math.PI / 2, Math.PI / 2]),
      substrate: pick(SUBSTRATES),
      productRevisionId: product.revisionId,
      coatsPlanned,
      rows,
    },
  };
  const { jobId, panelId } = await send((at) => createJob(at, job));
  const add = <K extends EntryKind>(what: K, body: BodyInputOf<K>, supersedes: string | null = null) => {
    ctx.advance(60_000);
    return send((at) => recordEntry(at, { panelId, kind: what, body, by, supersedes }));
  };
  const strike = (id: string, whole: boolean) => send((at) => strikeEntry(at, id, { by, reason: "", whole }));
  const view = async (at: ServerContext = ctx) => (await loadPanelView(at, jobId, panelId))!;

  const places = suggestSpots(shape.outline, 3 + Math.floor(6 * random()), { bodyLines: shape.bodyLines });
  const under = 85 + 25 * random();
  const state = { clear: 0, number: 0 };
  const reading = (phase: "before" | "after" | "recheck", at: Point, spot: number, film: number): BodyInputOf<"reading"> => ({
    phase,
    spot: String(spot),
    at: { x_m: at[0], y_m: at[1] },
    gauge: "typed",
    readings: [0, 1, 2].map(() => typedFilm(Math.round(film + 1.5 * normal()))),
  });
  const read = async (phase: "before" | "after" | "recheck", share = 1) => {
    story.push(`read ${phase}${share < 1 ? " at some" : ""}`);
    for (const [i, at] of places.entries()) {
      if (!chance(share)) continue;
      const film = under + (phase === "before" ? 0 : state.clear) + 3 * normal();
      const id = await add("reading", reading(phase, at, i + 1, film));
      if (chance(0.06)) {
        story.push(`corrected spot ${i + 1}`);
        const second = await add("reading", reading(phase, at, i + 1, film), id);
        if (chance(0.4)) await add("reading", reading(phase, at, i + 1, film), second);
      } else if (chance(0.05)) {
        story.push(`struck spot ${i + 1}`);
        const taken = await strike(id, chance(0.5));
        if (chance(0.5)) await strike(taken, false);
      }
    }
  };
  /** What is in the gun, and the gun itself: another mix and another hand now and then. */
  let hand = { settings: coatBody(1).settings, reducer: 0 };
  const handSet = () => ({
    ...coatBody(1).settings,
    handSpeed_m_s: 0.26 + 0.24 * random(),
    distance_m: 0.15 + 0.06 * random(),
    fluidRate_m3_s: ((200 + 100 * random()) * 1e-6) / 60,
  });
  const mix = async () => {
    const [reducer, speed] = [pick([0, 0.05, 0.1, 0.2]), pick(["slow", "medium", "fast", null] as const)];
    story.push(`mixed ${100 * reducer} % ${speed ?? "own"} hardener`);
    hand = { ...hand, reducer };
    await add("mix", { volume_m3: 400e-6, reducer, potLife_s: 5400, speed });
  };
  const coats = async (count: number) => {
    story.push(`${count} coats`);
    if (chance(0.4)) await mix();
    if (chance(0.3)) await add("gunSet", { name: "own gun", gunId: null, settings: handSet() });
    for (let i = 0; i < count; i++) {
      if (chance(0.2)) hand = { ...hand, settings: handSet() };
      const body = { ...coatBody(++state.number), ...hand, duration_s: chance(0.3) ? 200 + 300 * random() : null };
      const id = await add("coat", body);
      if (chance(0.08)) await add("coat", body, id);
      state.clear += 24 + 8 * random();
    }
  };
  /** The back of a part with two faces, and how it is turned. */
  const backFirst = async () => {
    const count = pick([1, 2, 2]);
    story.push(`${count} coats on the back`);
    for (let i = 0; i < count; i++) await add("coat", { ...coatBody(i + 1), side: "back" });
    if (chance(0.3)) ctx.advance(2 * 3600_000);
    if (chance(0.8)) await add("turn", { how: pick(["upright", "laid", "hung", "held"] as const), side: "front", tilt_rad: 0 });
  };
  /** Heat: switched on, told by hand, or seen by a probe. */
  const heat = async () => {
    const how = pick(["on", "on and off", "probe"] as const);
    story.push(`heat ${how}`);
    if (how !== "probe") await add("bakeStart", { air_K: null });
    if (how === "on and off") {
      ctx.advance(30 * 60_000);
      await add("bake", { part_K: 333, time_s: 1800 });
    }
    const warm = [0, 300, 900, 2400].map((at_s, i) => ({ at_s, part_K: 295 + 12 * i * random() }));
    if (how === "probe") await add("oven", { probe: "stand-in", samples: warm });
    if (chance(0.5)) ctx.advance(pick([10, 45, 600]) * 60_000);
  };
  /** A mark that nobody sized, but for what is said of it. */
  const note = (kind: DefectKind, at: Point, own: Partial<BodyInputOf<"defect">>) =>
    add("defect", {
      kind,
      at: { x_m: at[0], y_m: at[1] },
      length_m: null,
      width_m: null,
      height_m: null,
      measured: false,
      ...own,
    });
  const faults = async () => {
    const inside = () => pick(places);
    if (chance(0.4)) {
      const at = inside();
      story.push("a run");
      await add("defect", {
        kind: "run",
        at: { x_m: at[0], y_m: at[1] },
        length_m: 0.03 + 0.05 * random(),
        width_m: 0.008,
        height_m: um(20 + 60 * random()),
        measured: true,
      });
    }
    if (chance(0.5)) {
      const at = [inside(), inside()];
      story.push("nibs");
      await note("nib", at[0]!, {
        count: 1 + Math.floor(4 * random()),
        ...(chance(0.5) ? { trace: { as: "points" as const, at: at.map(([x_m, y_m]) => ({ x_m, y_m })) } } : {}),
      });
    }
    if (chance(0.3)) {
      const at = inside();
      await note("peel", at, {
        height_m: um(1 + 6 * random()),
        measured: chance(0.5),
        ...(chance(0.5) ? { trace: { as: "area" as const, at: squareAbout(at, 0.05 + 0.2 * random()) } } : {}),
      });
    }
    if (chance(0.15)) {
      const at = inside();
      story.push("craters");
      await note("crater", at, { count: 1 + Math.floor(3 * random()) });
    }
  };
  /** What holds work back, or is marked before any clear. */
  const holding = async () => {
    const kind = pick([
      "softFilm",
      "peeling",
      "wrinkling",
      "pinhole",
      "pop",
      "dieBack",
      "burn",
      "cutThrough",
      "dustInBase",
      "halo",
    ] as const);
    story.push(`marked ${kind}`);
    const id = await note(kind, pick(places), {});
    const hold = holdOf(kind);
    if (chance(0.3)) {
      story.push("taken out");
      await strike(id, true);
    } else if (hold && chance(0.4)) {
      story.push(`seen to: ${hold.until}`);
      await send((at) => markSeenTo(at, { panelId, body: { markId: id, as: hold.until }, by, clientKey: null }));
    }
  };
  /** A figure typed wrong and typed again: in the place of the first, or beside it. */
  const retyped = async (phase: "before" | "after") => {
    const spot = 1 + Math.floor(places.length * random());
    const at = places[spot - 1]!;
    const film = under + (phase === "before" ? 0 : state.clear);
    const body = (film_um: number) => ({ ...reading(phase, at, spot, film_um), readings: [typedFilm(Math.round(film_um))] });
    ctx.advance(60_000);
    const wrong = body(film + 40 + 200 * random());
    const slip = await send((at) =>
      recordReading(at, { panelId, body: wrong, by, clientKey: `slip ${seed} ${phase}`, at_ms: at.now_ms(), replaces: [] }),
    );
    const replaces = chance(0.6) ? [slip] : [];
    story.push(`slip at spot ${spot}, ${replaces.length > 0 ? "replaced" : "left beside it"}`);
    ctx.advance(60_000);
    const right = body(film);
    await send((at) => recordReading(at, { panelId, body: right, by, clientKey: `again ${seed} ${phase}`, at_ms: at.now_ms(), replaces }));
  };
  const work = async () => {
    const seen = await view();
    if (seen.state.observations.filter((o) => o.layer === "after").length < 3) return;
    const schoolId = pick(["short", "long", "fine", "spot", "polish", "hand"]);
    const { floor_m, shop, ...choice } = {
      ...usualChoice(seen),
      schoolId,
      runSchool: pick(["block", "guard", "blade", "file"] as const),
      part: pick([null, null, "lower", "left", "marked"] as const),
      fill: chance(0.5),
    };
    void floor_m;
    void shop;
    try {
      const asked = { ...choice, edges: pick(["left", "hand"] as const), lines: pick(["left", "hand"] as const) };
      await send(async (at) => storePlan(at, await view(at), { choice: asked, by, clientKey: null }));
    } catch {
      return; // nothing to work on at single places: said in words, and no plan
    }
    story.push(`plan ${correctionSchool(schoolId).name}`);
    const plan = (await view()).state.plan!;
    const steps = Math.floor(random() * (plan.body.steps.length + 1));
    for (let index = 0; index < steps; index++) {
      ctx.advance(120_000);
      const step = (await view()).state.plan!.body.steps[index]!;
      const measured = step.zone === "panel" && chance(0.3) ? atMark(120, 1e6 * step.removal_m * (0.4 + 1.4 * random())) : undefined;
      if (measured) story.push(`step ${index + 1} read at a mark`);
      const done = { planId: plan.id, index, note: "", by, clientKey: null, ...(measured ? { measured } : {}) };
      await send(async (at) => completeStep(at, await view(at), done));
      if (plan.body.steps[index]!.zone === "panel") state.clear -= 1e6 * plan.body.steps[index]!.removal_m * (0.9 + 0.3 * random());
    }
    story.push(`${steps} of ${plan.body.steps.length} steps`);
    if (steps > 0 && chance(0.15) && plan.body.steps[steps - 1]!.use) {
      await send(async (at) => passAgain(at, await view(at), { planId: plan.id, by }));
    }
    if (steps > 0 && chance(0.2)) {
      const entries = await listEntries(ctx.db, panelId);
      const last = livingEntries(entries).findLast((e) => e.kind === "step");
      if (last) {
        story.push("the last step struck");
        await strike(last.id, false);
      }
    }
  };

  const below = await layBelow(ctx, { seed, product: (sheet) => send((at) => saveProduct(at, sheet)), send, view, add, story });
  if (chance(0.3)) await add("climate", { air_K: 288 + 12 * random(), part_K: null, relativeHumidity: 0.5 });
  /** A foil as the gauge reads it: right, a little off, or slipped once; its readings put right by it or not. */
  const foil = async () => {
    const off = pick([1, 1, 0.98, 1.03]);
    const correct = chance(0.5);
    const read_um = [150, 151, 149].map((um) => Math.round(off * um));
    if (chance(0.2)) read_um[pick([0, 1, 2])]! += pick([30, -60, 100]);
    story.push(`foil ${read_um.join("/")}${correct ? ", readings put right by it" : ""}`);
    await add("gaugeCheck", {
      gauge: "typed",
      foil_m: um(150),
      uFoil_m: um(1),
      zero: [typedFilm(0), typedFilm(1)],
      onFoil: read_um.map((x) => typedFilm(x)),
      correct,
    });
  };
  if (chance(0.3)) await foil();
  if (chance(0.7)) await read("before", chance(0.8) ? 1 : 0.6);
  if (below === "clear next") return { seed, jobId, panelId, story };
  if (chance(0.1)) await holding();
  if (chance(0.1)) await retyped("before");
  if (sides === 2) await backFirst();
  await coats(pick([0, 1, 1, 1, 2, 2, 3]));
  if (chance(0.15)) await heat();
  if (chance(0.1)) await foil();
  if (chance(0.9)) await read("after", chance(0.8) ? 1 : 0.7);
  await faults();
  if (chance(0.2)) await holding();
  if (chance(0.1)) await retyped("after");
  if (chance(0.15)) await add("lookedOver", {});
  if (chance(0.6)) await work();
  if (chance(0.4)) await read("recheck", chance(0.5) ? 1 : 0.3);
  if (chance(0.1)) {
    story.push("sanded flat, said after it was read");
    await add("flatten", { grit: 800, by: "machine", removal_m: um(8), u_m: um(3), from: "forecast" });
  }
  if (chance(0.3)) {
    await coats(1 + Math.floor(2 * random()));
    if (chance(0.6)) await read("after", chance(0.7) ? 1 : 0.4);
    if (chance(0.4)) await work();
  }
  if (chance(0.1)) {
    story.push("cold and damp");
    await add("climate", { air_K: 284, part_K: 279, relativeHumidity: 0.92 });
  }
  if (chance(0.15)) await add("climate", { air_K: 284 + 20 * random(), part_K: null, relativeHumidity: 0.5 });
  if (chance(0.2)) {
    story.push("baked by hand");
    await add("bake", { part_K: 320 + 20 * random(), time_s: 600 + 1800 * random() });
  }
  if (chance(0.15)) {
    story.push("sanded flat");
    await add("flatten", { grit: 800, by: "machine", removal_m: um(8), u_m: um(3), from: "forecast" });
    if (chance(0.5)) await coats(1);
  }
  return { seed, jobId, panelId, story };
}

/** Rows as somebody may have planned them; of a stream of their own, so that all else of a seed stays. */
function rowsOf(seed: number): RowPlan | undefined {
  const random = seededRandom(9_000_011 + seed);
  if (random() < 0.6) return undefined;
  const tick = () => random() < 0.5;
  return { turned: tick(), even: tick(), staggered: tick(), endsFirst: tick(), first_m: 0.2 * random() - 0.1, overrun_m: 0.3 * random() };
}
