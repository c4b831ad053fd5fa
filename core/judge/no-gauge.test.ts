import fc from "fast-check";
import { type PanelState, accountPanel } from "#core/judge/account";
import { filmFacts } from "#core/judge/film-question";
import { FilmJudge } from "#core/judge/film-judge";
import { mapPanel } from "#core/judge/panel-map";
import { weighOptions } from "#core/judge/option-case";
import { DEFAULT_RATES } from "#core/judge/option-figures";
import { panelShape } from "#core/kernel/geometry/shapes";
import { TEST_SHEET as sheet, testLedger, typedFilm } from "#core/panel/testing/test-ledger";

const um = (x: number) => x * 1e-6;
const shape = panelShape("mirrorCap", { width_m: 0.24, height_m: 0.16 });
const brief = { shape, substrate: "plastic" as const, tilt_rad: 0, coatsPlanned: 3 };
const one = (v: number) => [typedFilm(v)];

function sprayed(coats = 3) {
  const l = testLedger({ minutesApart: 10 });
  const strip = (phase: "before" | "after", v: number) => l.add("strip", { phase, gauge: "typed", readings: one(v) });
  return { ...l, strip, spray: () => Array.from({ length: coats }, (_, i) => l.coat(i + 1)) };
}
const account = (l: { entries: Parameters<typeof accountPanel>[2] }): PanelState => accountPanel(brief, sheet, l.entries);
const judgeOf = (state: PanelState) => new FilmJudge(filmFacts(brief, state), { hypotheses: state.film.hypotheses });

test("plastic, coats logged, nothing read: the clear is foretold, said to be so, thinner at the edges, and as doubtful as the model", () => {
  const l = sprayed();
  l.spray();
  const { film, expectedClear, layers } = account(l);
  expect(film).toMatchObject({ how: "forecast", inferred: true, spots: 0 });
  expect(film.mean!.u_m).toBeGreaterThan(0.9 * expectedClear!.u_m);
  expect(film.mean!.clear_m).toBeLessThan(expectedClear!.clear_m); // edges lie thinner than the flat
  expect(film.mean!.clear_m).toBeGreaterThan(0.8 * expectedClear!.clear_m);
  expect(layers.map((x) => x.name)).not.toContain("e-coat");
  expect(layers.at(-1)!.how).toBe("forecast");
});

test("map and options no longer stop there", () => {
  const l = sprayed();
  l.spray();
  const state = account(l);
  const film = filmFacts(brief, state);
  const map = mapPanel({ film, hypotheses: state.film.hypotheses, removal_m: um(8), uRel: 0.2, rim_m: 0.02, floor_m: um(35) });
  expect(map.reason).toBeNull();
  const options = weighOptions(
    { brief, state, finish: "flat", floor_m: um(35), schoolId: "long", cured: 1, rates: DEFAULT_RATES },
    { draws: 200 },
  );
  expect(options.reason).toBeNull();
  expect(options.answer!.inferred).toBe(true);
});

test("before the first coat nothing is foretold; a metal part is still read", () => {
  expect(account(sprayed()).film.mean).toBeNull();
  const l = sprayed();
  l.spray();
  expect(accountPanel({ ...brief, substrate: "refinish" }, sheet, l.entries).film.mean).toBeNull();
});

test("a strip read before and after tells more than the coats, and never as much as a reading on the part", () => {
  const l = sprayed();
  l.strip("before", 20);
  l.spray();
  l.strip("after", 92);
  const state = account(l);
  expect(state.film.how).toBe("by a strip beside it");
  expect(state.strip).toMatchObject({ strip_m: expect.closeTo(um(72), 12) as number });
  const alone = sprayed();
  alone.spray();
  expect(state.film.mean!.u_m).toBeLessThan(0.6 * account(alone).film.mean!.u_m);
  expect(state.film.mean!.u_m).toBeGreaterThan(0.1 * state.film.mean!.clear_m);
});

test("one half of a strip is none", () => {
  const l = sprayed();
  l.spray();
  l.strip("after", 92);
  expect(account(l)).toMatchObject({ strip: null, film: { how: "forecast" } });
});

test("what is sanded off is gone from what is foretold, by the coats and by the strip", () => {
  const of = (withStrip: boolean) => {
    const l = sprayed();
    if (withStrip) l.strip("before", 20);
    l.spray();
    if (withStrip) l.strip("after", 92);
    const before = account(l).film.mean!;
    l.add("flatten", { grit: 1500, by: "hand", removal_m: um(10), u_m: um(2), from: "forecast" });
    return before.clear_m - account(l).film.mean!.clear_m;
  };
  expect(of(false)).toBeCloseTo(um(10), 8);
  expect(of(true)).toBeCloseTo(um(10), 8);
});

test("what may come off is never more than is foretold above the floor; the wider the doubt, the less", () => {
  const ask = { uRel: 0.18, rim_m: 0.02, floor_m: um(35) };
  fc.assert(
    fc.property(fc.integer({ min: 60, max: 160 }), (after) => {
      const l = sprayed();
      l.strip("before", 20);
      l.spray();
      l.strip("after", after);
      const state = account(l);
      const judge = judgeOf(state);
      const { safe_m } = judge.allowance(ask);
      expect(safe_m).toBeLessThan(Math.max(0, state.film.mean!.clear_m - um(35)) + 1e-12 + (safe_m < 0 ? 1 : 0));
      if (safe_m > 0)
        expect(
          judge.risk({ panel: { removal_m: safe_m, u_m: ask.uRel * safe_m, rim_m: ask.rim_m }, local: [], floor_m: ask.floor_m }).verdict,
        ).toBe("safe");
    }),
    { numRuns: 12 },
  );
  const coats = sprayed(5);
  coats.spray();
  const byCoats = judgeOf(account(coats)).allowance(ask).safe_m;
  const clear = account(coats).expectedClear!.clear_m;
  const read = sprayed(5);
  read.strip("before", 20);
  read.spray();
  read.strip("after", 20 + clear * 1e6);
  expect(byCoats).toBeLessThan(judgeOf(account(read)).allowance(ask).safe_m);
});
