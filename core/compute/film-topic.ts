import { z } from "zod";
import { BACKING, type Backing, GRAIN_M, type Grit } from "../models/correction/abrasives";
import { type Closed, type OptionForecast, decideOptions } from "../judge/options";
import { prestonRemoval, prestonTime } from "../models/correction/preston";
import { OVER_SANDING, type RemovalStep, planRemoval } from "../models/correction/removal-plan";
import { LOCAL_UNEVENNESS } from "../models/correction/unevenness";
import { RUN_SCHOOLS, type RunSchool, forecastRunWork, lossBesideRun } from "../models/correction/run-work";
import { cureEnergy, cureRate, equivalentAge, partTemperature } from "../models/cure/cure-age";
import { dewPointMargin } from "../models/climate/dew-point";
import { EDGE_BITE, cellRisk } from "../judge/cell-risk";
import { clearByDifference } from "../models/film/difference";
import { FilmField, type FieldPrior, type FilmObservation } from "../models/film/film-field";
import { spotFilm, twoPointCorrection, twoPointUncertainty } from "../models/film/gauge";
import { FilmJudge } from "../judge/film-judge";
import { nominalAcceptance, spotAcceptance } from "../models/film/acceptance";
import { learnRemoval, learnSpread } from "../models/correction/learn-removal";
import { expectedRange } from "../kernel/stats/normal";
import { fitField, unknownsOf } from "../models/film/field-fit";
import { UNKNOWN_HISTORY, clearFromMixture } from "../models/film/stack-prior";
import { chanceAt } from "../judge/chance-at";
import { workedShare } from "../judge/judge-cells";
import { FLOW_CUPS, type FlowCup, cupFromViscosity, viscosityFromCup } from "../models/product/flow-cup";
import { vocOf } from "../models/mix/voc";
import { spreadingRate, wetFromDry } from "../models/mix/spreading-rate";
import { edgeDistance, gridInside } from "../kernel/geometry/geometry";
import { fromSi, toSi } from "../kernel/units/convert";
import { UM, fromUm, op, opsTable } from "./op";

const num = z.number();
const gaugeLimits = { a: num.default(1), b: num.default(0.02) };
const gauge = (i: { a: number; b: number; s0?: number; nu0?: number }) => ({
  constant_m: i.a * UM,
  proportional: i.b,
  repeatability_m: (i.s0 ?? 2) * UM,
  repeatabilityDf: i.nu0 ?? 6,
});
const point = z.tuple([num, num]);
const observation = z.tuple([num, num, z.enum(["b", "a"]), num, z.int()]);
const keys = <K extends string>(table: Record<K, unknown>) => z.enum(Object.keys(table) as [K, ...K[]]);
const step = z.union([z.tuple([keys<Grit>(GRAIN_M), keys<Backing>(BACKING)]), z.enum(["compound", "polish"])]);
const prior = z.object({ muB: num, tauB: num, b_mean: point, b_sd: point }).partial().default({});
const field = z.object({
  poly: z.array(point),
  obs: z.array(observation),
  hyp: z.object({ ell: num, sC: num, sB: num, micro: num }),
  prior_overrides: prior,
});

function overridesOf(p: z.infer<typeof prior>): Partial<FieldPrior> {
  const given: [keyof FieldPrior, number | undefined][] = [
    ["under_m", p.muB],
    ["uUnder_m", p.tauB],
    ["clear_m", p.b_mean?.[0]],
    ["edge_m", p.b_mean?.[1]],
    ["uClear_m", p.b_sd?.[0]],
    ["uEdge_m", p.b_sd?.[1]],
  ];
  const overrides: Partial<FieldPrior> = {};
  for (const [key, value] of given) if (value !== undefined) Object.assign(overrides, { [key]: value * UM });
  return overrides;
}

const observationsOf = (obs: z.infer<typeof field>["obs"]) =>
  obs.map(([x, y, layer, v, n]): FilmObservation => ({
    at: [x, y],
    layer: layer === "a" ? "after" : "before",
    total_m: v * UM,
    n,
  }));

const priorOf = (i: z.infer<typeof field>): Partial<FieldPrior> => ({
  ...overridesOf(i.prior_overrides),
  length_m: i.hyp.ell,
  sdClear_m: i.hyp.sC * UM,
  sdUnder_m: i.hyp.sB * UM,
  micro_m: i.hyp.micro * UM,
});
const fieldOf = (i: z.infer<typeof field>): FilmField => new FilmField(observationsOf(i.obs), i.poly, priorOf(i));

