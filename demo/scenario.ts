import { asLayer, nextLayer } from "#core/coat/as-layer";
import { coatsAsked } from "#core/coat/asked";
import { nextCoat } from "#core/coat/next-coat";
import type { Substrate } from "#core/panel/brief";
import { NO_BRIEF } from "#core/panel/job-brief";
import { seededRandom } from "#core/kernel/stats/random";
import type { BodyInputOf, BodyOf } from "#core/record/bodies";
import { type ShapeKind, SHAPES, panelShape } from "#core/kernel/geometry/shapes";
import type { Phase } from "#core/record/kinds";
import { toSi } from "#core/kernel/units/convert";
import { completeStep, startStep, storePlan } from "#server/commands/correction";
import { saveBoothPlan } from "#server/commands/booth-plan";
import { saveGun } from "#server/commands/guns";
import { changeShop } from "#server/commands/house";
import { addPanel, createJob, saveProduct } from "#server/commands/jobs";
import { saveCard } from "#server/commands/cards";
import { addContainer } from "#server/commands/shelf";
import { type EntryInput, recordEntry } from "#server/commands/record-entry";
import { type ServerContext, createContext } from "#server/context";
import { takeStandInGloss } from "#server/devices/take-gloss";
import { readStandInMark, takeStandInReadings } from "#server/devices/take-readings";
import { logLayerCoat, planLayers } from "#server/commands/layers";
import { type PanelView, loadPanelView } from "#server/views/panel-view";
import { BASE_B, CLEAR_21, CLEAR_41, MATTE_CARDS, MATTE_M, SEALER_S, SHELF_PARTS } from "./shelf";

const HOUR_MS = 3_600_000;
const DAY_HOURS = 24;

type Gun = Partial<BodyOf<"coat">["settings"]>;
const GUN: BodyOf<"coat">["settings"] = {
  fluidRate_m3_s: 230e-6 / 60,
  fluidFrom: "measured",
  turns: null,
  pressure_Pa: toSi("pressure", 28, "psi"),
  distance_m: 0.175,
  overlap: 0.5,
  handSpeed_m_s: 0.34,
  fan_m: null,
};

/** Ids that are the same in every load, so that every load shows the same figures: the hidden panels behind the stand-ins follow from them. */
function demoIds(): () => string {
  const random = seededRandom(9);
  const hex = (digits: number) => Array.from({ length: digits }, () => Math.floor(16 * random()).toString(16)).join("");
  return () => `${hex(8)}-${hex(4)}-4${hex(3)}-8${hex(3)}-${hex(12)}`;
}

/** A door between sealer and base: what goes below is planned, the sealer is mixed and on. */
async function sprayBelow(ctx: ServerContext, look: () => Promise<PanelView>, ids: { sealer: string; base: string }): Promise<void> {
  const by = "apprentice";
  const layers = [
    { layer: "seal" as const, coats: 1, productId: ids.sealer },
    { layer: "base" as const, coats: 3, productId: ids.base },
  ];
  const panelId = (await look()).panel.id;
  await planLayers(ctx, await look(), { layers, shade: "grey 4 of 6", shadeRight: true, upon: null, by, clientKey: null });
  const mix = { volume_m3: 150e-6, reducer: 0.25, potLife_s: SEALER_S.potLife_s, product: SEALER_S.name, panels: [panelId] };
  await recordEntry(ctx, { panelId, kind: "mix", body: mix, by });
  const view = await look();
  const { settings, reducer } = nextCoat(asLayer(coatsAsked(view, ctx.now_ms()), nextLayer(view.state, view.panel)!));
  await logLayerCoat(ctx, view, { layer: "seal", settings, reducer, by, clientKey: null });
}

/**
 * Quay Nine Refinish on one day: everything goes through the commands that the pages use. Readings come from the stand-in gauge and are
 * marked simulated.
 */
