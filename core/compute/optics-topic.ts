import { z } from "zod";
import { type GlossAngle, fresnelReflectance, roughGloss, roughnessFromGloss } from "../models/gloss/fresnel-gloss";
import { matteCurve, matteMix, shareForGloss } from "../models/gloss/matte-fit";
import { seededRandom } from "../kernel/stats/random";
import { GAUSSIAN_ALPHA, bandTransmission, gaussianTransmission, gaussianWaviness } from "../models/texture/gaussian-filter";
import { profileParameters } from "../models/texture/profile";
import { op, opsTable } from "./op";

const num = z.number();
const NM = 1e-9;
const MM = 1e-3;
const DEGREE = Math.PI / 180;
const angle = z.union([z.literal(20), z.literal(60), z.literal(85)]) satisfies z.ZodType<GlossAngle>;
const wave = z.object({ A: num, lam: num, dx: num, n: z.int().min(3).max(100_000), phase: num });
const sine = (i: z.infer<typeof wave>) => Array.from({ length: i.n }, (_, k) => i.A * Math.sin((2 * Math.PI * k * i.dx) / i.lam + i.phase));
const triangle = (i: z.infer<typeof wave>) =>
  Array.from({ length: i.n }, (_, k) => {
    const turn = (k * i.dx) / i.lam + i.phase / (2 * Math.PI);
    const t = turn - Math.floor(turn);
    return i.A * (t < 0.25 ? 4 * t : t < 0.75 ? 2 - 4 * t : 4 * t - 4);
  });
const SEED = 20;

/** Optics cases: nm for roughness, degrees for angles, mm for lengths along a profile, GU for gloss. */
export const OPTICS_OPS = opsTable({
  alpha: op(z.object({}), () => GAUSSIAN_ALPHA),
  "fresnel.": op(z.object({ n: num, angle: num }), (i) => fresnelReflectance(i.n, i.angle * DEGREE)),
  "gloss.sigma.": op(z.object({ n: num, angle, GU: num }), (i) => roughnessFromGloss({ index: i.n, gloss_GU: i.GU, angle: i.angle }) / NM),
  "gloss.": op(z.object({ n: num, sigma_nm: num.default(0) }), (i) => {
    const at = (a: GlossAngle) => roughGloss({ index: i.n, roughness_m: i.sigma_nm * NM, angle: a });
    return { "20": at(20), "60": at(60), "85": at(85) };
  }),
  "blend.": op(z.object({ x: z.array(num), GU: z.array(num), target_GU: num, at: z.array(num).default([]) }), (i) => {
    const cards = i.x.map((share, k) => ({ id: String(k), share, gloss_GU: i.GU[k] ?? NaN }));
    const curve = matteCurve(cards);
    const answer = matteMix(cards, i.target_GU, { random: seededRandom(SEED) });
    return {
      ratio: shareForGloss(curve, i.target_GU),
      curve: Object.fromEntries(i.at.map((x) => [x.toFixed(3), curve.at(x)])),
      dGU_dx: answer && answer.slope_GU_per_point * 100,
      u: answer?.u_share,
      low: answer?.low,
      high: answer?.high,
      against: curve.against,
    };
  }),
  "filter.gaussian.": op(
    z.object({ lc: num, dx: num, A: num, lam: num, n: z.int().min(3).max(20_000), phase: num, index: z.int() }),
    (i) => {
      const profile = sine(i);
      const waviness = gaussianWaviness(profile, { cutoff_m: i.lc * MM, spacing_m: i.dx * MM });
      const at = (k: number) => ({ z: profile[k], waviness: waviness[k], roughness: (profile[k] ?? NaN) - (waviness[k] ?? NaN) });
      return { ...at(i.index), end_index0_waviness_renormalised: waviness[0], T_analytic: gaussianTransmission(i.lam, i.lc) };
    },
    { table: true },
  ),
  "filter.band.": op(z.object({ lam: num, short: num, long: num }), (i) => bandTransmission(i.lam, i.short, i.long)),
  "profile.sine.": op(wave, (i) => profileParameters(sine(i), i.dx), { table: true }),
  "profile.triangle.": op(wave, (i) => profileParameters(triangle(i), i.dx), { table: true }),
});

const rows = z.array(z.record(z.string(), z.unknown()));
const checksFile = z.looseObject({
  fresnel_R: z.record(z.string(), num),
  gloss_vs_n: z.record(z.string(), z.record(z.string(), num)),
  gloss_vs_sigma: rows,
  sigma_from_gloss: rows,
  blend: z.array(z.looseObject({ curve: z.record(z.string(), num) })),
  gaussian: rows,
  bandpass: z.record(z.string(), z.record(z.string(), num)),
  profiles: z.array(z.looseObject({ A: num })),
});

/**
 * The optics check file is a table of results, not a list of cases: its gloss, blend, filter and profile rows as cases with their inputs.
 * Anything else is passed on as it is.
 */
export function opticsCases(json: unknown): unknown {
  const file = checksFile.safeParse(json);
  if (!file.success) return json;
  const f = file.data;
  return [
    { id: "alpha", input: {} },
    ...Object.keys(f.fresnel_R).map((key) => {
      const [n, a] = key.split("@").map(Number);
      return { id: `fresnel.${key}`, input: { n, angle: a } };
    }),
    ...Object.keys(f.gloss_vs_n).map((n) => ({ id: `gloss.n.${n}`, input: { n: Number(n) } })),
    ...f.gloss_vs_sigma.map((r) => ({ id: `gloss.vs.${String(r.sigma_nm)}`, input: { n: r.n, sigma_nm: r.sigma_nm } })),
    ...f.sigma_from_gloss.map((r) => ({
      id: `gloss.sigma.${String(r.angle)}.${String(r.GU)}`,
      input: { n: r.n, angle: r.angle, GU: r.GU },
    })),
    ...f.blend.map((r, k) => ({
      id: `blend.${k}`,
      input: { x: r.x, GU: r.GU, target_GU: r.target_GU, at: Object.keys(r.curve).map(Number) },
    })),
    ...f.gaussian.map((r, k) => ({ id: `filter.gaussian.${k}`, input: r })),
    ...Object.entries(f.bandpass).flatMap(([band, values]) => {
      const [short, long] = band.split("_").slice(1).map(Number);
      return Object.keys(values).map((lam) => ({ id: `filter.band.${band}.${lam}`, input: { lam: Number(lam), short, long } }));
    }),
    ...f.profiles.flatMap((r, k) => ["sine", "triangle"].map((form) => ({ id: `profile.${form}.${k}`, input: r }))),
  ];
}