/** The judge of a case: its beliefs given, not fitted, and no doubt beside them. */
const judgeOf = (i: z.infer<typeof field> & { draws: number }): FilmJudge =>
  new FilmJudge(
    { outline: i.poly, observations: observationsOf(i.obs), history: { weights: UNKNOWN_HISTORY }, foil: true, uneven: 0 },
    { hypotheses: [{ weight: 1, prior: priorOf(i) }], draws: i.draws },
  );

/** Greatest chance at one place to end below the floor, and the mean share of the judged area that is expected there. */
function worstCell(
  judge: FilmJudge,
  i: { R: number; uR: number; fuv: number; tape: number },
): { pmax35: number; meanShareBelow35: number } {
  const { mean_m, sd_m } = judge.clear();
  const chances = [...workedShare(judge.picture(), { rim_m: i.tape })].flatMap((multiplier, q) =>
    multiplier > 0
      ? [
          cellRisk({
            clear_m: mean_m[q]!,
            u_clear_m: sd_m[q]!,
            removal_m: i.R * UM,
            u_removal_m: i.uR * UM,
            multiplier,
            floor_m: i.fuv * UM,
          }),
        ]
      : [],
  );
  return { pmax35: Math.max(...chances), meanShareBelow35: chances.reduce((a, c) => a + c, 0) / chances.length };
}

const runInput = z.object({ h: num, w: num, L: num, Cbg: num, uC: num, floor: num, A_dep: num.optional() });
const runOp = (school: RunSchool) =>
  op(runInput, (i) => {
    const r = forecastRunWork(school, {
      height_m: i.h * UM,
      width_m: i.w * 1e-3,
      length_m: i.L * 1e-3,
      clear_m: i.Cbg * UM,
      u_clear_m: i.uC * UM,
      floor_m: i.floor * UM,
      ...(i.A_dep === undefined ? {} : { depletedArea_m2: i.A_dep * 1e-6 }),
    });
    return {
      volume: r.volume_m3 * 1e9,
      s_eff: fromUm(r.beside_m),
      loss: fromUm(r.loss_m),
      left: fromUm(r.left_m),
      u: fromUm(r.u_left_m),
      p: r.chanceBelowFloor,
      min: r.minutes,
      crest: fromUm(r.crest_m),
    };
  });

const KELVIN = 273.15;
/** Ways and reasons in the words of the case files. */
const wayOf = (o: OptionForecast) => (o.runSchool ? `run:${o.runSchool}` : o.kind === "spot" ? "denib" : o.kind);
const CLOSED: Partial<Record<Closed["because"], string>> = {
  matte: "matte cannot be polished",
  uncured: "not cured",
  "no nibs": "no nibs",
  "total build": "total build",
  "clear build": "clear build",
  runs: "would run at any pace",
  "sanded through": "sanding would cut through",
  "strip first": "strip first: total build",
  cut: "cut-through",
  thin: "too thin",
};
const closedOf = (c: Closed) => {
  const words = CLOSED[c.because] ?? c.because;
  return "chance" in c ? `${words} ${(100 * c.chance).toFixed(c.because === "cut" ? 1 : 0)}%` : words;
};
const FT_M = 0.3048;
const GALLON_M3 = 231 * 0.0254 ** 3;
const MM2 = 1e-6;
/** Cup cases go by the cup's own short name ("iso4", "ford4", "din4"). */
const cupOps = Object.fromEntries(
  (Object.keys(FLOW_CUPS) as FlowCup[]).flatMap((cup) => [
    [`flow.${cup}`, op(z.object({ t: num }), (i) => viscosityFromCup(cup, i.t) / MM2)],
    [`flow.inverse.${cup}`, op(z.object({ nu: num }), (i) => cupFromViscosity(cup, i.nu * MM2))],
  ]),
);
const vocPart = z.tuple([num, num, num, num, num, num]);