export async function loadScenario(real: ServerContext): Promise<void> {
  const now_ms = real.now_ms();
  let clock_ms = now_ms;
  // The story's own time, so that each entry lies where the day puts it; it always moves on.
  const ctx = createContext(real.db, { bus: real.bus, newId: demoIds(), now_ms: () => (clock_ms += 1000) });
  const setTime = (hoursAgo: number) => (clock_ms = now_ms - hoursAgo * HOUR_MS);
  setTime(200);
  await changeShop(ctx, (shop) => ({ ...shop, name: "Quay Nine Refinish", standIns: true }));
  const c21 = await saveProduct(ctx, CLEAR_21);
  const c41 = await saveProduct(ctx, CLEAR_41);
  const matte = await saveProduct(ctx, MATTE_M);
  const parts = new Map<string, string>();
  for (const sheet of SHELF_PARTS) parts.set(sheet.name, (await saveProduct(ctx, sheet)).productId);
  const can = (
    name: string,
    batch: string,
    size_ml: number,
    left_ml: number,
    openedDaysAgo: number | null,
    keeping: "shelf" | "cold" = "shelf",
  ) =>
    addContainer(ctx, {
      productId: parts.get(name) ?? c21.productId,
      batch,
      size_m3: size_ml * 1e-6,
      left_m3: left_ml * 1e-6,
      opened_ms: openedDaysAgo === null ? null : now_ms - openedDaysAgo * DAY_HOURS * HOUR_MS,
      keeping,
    });
  for (const [i, card] of MATTE_CARDS.entries()) {
    setTime(190 - i * 2);
    await saveCard(ctx, {
      body: { ...card, productName: MATTE_M.name, productRevisionId: matte.revisionId },
      by: card.mattingShare === 0.5 && card.cure === "forced" ? "apprentice" : "painter A",
      simulated: true,
    });
  }

  const panel = (
    kind: ShapeKind,
    o: { name?: string; tilt_deg: number; substrate: Substrate; product: { revisionId: string }; coats: number; place?: string },
  ) => {
    const [width_m, height_m] = SHAPES[kind].size_m;
    return {
      name: o.name ?? SHAPES[kind].name,
      shape: panelShape(kind, { width_m, height_m }),
      tilt_rad: (o.tilt_deg * Math.PI) / 180,
      substrate: o.substrate,
      productRevisionId: o.product.revisionId,
      coatsPlanned: o.coats,
      place: o.place,
    };
  };
  const add = <K extends EntryInput["kind"]>(panelId: string, kind: K, body: BodyInputOf<K>, by = "painter A") =>
    recordEntry(ctx, { panelId, kind, body, by });
  const read = async (panelId: string, jobId: string, phase: Phase, spots?: number, count = 3) => {
    const view = await loadPanelView(ctx, jobId, panelId);
    if (!view) throw new Error("the demo lost a panel");
    const plan = view.spotPlan.slice(0, spots);
    await takeStandInReadings(ctx, { panelId, phase, spots: plan, count, by: "painter A" });
    return plan;
  };
  const coat = (panelId: string, number: number, role: string, gun: Gun = {}, reducer = 0) =>
    add(panelId, "coat", { number, role, settings: { ...GUN, ...gun }, reducer, wetReading_m: null });
  const climate = (panelId: string, air_C: number, part_C: number, relativeHumidity: number) =>
    add(panelId, "climate", { air_K: air_C + 273.15, part_K: part_C + 273.15, relativeHumidity });
  const markRead = async (panelId: string, when: "before" | "after") =>
    (await readStandInMark(ctx, panelId, when)).readings_m.map((m) => ({ thickness_m: m, entered: (m * 1e6).toFixed(0), unit: "µm" }));
  const viewOf = async (jobId: string, panelId: string) => {
    const view = await loadPanelView(ctx, jobId, panelId);
    if (!view) throw new Error("the demo lost a panel");
    return view;
  };

  // Two guns of the shop, one with its cups.
  const cup = (turns: number, ml: number) => ({ turns, volume_m3: ml * 1e-6, time_s: 10 });
  const pace = { pressure_Pa: toSi("pressure", 28, "psi"), distance_m: 0.175, overlap: 0.5, handSpeed_m_s: 0.34 };
  await saveGun(ctx, {
    id: null,
    version: null,
    clientKey: null,
    body: {
      name: "Small gun 1.2",
      nozzle_m: 1.2e-3,
      allTurns: 4,
      cups: [],
      fan: null,
      checks: [],
      settings: { ...pace, turns: 2, distance_m: 0.15, overlap: 0.7 },
    },
  });
  await saveGun(ctx, {
    id: null,
    version: null,
    clientKey: null,
    body: {
      name: "Clear gun 1.3",
      nozzle_m: 1.3e-3,
      allTurns: 5,
      cups: [cup(1, 18.5), cup(2, 33.5), cup(3, 45), cup(4, 53.5)],
      fan: { fan_m: 0.25, distance_m: 0.175 },
      checks: ["ellipse", "fan", "trigger"],
      settings: { ...pace, turns: 2.5 },
    },
  });

  // Lodos estate: bonnet handed over yesterday, front door between its coats right now.
  setTime(52);
  const lodos = await createJob(ctx, {
    vehicle: "Lodos estate",
    colourName: "deep teal pearl",
    colourCss: "#0d5a5f",
    finish: "match",
    wayId: "two-full",
    panel: panel("bonnet", { tilt_deg: 8, substrate: "refinish", product: c21, coats: 2, place: "car5/bonnet" }),
  });
  await climate(lodos.panelId, 22, 21.5, 0.52);
  await read(lodos.panelId, lodos.jobId, "before");
  setTime(50);
  await coat(lodos.panelId, 1, "full wet");
  setTime(49.7);
  await coat(lodos.panelId, 2, "full wet", { handSpeed_m_s: 0.27 });
  setTime(26);
  await read(lodos.panelId, lodos.jobId, "after");
  await add(lodos.panelId, "defect", {
    kind: "nib",
    at: { x_m: 0.94, y_m: 0.38 },
    length_m: 0.0006,
    width_m: null,
    height_m: 12e-6,
    measured: false,
  });
  await storePlan(ctx, await viewOf(lodos.jobId, lodos.panelId), {
    choice: { schoolId: "spot", runSchool: null, texture: { peakToValley_m: 0, u_m: 0 }, tape_m: 0.02 },
    by: "painter A",
    clientKey: null,
  });
  for (let index = 0; index < 3; index++) {
    const view = await viewOf(lodos.jobId, lodos.panelId);
    await completeStep(ctx, view, { planId: view.state.plan!.id, index, note: "", by: "apprentice", clientKey: null });
  }
  setTime(24);
  await read(lodos.panelId, lodos.jobId, "recheck", 3);
  await add(lodos.panelId, "handOver", { note: "Nib taken out by the windscreen edge. Keep wax off it for two months." });
  setTime(1.6);
  const doorId = await addPanel(
    ctx,
    lodos.jobId,
    panel("door", { name: "Front door", tilt_deg: 90, substrate: "factory", product: c21, coats: 2, place: "car5/door-front-left" }),
  );
  const below = (step: BodyInputOf<"under">["step"], more: Partial<BodyInputOf<"under">> = {}) =>
    add(doorId, "under", { step, grit: null, coats: null, film_m: null, pressure_Pa: null, reach_m: null, note: "", ...more });
  await below("sand", { grit: 600 });
  await below("clean");
  await below("mask");
  await below("base", { coats: 3, film_m: 17e-6, pressure_Pa: toSi("pressure", 26, "psi"), note: "drop coat last" });
  await below("cover");
  await below("dry");
  await climate(doorId, 23, 21, 0.58);
  await add(doorId, "preflight", { ticks: ["wiped", "tack", "light", "clothing", "inside", "air", "breathing"] });
  await add(doorId, "texture", { role: "target", rating: 3.5, place: "rear wing" });
  await read(doorId, lodos.jobId, "before", 6);
  setTime(0.25);
  const poured = (name: string, ml: number, g: number, batch = "") => ({
    name,
    volume_m3: ml * 1e-6,
    mass_kg: g / 1000,
    poured_kg: g / 1000,
    batch,
  });
  await add(doorId, "mix", {
    volume_m3: 450e-6,
    reducer: 0.05,
    potLife_s: CLEAR_21.potLife_s,
    product: CLEAR_21.name,
    speed: "medium",
    parts: [
      poured(CLEAR_21.name, 285.7, 282.9, "C18"),
      poured("Hardener H medium", 142.9, 150, "Q7"),
      poured("Reducer R medium", 21.4, 18.6, "R40"),
    ],
  });
  setTime(4 / 60);
  await coat(doorId, 1, "full wet", {}, 0.05);

  const rearDoorId = await addPanel(
    ctx,
    lodos.jobId,
    panel("door", { name: "Rear door", tilt_deg: 90, substrate: "factory", product: c21, coats: 2, place: "car5/door-rear-left" }),
  );

  // Poyraz cargo trike: matte, the cowl planned, nothing sprayed yet.
  setTime(20);
  const poyraz = await createJob(ctx, {
    vehicle: "Poyraz cargo trike",
    colourName: "matte graphite",
    brief: { ...NO_BRIEF, targetGloss_GU: 12, colourCode: "QN-7" },
    colourCss: "#3b4045",
    finish: "matte",
    wayId: "matte-two",
    panel: panel("tank", { name: "Cowl", tilt_deg: 60, substrate: "refinish", product: matte, coats: 2 }),
  });
  await climate(poyraz.panelId, 19, 15, 0.74);
  await takeStandInGloss(ctx, {
    panelId: poyraz.panelId,
    role: "target",
    angle: 60,
    place: "cargo box, left side",
    matte: true,
    count: 5,
    by: "painter A",
  });
  await add(poyraz.panelId, "matteCheck", { rules: ["whole", "below", "weigh", "card"] });
  const lidId = await addPanel(
    ctx,
    poyraz.jobId,
    panel("mirrorCap", { name: "Box lid", tilt_deg: 0, substrate: "refinish", product: matte, coats: 2 }),
  );

  // Meltem roadster: show flat, mid-correction; a run on the rear quarter, peel on the boot lid.
  setTime(75);
  const meltem = await createJob(ctx, {
    vehicle: "Meltem roadster",
    colourName: "night blue",
    colourCss: "#22305e",
    finish: "flat",
    wayId: "three-flat",
    panel: panel("quarter", { tilt_deg: 90, substrate: "refinish", product: c41, coats: 3 }),
  });
  await climate(meltem.panelId, 21, 20, 0.5);
  await read(meltem.panelId, meltem.jobId, "before");
  for (const [i, handSpeed_m_s] of [0.3, 0.28, 0.26].entries()) {
    setTime(72 - i * 0.4);
    await coat(meltem.panelId, i + 1, "full wet", { handSpeed_m_s });
  }
  setTime(5);
  await read(meltem.panelId, meltem.jobId, "after");
  await add(meltem.panelId, "defect", {
    kind: "run",
    at: { x_m: 0.3, y_m: 0.42 },
    length_m: 0.06,
    width_m: 0.01,
    height_m: 80e-6,
    measured: true,
    trace: {
      as: "line",
      at: [
        { x_m: 0.3, y_m: 0.4 },
        { x_m: 0.3, y_m: 0.46 },
      ],
    },
  });
  setTime(74);
  const bootId = await addPanel(ctx, meltem.jobId, panel("bootLid", { tilt_deg: 12, substrate: "refinish", product: c41, coats: 3 }));
  await read(bootId, meltem.jobId, "before");
  for (const i of [0, 1, 2]) {
    setTime(71 - i * 0.4);
    await coat(bootId, i + 1, "full wet", { handSpeed_m_s: 0.22 });
  }
  setTime(5);
  await read(bootId, meltem.jobId, "after");
  await add(bootId, "defect", {
    kind: "peel",
    at: { x_m: 0.7, y_m: 0.25 },
    length_m: null,
    width_m: null,
    height_m: 5e-6,
    measured: false,
    trace: {
      as: "area",
      at: [
        { x_m: 0.4, y_m: 0.14 },
        { x_m: 1.0, y_m: 0.14 },
        { x_m: 0.95, y_m: 0.38 },
        { x_m: 0.45, y_m: 0.38 },
      ],
    },
  });
  setTime(3);
  await storePlan(ctx, await viewOf(meltem.jobId, bootId), {
    choice: { schoolId: "long", runSchool: null, texture: { peakToValley_m: 5e-6, u_m: 1.2e-6 }, tape_m: 0.02 },
    by: "painter A",
    clientKey: null,
  });
  for (let index = 0; index < 2; index++) {
    setTime(2.8 - index * 0.4);
    const view = await viewOf(meltem.jobId, bootId);
    const step = { planId: view.state.plan!.id, index, by: "apprentice", clientKey: null };
    await startStep(ctx, view, step);
    const before = await markRead(bootId, "before");
    const after = await markRead(bootId, "after");
    setTime(2.65 - index * 0.4);
    await completeStep(ctx, await viewOf(meltem.jobId, bootId), { ...step, note: "", measured: { before, after }, simulated: true });
  }

  // Imbat harbour shuttle van: side panel with inclusions, just baked, and nobody read it before clear.
  setTime(9);
  const imbat = await createJob(ctx, {
    vehicle: "Imbat harbour shuttle",
    colourName: "fog white",
    colourCss: "#c9d2d1",
    finish: "asSprayed",
    wayId: "closed-finish",
    panel: {
      ...panel("door", { name: "Side panel", tilt_deg: 90, substrate: "unknown", product: c21, coats: 2 }),
      shape: panelShape("door", { width_m: 1.6, height_m: 0.95 }),
    },
  });
  await coat(imbat.panelId, 1, "closed", { handSpeed_m_s: 0.39 });
  setTime(8.7);
  await coat(imbat.panelId, 2, "finish");
  setTime(1);
  await read(imbat.panelId, imbat.jobId, "after", 6);
  const nibs = [
    { x_m: 0.42, y_m: 0.3 },
    { x_m: 0.95, y_m: 0.52 },
    { x_m: 1.22, y_m: 0.21 },
  ];
  await add(
    imbat.panelId,
    "defect",
    {
      kind: "nib",
      at: nibs[1]!,
      length_m: 0.0005,
      width_m: null,
      height_m: 10e-6,
      measured: false,
      count: nibs.length,
      trace: { as: "points", at: nibs },
    },
    "apprentice",
  );

  setTime(0.5);
  await can("Hardener H medium", "Q7", 1000, 340, 13);
  await can("Hardener H medium", "Q9", 1000, 1000, null);
  await can("Hardener HS slow", "R2", 500, 410, 5);
  await can("Hardener M matte", "T1", 500, 260, 20, "cold");

  const base = await saveProduct(ctx, BASE_B);
  const sealer = await saveProduct(ctx, SEALER_S);
  setTime(0.1);
  await sprayBelow(ctx, () => viewOf(lodos.jobId, rearDoorId), { sealer: sealer.productId, base: base.productId });

  // The booth of today: what still wants clear, the lid on both sides.
  setTime(0.02);
  const part = (panelId: string, sides: 1 | 2 = 1) => ({ panelId, sides, group: null, spray_s: null });
  const plan = await saveBoothPlan(
    ctx,
    {
      start_ms: now_ms,
      parts: [part(doorId), part(rearDoorId), part(poyraz.panelId), part(lidId, 2)],
      rules: { painters: 1, places: 4, mix_s: 300, potsMost: null, carryOut_s: 900, end_ms: null },
    },
    null,
  );
  await plan.promised;

  // The bonnet as it was looked at when it went out; the wing beside the door, which the door has to match.
  await add(lodos.panelId, "texture", { role: "target", rating: 3.5, place: "front wing" });
  await add(lodos.panelId, "texture", { role: "part", rating: 3, place: "middle" });
  await add(lodos.panelId, "eye", { colour: "same", covered: true, light: "daylight" });
  await add(lodos.panelId, "outcome", { result: "right" });
  await add(doorId, "neighbour", { name: "Front wing", readings: [], rating: 3.5, gloss60_GU: 92, photoId: null });
}
