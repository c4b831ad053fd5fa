import { FilmJudge } from "#core/judge/film-judge";
import { DEFAULT_FLOOR_M } from "#core/judge/limits";
import { COVERAGE } from "#core/kernel/units/format";
import { simulate } from "./truth";
const kind = (process.env.KIND ?? "misspecified") as "assumed" | "misspecified";
const known = { before: true, foil: process.env.FM !== "0", mark: process.env.FM !== "0" };
const out = [];
let z2 = 0, zn = 0, cov = 0;
for (let k = Number(process.env.FROM ?? 0); k < Number(process.env.N ?? 300); k++) {
  const truth = simulate(k, kind);
  const judge = new FilmJudge(truth.facts(12, known), { draws: 800 });
  const w = truth.work(known);
  const r = judge.risk({ panel: w, local: [], floor_m: DEFAULT_FLOOR_M });
  const b = judge.at(truth.places);
  b.forEach((c, i) => { const z = (c.clear_m - truth.filmAt(truth.places[i]!)) / c.u_m; z2 += z * z; zn++; if (Math.abs(z) <= COVERAGE) cov++; });
  out.push({ k, v: r.verdict, cut: r.cutChance, thin: r.thinChance, isThin: truth.thin, isCut: truth.cut, removal: w.removal_m * 1e6 });
}
const fine = out.filter((o) => !o.isThin && !o.isCut);
const ref = fine.filter((o) => o.v !== "safe");
console.log(kind, known, "fine", fine.length, "refused", ref.length, "by cut only", ref.filter((o) => o.thin <= 0.05).length, "by thin only", ref.filter((o) => o.cut <= 0.005).length, "z", Math.sqrt(z2 / zn), "cover", cov / zn);
console.log("safe", out.filter((o) => o.v === "safe").length);
for (const [a, bb] of [[0, 0.005], [0.005, 0.03], [0.03, 0.3], [0.3, 1.01]] as const) { const s = out.filter((o) => o.cut >= a && o.cut < bb); console.log("cut", a, s.length, s.reduce((x, o) => x + o.cut, 0) / s.length, s.filter((o) => o.isCut).length / s.length); }
for (const [a, bb] of [[0, 0.05], [0.05, 0.25], [0.25, 0.5], [0.5, 0.75], [0.75, 1.01]] as const) { const s = out.filter((o) => o.thin >= a && o.thin < bb); console.log("thin", a, s.length, s.reduce((x, o) => x + o.thin, 0) / s.length, s.filter((o) => o.isThin).length / s.length); }
console.log(ref.map((o) => o.thin.toFixed(2) + "/" + o.cut.toFixed(3)).sort().join(" "));