/** Film cases in the units of the case files: µm for film, m for places, mm for runs, °C. An operation is found by the longest prefix of the case id. */
export const FILM_OPS = opsTable({
  "gauge.twoPoint": op(z.object({ raw: z.array(num), raw0: num, rawF: num, foil: num }), (i) =>
    i.raw.map((r) => fromUm(twoPointCorrection({ raw_m: r * UM, rawZero_m: i.raw0 * UM, rawFoil_m: i.rawF * UM, foil_m: i.foil * UM }))),
  ),
  "gauge.uTwoPoint": op(z.object({ x: num, foil: num, u_raw0: num, u_rawF: num, u_foil: num }), (i) =>
    fromUm(
      twoPointUncertainty({
        film_m: i.x * UM,
        foil_m: i.foil * UM,
        uZero_m: i.u_raw0 * UM,
        uRawFoil_m: i.u_rawF * UM,
        uFoil_m: i.u_foil * UM,
      }),
    ),
  ),
  "gauge.spot": op(
    z.object({ readings: z.array(num), s0: num.default(2), nu0: num.default(6), ...gaugeLimits, p: num.default(0.95) }),
    (i) => {
      const s = spotFilm(
        i.readings.map((r) => r * UM),
        { gauge: gauge(i), coverage: i.p },
      );
      return {
        mean: fromUm(s.mean_m),
        n: s.n,
        s_r: fromUm(s.repeatability_m),
        uA: fromUm(s.uA_m),
        uB: fromUm(s.uB_m),
        uc: fromUm(s.u_m),
        nueff: s.degreesOfFreedom,
        k: s.coverageFactor,
        U: fromUm(s.expandedU_m),
        flags: s.flags,
      };
    },
  ),
  "gauge.diff": op(
    z.object({
      A: num,
      B: num,
      uAa: num,
      uAb: num,
      rho: num.default(0.8),
      delta: num.default(0.015),
      sigB: num.default(6),
      ell: num.default(0.3),
      ...gaugeLimits,
    }),
    (i) => {
      const d = clearByDifference({
        after_m: i.A * UM,
        before_m: i.B * UM,
        uA_after_m: i.uAa * UM,
        uA_before_m: i.uAb * UM,
        correlation: i.rho,
        gauge: gauge(i),
        relocation_m: i.delta,
        sdBetween_m: i.sigB * UM,
        length_m: i.ell,
      });
      return { d: fromUm(d.clear_m), u_sys: fromUm(d.uSystematic_m), u_mis: fromUm(d.uRelocation_m), u: fromUm(d.u_m) };
    },
  ),
  "accept.pa2": op(
    z.object({
      spots: z.array(num),
      min: num,
      max: num,
      level: z.union([z.literal(1), z.literal(2), z.literal(3), z.literal(4), z.literal(5)]),
    }),
    (i) => {
      const a = spotAcceptance(
        i.spots.map((v) => v * UM),
        { least_m: i.min * UM, most_m: i.max * UM, level: i.level },
      );
      return { avg: fromUm(a.mean_m), avg_ok: a.meanOk, spots_ok: a.spotsOk, accept: a.accepted };
    },
  ),
  "accept.iso19840": op(z.object({ x: z.array(num), ndft: num, max: num }), (i) => {
    const a = nominalAcceptance(
      i.x.map((v) => v * UM),
      { nominal_m: i.ndft * UM, most_m: i.max * UM },
    );
    return {
      mean_ok: a.meanOk,
      floor_ok: a.leastOk,
      share_below: a.shareBelow,
      share_ok: a.shareOk,
      max_ok: a.mostOk,
      accept: a.accepted,
    };
  }),
  "calib.nn": op(z.object({ m0: num, s0: num, ys: z.array(num), us: z.array(num), sj: num }), (i) => {
    const l = learnRemoval(
      { mean_m: i.m0 * UM, sd_m: i.s0 * UM },
      i.ys.map((y, k) => ({ removal_m: y * UM, u_m: (i.us[k] ?? NaN) * UM })),
      i.sj * UM,
    );
    return { mean: fromUm(l.mean_m), sd: fromUm(l.sd_m), shrink: l.priorWeight, pred_sd: fromUm(l.predictedSd_m) };
  }),
  "calib.nig": op(z.object({ m0: num, k0: num, a0: num, b0: num, ys: z.array(num) }), (i) => {
    const l = learnSpread({ m: i.m0, k: i.k0, a: i.a0, b: i.b0 }, i.ys);
    return { m: l.m, k: l.k, a: l.a, b: l.b, df: l.degreesOfFreedom, scale_mean: l.meanScale, scale_pred: l.nextScale };
  }),
  "removal.d2": op(z.object({ N: z.int() }), (i) => expectedRange(i.N)),
  "stack.": op(
    z.object({ total: num, uT: num, prior: z.object({ factory: num, refinish: num }).default({ factory: 0.8, refinish: 0.2 }) }),
    (i) => {
      const m = clearFromMixture(i.total * UM, i.uT * UM, i.prior);
      const shown = (s: { clear_m: number; u_m: number; z: number }) => ({ mean: fromUm(s.clear_m), sd: fromUm(s.u_m), z: s.z });
      return {
        factory: shown(m.byStack.factory),
        refinish: shown(m.byStack.refinish),
        mix: { w: m.weights, mean: fromUm(m.clear_m), sd: fromUm(m.u_m) },
      };
    },
  ),
  "geom.edgeDist": op(z.object({ poly: z.array(point), points: z.array(point) }), (i) => i.points.map((p) => edgeDistance(p, i.poly))),
  "geom.gridCount": op(z.object({ poly: z.array(point), nx: z.int(), ny: z.int() }), (i) => gridInside(i.poly, i).length),
  "map.fit": op(field.omit({ hyp: true }).extend({ query: z.array(point) }), (i) => {
    const overrides = overridesOf(i.prior_overrides);
    const observations = observationsOf(i.obs);
    const fit = fitField(observations, i.poly, overrides, { most: 400 });
    const { mean_m, sd_m } = new FilmField(observations, i.poly, { ...overrides, ...unknownsOf(fit) }).predict(i.query);
    return {
      hyp: { ell: fit.length_m, sC: fromUm(fit.sdClear_m), sB: fromUm(fit.sdUnder_m), micro: fromUm(fit.micro_m) },
      obj: fit.objective,
      mean: Array.from(mean_m, fromUm),
      sd: Array.from(sd_m, fromUm),
    };
  }),
  "map.fixed": op(field.extend({ query: z.array(point) }), (i) => {
    const f = fieldOf(i);
    const { mean_m, sd_m } = f.predict(i.query);
    return {
      mean: Array.from(mean_m, fromUm),
      sd: Array.from(sd_m, fromUm),
      nextReading: i.query.map((q) => fromUm(f.expectedReading(q))),
    };
  }),
  "risk.cell": op(z.object({ mu: num, sd: num, R: num, uR: num, m: num.default(1), floor: num, cvloc: num.default(0.15) }), (i) =>
    cellRisk({
      clear_m: i.mu * UM,
      u_clear_m: i.sd * UM,
      removal_m: i.R * UM,
      u_removal_m: i.uR * UM,
      multiplier: i.m,
      floor_m: i.floor * UM,
      localCv: i.cvloc,
    }),
  ),
  "risk.": op(
    field.extend({ R: num, uR: num, fcut: num, fuv: num, tape: num, area_q: num.default(0.02), draws: z.int().default(2000) }),
    (i) => {
      const judge = judgeOf(i);
      const ask = { panel: { removal_m: i.R * UM, u_m: i.uR * UM, rim_m: i.tape }, local: [], floor_m: i.fuv * UM };
      const risk = judge.risk(ask);
      const { thin_m, cut_m } = judge.allowance({ rim_m: i.tape, uRel: i.uR / i.R, floor_m: i.fuv * UM, cutFloor_m: i.fcut * UM });
      const anywhere = judge.allowance({ rim_m: i.tape, uRel: i.uR / i.R, floor_m: i.fuv * UM, cutFloor_m: i.fuv * UM });
      return {
        Pcut: chanceAt(cut_m, i.R * UM),
        Puv: risk.thinChance,
        PanyBelow35: chanceAt(anywhere.cut_m, i.R * UM),
        ...worstCell(judge, i),
        Rsafe5: fromUm(thin_m[Math.floor(0.05 * thin_m.length)]!),
        verdict: risk.verdict,
      };
    },
    { fixed: { edge_kap: EDGE_BITE.share, edge_lam: EDGE_BITE.length_m, cvloc: LOCAL_UNEVENNESS } },
  ),
  "removal.plan": op(
    z.object({ steps: z.array(step), pv: num.default(0), upv: num.default(0), wanted: num.default(0) }),
    (i) => {
      const steps = i.steps.map((s): RemovalStep => (typeof s === "string" ? { polish: s } : { grit: s[0], backing: s[1] }));
      const r = planRemoval(steps, { peakToValley_m: i.pv * UM, u_m: i.upv * UM, wanted_m: i.wanted * UM });
      return { steps: r.steps.map((s) => [fromUm(s.removal_m), fromUm(s.u_m)]), mean: fromUm(r.total.removal_m), u: fromUm(r.total.u_m) };
    },
    {
      fixed: { f: 1, over: OVER_SANDING.share, uover: OVER_SANDING.sd },
    },
  ),
  "preston.h": op(z.object({ kp: num, F: num, v: num, t: num, A: num, tau: num.optional() }), (i) =>
    fromUm(
      prestonRemoval({
        coefficient_1_Pa: i.kp,
        force_N: i.F,
        speed_m_s: i.v,
        area_m2: i.A,
        time_s: i.t,
        ...(i.tau === undefined ? {} : { loading_s: i.tau }),
      }),
    ),
  ),
  "preston.t": op(z.object({ kp: num, F: num, v: num, h_um: num, A: num }), (i) =>
    prestonTime({ coefficient_1_Pa: i.kp, force_N: i.F, speed_m_s: i.v, area_m2: i.A, removal_m: i.h_um * UM }),
  ),
  "run.loss": op(z.object({ h0: num, delta: num, eps: num }), (i) =>
    fromUm(lossBesideRun({ height_m: i.h0 * UM, compliance_m: i.delta * UM, residual_m: i.eps * UM })),
  ),
  ...Object.fromEntries((Object.keys(RUN_SCHOOLS) as RunSchool[]).map((s) => [`run.${s}`, runOp(s)])),
  "decide.": op(
    z.object({
      area: num,
      clear: num,
      sd: num,
      total: num,
      pv: num,
      pv_nb: num,
      nibs: z.int(),
      run: z.tuple([num, num, num]).nullable(),
      matte: z.boolean(),
      cured: num,
    }),
    (i) => {
      const d = decideOptions({
        area_m2: i.area,
        clear_m: i.clear * UM,
        u_clear_m: i.sd * UM,
        total_m: i.total * UM,
        peakToValley_m: i.pv * UM,
        wanted_m: i.pv_nb * UM,
        nibs: i.nibs,
        run: i.run && { height_m: i.run[0] * UM, width_m: i.run[1] * 1e-3, length_m: i.run[2] * 1e-3 },
        matte: i.matte,
        cured: i.cured,
      });
      const closed = d.options.filter((o) => o.why.length > 0);
      return {
        best: d.best && `${d.wait ? "wait->" : ""}${wayOf(d.best)}`,
        costs: Object.fromEntries(d.options.map((o) => [wayOf(o), o.cost])),
        blocked: Object.fromEntries(closed.map((o) => [wayOf(o), o.why.map(closedOf)])),
      };
    },
  ),
  "dew.": op(z.object({ T: num, RH: num }), (i) => {
    const d = dewPointMargin({ air_K: i.T + 273.15, part_K: i.T + 273.15, relativeHumidity: i.RH / 100 });
    return { td: d.dewPoint_K - 273.15, min_surface: d.lowestPart_K - 273.15 };
  }),
  "cure.Ea": op(z.object({ t1: num, T1: num, t2: num, T2: num }), (i) =>
    cureEnergy({ part_K: i.T1 + KELVIN, time_s: i.t1 }, { part_K: i.T2 + KELVIN, time_s: i.t2 }),
  ),
  "cure.equiv": op(
    z.object({ t: num, T: num, Tref: num, E: num }),
    (i) => i.t * cureRate(i.T + KELVIN, { reference_K: i.Tref + KELVIN, energy_J_mol: i.E }),
  ),
  "cure.age": op(z.object({ log: z.array(point), Tref: num, E: num, seg_max: num.default(60) }), (i) =>
    equivalentAge(
      i.log.map(([at_s, T]) => ({ at_s, part_K: T + KELVIN })),
      { reference_K: i.Tref + KELVIN, energy_J_mol: i.E, step_s: i.seg_max },
    ),
  ),
  "cure.partT": op(
    z.object({ Tair: num, T0: num, t: num, tau: num }),
    (i) => partTemperature({ air_K: i.Tair + KELVIN, start_K: i.T0 + KELVIN, time_s: i.t, lag_s: i.tau }) - KELVIN,
  ),
  ...cupOps,
  voc: op(z.object({ parts: z.array(vocPart) }), (i) => {
    const v = vocOf(
      i.parts.map(([volume, density, volatile, water, exempt, exemptDensity]) => ({
        volume_m3: volume * 1e-3,
        density_kg_m3: density,
        volatile,
        water,
        exempt,
        exemptDensity_kg_m3: exemptDensity,
      })),
    );
    return { actual: v.actual_kg_m3, regulatory: v.regulatory_kg_m3 };
  }),
  units: op(z.object({}), () => ({
    ft2mil_per_gal: (GALLON_M3 * spreadingRate({ volumeSolids: 1, dryFilm_m: toSi("film", 1, "mil") })) / FT_M ** 2,
    m2um_per_L: 1e-3 * spreadingRate({ volumeSolids: 1, dryFilm_m: UM }),
    mil: fromSi("film", toSi("film", 1, "mil"), "µm"),
  })),
  spread: op(z.object({ vs: num, dft: num, te: num }), (i) => {
    const theo = spreadingRate({ volumeSolids: i.vs, dryFilm_m: i.dft * UM }) / 1000;
    return { theo, practical: theo * i.te, wft: fromUm(wetFromDry({ volumeSolids: i.vs, dryFilm_m: i.dft * UM })) };
  }),
});
