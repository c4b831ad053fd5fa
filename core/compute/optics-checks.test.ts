import { readFileSync } from "node:fs";
import { opticsCases } from "#core/compute/optics-topic";
import { computeCases } from "#core/compute/topics";

type Row = Record<string, number>;
interface ChecksFile {
  alpha: number;
  fresnel_R: Row;
  gloss_vs_n: Record<string, Row>;
  gloss_vs_sigma: Row[];
  sigma_from_gloss: Row[];
  blend: { ratio: number; curve: Row; dGU_dx: number; mc_sd: number; mc_p2_5: number; mc_p97_5: number }[];
  gaussian: Row[];
  bandpass: Record<string, Row>;
  profiles: { sine_discrete: Row; triangle_discrete: Row }[];
}
const file = JSON.parse(readFileSync("core/compute/checks/optics-checks.json", "utf8")) as ChecksFile;
const answers = computeCases("optics", file);
if (!answers.ok) throw new Error(answers.message);
const byId = new Map(answers.results.map((r) => [r.id, r.output]));
const of = (id: string) => byId.get(id) as Record<string, number> & Record<string, Row>;

test("every gloss, blend, filter and profile row of the reference file is answered", () => {
  expect(answers.skipped).toEqual([]);
  expect(byId.size).toBe(1 + 6 + 21 + 11 + 21 + 2 + 9 + 13 + 4);
  expect(byId.get("alpha")).toBeCloseTo(file.alpha, 15);
});

test.each(Object.entries(file.fresnel_R))("Fresnel reflectance %s", (key, want) => {
  expect(byId.get(`fresnel.${key}`)).toBeCloseTo(want, 12);
});

test.each(Object.entries(file.gloss_vs_n))("gloss of a smooth surface, index %s, at three angles to 0.01 GU", (n, want) => {
  for (const angle of ["20", "60", "85"]) expect(Math.abs(of(`gloss.n.${n}`)[angle]! - want[angle]!)).toBeLessThan(0.01);
});

test("gloss against roughness and back", () => {
  for (const r of file.gloss_vs_sigma)
    for (const a of ["20", "60", "85"]) expect(Math.abs(of(`gloss.vs.${r.sigma_nm}`)[a]! - r[`GU${a}`]!)).toBeLessThan(2e-4);
  for (const r of file.sigma_from_gloss) expect(byId.get(`gloss.sigma.${r.angle}.${r.GU}`)).toBeCloseTo(r.sigma_nm!, 2);
});

test.each(file.blend.map((b, k) => [k, b] as const))(
  "matte mix %d: ratio, curve and slope as the reference's own spline gives them",
  (k, want) => {
    const got = of(`blend.${k}`);
    expect(got.ratio).toBeCloseTo(want.ratio, 4);
    for (const [x, g] of Object.entries(want.curve)) expect(got.curve![x]).toBeCloseTo(g, 3);
    expect(Math.abs(Number(got.dGU_dx) / want.dGU_dx - 1)).toBeLessThan(0.01);
  },
);

test("the interval for five cards is about .60 to .645", () => {
  const got = of("blend.0");
  expect(Number(got.low)).toBeGreaterThan(0.595);
  expect(Number(got.low)).toBeLessThan(0.61);
  expect(Number(got.high)).toBeGreaterThan(0.637);
  expect(Number(got.high)).toBeLessThan(0.65);
});

test.each(file.gaussian.map((g, k) => [k, g] as const))("Gaussian filter row %d (ISO 16610-21, from memory)", (k, want) => {
  const got = of(`filter.gaussian.${k}`);
  for (const key of ["z", "waviness", "roughness", "end_index0_waviness_renormalised", "T_analytic"])
    expect(Number(got[key])).toBeCloseTo(want[key]!, 9);
});

test("band transmission", () => {
  for (const [band, values] of Object.entries(file.bandpass))
    for (const [lam, want] of Object.entries(values)) expect(byId.get(`filter.band.${band}.${lam}`)).toBeCloseTo(want, 9);
});

test.each(["sine", "triangle"] as const)("profile parameters of a %s", (form) => {
  file.profiles.forEach((p, k) => {
    const want = p[`${form}_discrete`];
    const got = of(`profile.${form}.${k}`);
    for (const key of ["Ra", "Rq", "Rt", "Rsk", "Rku", "Rsm"]) expect(Number(got[key])).toBeCloseTo(want[key]!, 5);
    expect(Number(got.Rdq)).toBeCloseTo(want.Rdq_2pt!, 4);
  });
});

test("anything but the reference table is read as a list of cases", () => {
  expect(opticsCases([{ id: "alpha", input: {} }])).toEqual([{ id: "alpha", input: {} }]);
  expect(computeCases("optics", [{ id: "gloss.x", input: { n: 0.5 } }])).toMatchObject({
    refused: [{ id: "gloss.x", field: "index" }],
  });
});
