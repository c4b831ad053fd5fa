import { FilmJudge } from "#core/judge/film-judge";
import { simulate } from "./truth";
for (const kind of ["misspecified", "assumed"] as const) for (const fm of [true, false]) {
  const known = { before: true, foil: fm, mark: fm };
  let c2 = 0, n = 0, l2 = 0, ln = 0, me2 = 0, mu2 = 0, e2=0,u2=0; const micro: number[] = [];
  for (let k = 0; k < 100; k++) {
    const truth = simulate(k, kind);
    const judge = new FilmJudge(truth.facts(12, known), { draws: 100 });
    const b = judge.at(truth.places);
    const err = b.map((c, i) => c.clear_m - truth.filmAt(truth.places[i]!));
    const me = err.reduce((a, x) => a + x, 0) / err.length;
    const m = judge.mean();
    c2 += (me / m.u_m) ** 2; n++; me2 += me*me; mu2 += m.u_m**2;
    err.forEach((e, i) => { const ul2 = Math.max(1e-14, b[i]!.u_m ** 2 - m.u_m ** 2); l2 += (e - me) ** 2 / ul2; ln++; e2 += (e-me)**2; u2 += ul2; });
    micro.push(judge.prior().micro_m*1e6, judge.prior().sdClear_m*1e6, judge.prior().length_m);
  }
  console.log(kind, fm, "z common", Math.sqrt(c2 / n).toFixed(2), "rms err", (Math.sqrt(me2/n)*1e6).toFixed(2), "u", (Math.sqrt(mu2/n)*1e6).toFixed(2), "| z local", Math.sqrt(l2 / ln).toFixed(2), "rms", (Math.sqrt(e2/ln)*1e6).toFixed(2), "u", (Math.sqrt(u2/ln)*1e6).toFixed(2), "micro,sd,len", [0,1,2].map((j)=>(micro.filter((_, i)=>i%3===j).reduce((a,x)=>a+x,0)/100).toFixed(2)).join(" "));
}
