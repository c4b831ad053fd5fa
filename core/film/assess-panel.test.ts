import { readFileSync } from "node:fs";
import { type AssessInput, assessPanel } from "#core/film/assess-panel";
import { cellRisk, edgeMultiplier } from "#core/film/cell-risk";
import { FilmField, type FilmObservation } from "#core/film/film-field";
import { DEFAULT_FIELD } from "#core/film/film-field";
import { panelGrid } from "#core/film/panel-grid";
import { panelRisk } from "#core/film/panel-risk";
import { verdictOf } from "#core/film/verdict";
import type { Point } from "#core/panel/geometry";

interface Case {
  id: string;
  input: { poly: Point[]; obs: [number, number, "a" | "b", number, number][] };
  expected: { Pcut: number; Puv: number; verdict: string };
}
const { cases } = JSON.parse(readFileSync("core/compute/checks/film-checks.json", "utf8")) as { cases: Case[] };
const find = (id: string) => cases.find((c) => c.id === id)!;
const map = find("map.fixed.n6").input;
const um = (x: number) => x * 1e-6;
const observations = map.obs.map(([x, y, l, v, n]): FilmObservation => ({
  at: [x, y],
  layer: l === "a" ? "after" : "before",
  total_m: um(v),
  n,
}));
const { length_m, sdClear_m, sdUnder_m, micro_m } = DEFAULT_FIELD;
const input: AssessInput = {
  outline: map.poly,
  unknowns: { length_m, sdClear_m, sdUnder_m, micro_m }, // the reference's risk cases hold them fixed
  observations,
  history: { weights: { factory: 0.8, refinish: 0.2 } },
  removal_m: um(8.8875),
  u_removal_m: um(1.3177957),
  floor_m: um(35),
  tape_m: 0.02,
};

test("six spots before and after: chances and verdict agree with the reference program", () => {
  const { expected } = find("risk.n6");
  const a = assessPanel(input);
  expect(Math.abs(a.thinChance - expected.Puv)).toBeLessThan(0.03);
  expect(Math.abs(a.cutChance - expected.Pcut)).toBeLessThan(0.005);
  expect(verdictOf({ cut: a.cutChance, thin: a.thinChance })).toBe(expected.verdict);
  expect(a.inferred).toBe(false);
});

const shifted = (by: number) => observations.map((o) => (o.layer === "after" ? { ...o, total_m: o.total_m + um(by) } : o));
/** Fewer draws where a test is after the direction, not the third figure. */
const QUICK = 500;

test("it is 'uncertain', not 'caution', when a few readings as expected would make it safe", () => {
  const a = assessPanel({ ...input, observations: shifted(5), draws: QUICK });
  expect(a.verdict).toBe("uncertain");
  expect(a.thinChance).toBeGreaterThan(0.05);
  expect(a.readingsWanted!.at).toHaveLength(a.readingsWanted!.count);
});

test("plenty of film is safe, hardly any is a stop that more readings do not mend", () => {
  expect(assessPanel({ ...input, observations: shifted(25), draws: QUICK }).verdict).toBe("safe");
  const thin = assessPanel({ ...input, observations: shifted(-30), draws: QUICK });
  expect(thin.verdict).toBe("stop");
  expect(thin.readingsWanted).toBeNull();
  expect(thin.largestSafeRemoval_m).toBeLessThan(0);
});

test("fewer than three spots after clear: no verdict, with the reason", () => {
  const a = assessPanel({ ...input, observations: observations.slice(0, 4) });
  expect(a.verdict).toBe("none");
  expect(a.reason).toContain("2 of at least 3 spots");
});

test("without before-readings it is inferred and riskier; a run adds its own chance of cutting through", () => {
  const after = observations.filter((o) => o.layer === "after").map((o) => ({ ...o, total_m: o.total_m - um(28) }));
  const guessed = assessPanel({ ...input, observations: after, draws: QUICK });
  expect(guessed.inferred).toBe(true);
  expect(guessed.thinChance).toBeGreaterThan(assessPanel({ ...input, draws: QUICK }).thinChance);
  expect(assessPanel({ ...input, localCutChance: 0.2, draws: QUICK }).cutChance).toBeCloseTo(0.2, 2);
});

test("coats of one's own replace the usual stack's clear", () => {
  const after = observations.filter((o) => o.layer === "after");
  const sprayed = assessPanel({
    ...input,
    observations: after,
    draws: QUICK,
    history: { weights: { factory: 0, refinish: 1 }, sprayed: { clear_m: um(60), u_m: um(4) } },
  });
  expect(Math.abs(sprayed.meanClear_m - um(60))).toBeLessThan(um(6));
});

describe("laws of the risk", () => {
  const field = new FilmField(observations, map.poly);
  const grid = panelGrid(map.poly, 0.02);
  const risk = (over: Partial<Parameters<typeof panelRisk>[0]>) =>
    panelRisk({
      field,
      grid,
      removal_m: um(9),
      u_removal_m: um(1.3),
      floor_m: um(35),
      areaShare: 0,
      draws: 600,
      ...over,
    });
  test("it rises with removal and with the floor", () => {
    const by = (key: "removal_m" | "floor_m", values: number[]) => values.map((v) => risk({ [key]: um(v), areaShare: 0.02 }).chance);
    for (const list of [by("removal_m", [2, 8, 14, 20]), by("floor_m", [20, 30, 40, 50])])
      expect([...list].sort((a, b) => a - b)).toEqual(list);
  });
  test("no place is riskier than the panel, and the panel not riskier than all places together", () => {
    const r = risk({ floor_m: um(40) });
    expect(r.worstChance).toBeLessThanOrEqual(r.chance + 0.02);
    expect(r.chance).toBeLessThanOrEqual(Math.min(1, r.meanShareBelow * r.judgedCells) + 0.02);
  });
  test("the same seed gives the same answer; the allowed removals are sorted and agree with the chance", () => {
    const r = risk({ areaShare: 0.02 });
    expect(risk({ areaShare: 0.02 }).chance).toBe(r.chance);
    expect([...r.allowedRemoval_m].every((v, i, all) => i === 0 || v >= all[i - 1]!)).toBe(true);
    const share = r.allowedRemoval_m.filter((v) => v < um(9)).length / r.allowedRemoval_m.length;
    expect(Math.abs(share - r.chance)).toBeLessThan(0.05);
  });
  test("taping the whole panel away is refused", () => {
    expect(() => panelGrid(map.poly, 0.9)).toThrow("tape_m must leave some panel");
  });
});

test("one place: more at the edge, half at its mean", () => {
  expect(edgeMultiplier(0)).toBe(1.5);
  expect(edgeMultiplier(1)).toBeCloseTo(1, 9);
  expect(cellRisk({ clear_m: um(50), u_clear_m: um(4), removal_m: um(15), u_removal_m: um(2), floor_m: um(35) })).toBeCloseTo(0.5, 12);
  expect(() => verdictOf({ cut: 1.2, thin: 0 })).toThrow("cut");
});

test("verdict limits", () => {
  expect([
    verdictOf({ cut: 0.005, thin: 0.05 }),
    verdictOf({ cut: 0.006, thin: 0.05 }),
    verdictOf({ cut: 0.031, thin: 0 }),
    verdictOf({ cut: 0, thin: 0.26 }),
  ]).toEqual(["safe", "caution", "stop", "stop"]);
});
