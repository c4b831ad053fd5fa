import { REFERENCE_GUN, REFERENCE_SETTING, referenceWith } from "#core/models/flow/testing/usual-setting";
import fc from "fast-check";
import { USUAL_GUN } from "#core/models/spray/usual-gun";
import { SUBSTRATE_TEXTURE, TEXTURE_LIMITS, TEXTURE_SD } from "#core/models/flow/constants";
import {
  FLOW_CHANGES,
  FLOW_ZONES,
  applyChange,
  cheapestChanges,
  flowReasons,
  flowVerdict,
  nearestSlip,
  zoneVerdicts,
} from "#core/models/flow/flow-advice";
import { EDGE_FILM, chanceWord, runChance, sagAtEdge, sagLogSd } from "#core/models/flow/run-chance";
import { FLOW_AXES, FLOW_PAIRS, type FlowAxis, flowClass, flowWindow, moveSetting, settingAt, wetOf } from "#core/models/flow/flow-window";
import { textureOf, tubeReflection, withTexture } from "#core/models/flow/reflection";
import { layCoats, simulateCoats } from "#core/models/flow/simulate-coats";
import { waveNumbers } from "#core/models/flow/wave-numbers";
import { normalCdf } from "#core/kernel/stats/normal";
import { seededRandom } from "#core/kernel/stats/random";

const KELVIN = 273.15;
const LIMIT = TEXTURE_LIMITS.asSprayed;
const gun = REFERENCE_GUN;
const setting = REFERENCE_SETTING;
const at = referenceWith;
const AXES = Object.keys(FLOW_AXES) as FlowAxis[];

describe("moving one figure of a setting", () => {
  test.each(AXES)("%s arrives where it was sent, and nothing else of it moves", (axis) => {
    const { from, to } = FLOW_AXES[axis];
    fc.assert(
      fc.property(fc.double({ min: from + 0.02 * (to - from), max: to, noNaN: true }), (value) => {
        const moved = moveSetting(setting, axis, value, wetOf(setting));
        const now = axis === "wet" ? wetOf(moved) : settingAt(moved, axis, 0);
        expect(now / value).toBeCloseTo(1, 9);
        for (const other of AXES.filter((a) => a !== axis && a !== "wet" && !(axis === "wet" && a === "speed")))
          expect(settingAt(moved, other, 0)).toBe(settingAt(setting, other, 0));
      }),
      { numRuns: 20 },
    );
  });
  test("the flash of a first coat moves nothing; a figure that is none is refused", () => {
    const first = { ...setting, coats: setting.coats.slice(1) };
    expect(moveSetting(first, "flash", 60, 0)).toBe(first);
    expect(() => moveSetting(setting, "speed", NaN, 0)).toThrow("speed");
  });
});

describe("the window", () => {
  test.each(FLOW_PAIRS.map((p) => [p.x, p.y] as const))(
    "%s × %s: every cell is what the whole model says there",
    (xAxis: FlowAxis, yAxis: FlowAxis) => {
      const n = 5;
      const w = flowWindow(setting, { xAxis, yAxis, n });
      for (const [i, j] of [
        [0, 0],
        [2, 3],
        [4, 1],
        [4, 4],
      ] as const) {
        const first = xAxis === "wet" ? ([yAxis, w.y[j]!] as const) : ([xAxis, w.x[i]!] as const);
        const second = xAxis === "wet" ? ([xAxis, w.x[i]!] as const) : ([yAxis, w.y[j]!] as const);
        const half = moveSetting(setting, first[0], first[1], wetOf(setting));
        const cell = moveSetting(half, second[0], second[1], wetOf(half));
        const r = simulateCoats(cell.conditions, cell.coats, { nodes: waveNumbers(8) });
        expect(w.sag_m[j * n + i]! / r.sagLocal_m).toBeCloseTo(1, 4);
        expect(w.texture[j * n + i]!).toBeCloseTo(r.texture, 4);
        expect(w.levels_m[j * n + i]! / r.coats.at(-1)!.levelWavelength_m).toBeCloseTo(1, 4);
      }
    },
  );
  test("coats laid once give the same end as coats laid with the rest", () => {
    const nodes = waveNumbers(8);
    const laid = layCoats(setting.conditions, setting.coats.slice(0, 1), { nodes });
    const once = simulateCoats(setting.conditions, setting.coats, { nodes, laid });
    const whole = simulateCoats(setting.conditions, setting.coats, { nodes });
    expect(once.texture).toBe(whole.texture);
    expect(once.sagLocal_m).toBe(whole.sagLocal_m);
    expect(once.dry_m).toBe(whole.dry_m);
  });
  test("closer is wetter: sag never falls towards the gun, progress runs to one, nonsense is refused", () => {
    const seen: number[] = [];
    const w = flowWindow(setting, { xAxis: "distance", yAxis: "speed", n: 8 }, (p) => seen.push(p));
    for (let j = 0; j < 8; j++)
      for (let i = 1; i < 8; i++) expect(w.sag_m[j * 8 + i]!).toBeLessThanOrEqual(w.sag_m[j * 8 + i - 1]! * (1 + 1e-6));
    expect(seen.at(-1)).toBe(1);
    expect(() => flowWindow(setting, { xAxis: "speed", yAxis: "speed" })).toThrow("yAxis must differ");
    expect(() => flowWindow(setting, { xAxis: "speed", yAxis: "air", n: 1 })).toThrow("n must be");
  });
  test("classes by sag, texture and dry spray", () => {
    const of = (sagLocal_m: number, texture: number, drySpray = false) => flowClass({ sagLocal_m, texture, drySpray }, 4);
    expect([of(0.03, 3), of(0.015, 3), of(0.005, 3), of(0.005, 4.5), of(0.005, 3, true), of(0.03, 9)]).toEqual([
      "runs",
      "lean",
      "flows",
      "peels",
      "peels",
      "runs",
    ]);
  });
});

describe("advice", () => {
  test("the usual setting flows with room on both sides; chances are chances", () => {
    const v = flowVerdict(setting, LIMIT);
    expect(v.class).toBe("flows");
    expect(v.margin).toBeGreaterThan(0);
    for (const p of [v.runChance, v.peelChance]) expect(p >= 0 && p <= 1).toBe(true);
  });
  test("a chance of a run rises with film, a chance of peel with distance", () => {
    const runs = [0.31, 0.27, 0.23, 0.18].map((handSpeed_m_s) => flowVerdict(at({ handSpeed_m_s }), LIMIT).runChance);
    runs.slice(1).forEach((p, i) => expect(p).toBeGreaterThan(runs[i]!));
    const peels = [0.15, 0.18, 0.22, 0.26].map((distance_m) => flowVerdict(at({ distance_m }), LIMIT).peelChance);
    peels.slice(1).forEach((p, i) => expect(p).toBeGreaterThanOrEqual(peels[i]!));
  });
  test("ln sag is as wide as the model and the film's doubt make it; half of what slides 22 mm runs", () => {
    // Worked by hand: √(0.6² + (2.95 · 0.3)²) = 1.0692; ln 2 / 1.0692 = 0.6483, Φ(−0.6483) = 0.2584.
    expect(sagLogSd(0)).toBeCloseTo(0.6, 12);
    expect(sagLogSd(0.3)).toBeCloseTo(1.0692, 4);
    expect(runChance(0.022)).toBeCloseTo(0.5, 12);
    expect(runChance(0.011, 0.3)).toBeCloseTo(0.2584, 3);
    expect(sagAtEdge(0.01)).toBeCloseTo(0.01953125, 12);
    expect(() => runChance(Number.NaN)).toThrow(RangeError);
    expect(() => runChance(0.01, -1)).toThrow(RangeError);
  });
  test("the less is known of the film, the nearer to even", () => {
    fc.assert(
      fc.property(fc.double({ min: 1e-4, max: 0.2, noNaN: true }), fc.double({ min: 0, max: 0.6, noNaN: true }), (sag_m, u) => {
        expect(Math.abs(runChance(sag_m, u + 0.1) - 0.5)).toBeLessThanOrEqual(Math.abs(runChance(sag_m, u) - 0.5) + 1e-12);
      }),
    );
  });
  test("the headline is the worst place's: at an edge, whatever edge the field was worked out with", () => {
    const edge = flowVerdict({ ...setting, conditions: { ...setting.conditions, edge: EDGE_FILM } }, LIMIT);
    expect(flowVerdict(setting, LIMIT).runChance).toBeCloseTo(edge.runChance, 9);
  });
  test("until it is calibrated a chance is a word", () => {
    expect([0, 0.19, 0.2, 0.49, 0.5, 1].map(chanceWord)).toEqual(["unlikely", "unlikely", "may", "may", "likely", "likely"]);
    expect(() => chanceWord(1.1)).toThrow(RangeError);
  });
  test("dry spray is never surer to come out well than its waves say", () => {
    // From 28 cm it lay dry and was told as 84 % where the waves alone said 99.98 %.
    const far = flowVerdict(at({ distance_m: 0.28 }), LIMIT);
    expect(far.result.drySpray).toBe(true);
    const byWaves = normalCdf((far.result.texture - LIMIT) / TEXTURE_SD);
    expect(far.peelChance).toBeGreaterThanOrEqual(byWaves - 1e-12);
    expect(far.peelChance).toBeGreaterThanOrEqual(normalCdf(1) - 1e-12);
  });
  test("every change offered widens the margin, best for its effort first, at most three", () => {
    for (const s of [at({ distance_m: 0.13 }), at({ distance_m: 0.24 }), at({ handSpeed_m_s: 0.2 })]) {
      const now = flowVerdict(s, LIMIT).margin;
      const offered = cheapestChanges(s, LIMIT);
      expect(offered.length).toBeGreaterThan(0);
      expect(offered.length).toBeLessThanOrEqual(3);
      for (const c of offered) {
        expect(c.verdict.margin).toBeGreaterThan(now);
        expect(c.gain).toBeCloseTo(c.verdict.margin - now, 9);
      }
    }
  });
  test("too close: further back or faster is offered, never closer or slower", () => {
    const words = cheapestChanges(at({ distance_m: 0.125 }), LIMIT).map((c) => c.id);
    expect(words.some((w) => w === "back" || w === "faster" || w === "less-fluid")).toBe(true);
    expect(words).not.toContain("closer");
    expect(words).not.toContain("slower");
  });
  test("changes that leave the model or change nothing are not offered; ids are unique", () => {
    const hardener = FLOW_CHANGES.filter((c) => c.axis === "hardener");
    expect(
      applyChange(
        { ...setting, conditions: { ...setting.conditions, speed: "slow" } },
        hardener.find((c) => c.speed === "slow")!,
      ),
    ).toBeNull();
    expect(
      applyChange(
        at({ distance_m: 0.07 }),
        FLOW_CHANGES.find((c) => c.id === "closer")!,
      ),
    ).toBeNull();
    expect(
      applyChange(
        { ...setting, coats: [setting.coats[1]!] },
        FLOW_CHANGES.find((c) => c.id === "flash")!,
      ),
    ).toBeNull();
    expect(new Set(FLOW_CHANGES.map((c) => c.id)).size).toBe(FLOW_CHANGES.length);
  });
  test("the nearest slip is real: taking it spoils the coat", () => {
    const near = at({ handSpeed_m_s: 0.21 });
    const slip = nearestSlip(near, LIMIT);
    expect(slip).not.toBeNull();
    const edge = slip!.where === "" ? 1 : EDGE_FILM;
    const there = { ...near, conditions: { ...near.conditions, edge } };
    const change = FLOW_CHANGES.find((c) => c.words === slip!.words);
    const spoilt = change ? applyChange(there, change)! : there;
    expect(flowVerdict(spoilt, LIMIT).class).toBe(slip!.class);
  });
  test("edges slide more than the field, lying less; every zone is answered", () => {
    const zones = zoneVerdicts(setting, LIMIT);
    expect(zones.map((z) => z.id)).toEqual(FLOW_ZONES.map((z) => z.id));
    const sag = Object.fromEntries(zones.map((z) => [z.id, z.verdict.result.sagLocal_m]));
    expect(sag.edge!).toBeGreaterThan(sag.upright!);
    expect(sag.upright!).toBeGreaterThan(sag.sloped!);
    expect(sag.sloped!).toBeGreaterThan(sag.lying!);
  });
  test.each([
    ["hot air and fast hardener", { ...setting, conditions: { ...setting.conditions, air_K: 33 + KELVIN, speed: "fast" as const } }],
    ["hot air: it dries on landing", { ...setting, conditions: { ...setting.conditions, air_K: 31 + KELVIN } }],
    ["cold material", { ...setting, conditions: { ...setting.conditions, material_K: 12 + KELVIN } }],
    ["cold booth", { ...setting, conditions: { ...setting.conditions, air_K: 12 + KELVIN } }],
    ["far away", at({ distance_m: 0.25 })],
    ["close", at({ distance_m: 0.12 })],
    ["a heavy wet coat", at({ handSpeed_m_s: 0.18 })],
    ["a thin, dry coat", at({ handSpeed_m_s: 0.7 })],
    ["next coat too soon", { ...setting, coats: [{ gun, flash_s: 0 }, setting.coats[1]!] }],
    ["low pressure", at({ pressure_Pa: 1.3e5 })],
  ])("says why: %s", (why, s) => {
    expect(flowReasons(s, flowVerdict(s, LIMIT)).some((r) => r.startsWith(why))).toBe(true);
  });
  test("nothing stands out in the usual setting", () => {
    expect(flowReasons(setting, flowVerdict(setting, LIMIT))).toEqual([]);
  });
});

describe("reflection of a light tube", () => {
  const { weight } = waveNumbers(16);
  const view = { length_m: 0.2, samples: 400, distance_m: 0.5, apart_m: 0.026 };
  const rms = (a: Float64Array) => Math.sqrt(a.reduce((s, v) => s + v * v, 0) / a.length);
  const result = simulateCoats(setting.conditions, setting.coats);
  test("a smooth surface leaves it straight, a rougher one bends it more, the same seed the same picture", () => {
    const flat = { k: result.spectrum.k, density: new Float64Array(result.spectrum.k.length) };
    expect(rms(tubeReflection(flat, weight, view, seededRandom(1)).upper_m)).toBe(0);
    const rough = { k: result.spectrum.k, density: result.spectrum.density.map((s) => 4 * s) };
    const [a, b] = [result.spectrum, rough].map((s) => rms(tubeReflection(s, weight, view, seededRandom(1)).upper_m));
    expect(b! / a!).toBeCloseTo(2, 9);
    expect(tubeReflection(result.spectrum, weight, view, seededRandom(5))).toEqual(
      tubeReflection(result.spectrum, weight, view, seededRandom(5)),
    );
  });
  test("twice as far it bends twice as much; over many seeds it is near the predicted slope", () => {
    const of = (distance_m: number, seed: number) =>
      rms(tubeReflection(result.spectrum, weight, { ...view, distance_m }, seededRandom(seed)).lower_m);
    expect(of(1, 2) / of(0.5, 2)).toBeCloseTo(2, 9);
    const mean = Array.from({ length: 40 }, (_, i) => of(0.5, i) ** 2).reduce((a, b) => a + b, 0) / 40;
    // Across one direction half of the slope's variance, times (2 × distance)².
    expect(Math.sqrt(mean) / (result.slope_rad / Math.SQRT2)).toBeGreaterThan(0.8);
    expect(Math.sqrt(mean) / (result.slope_rad / Math.SQRT2)).toBeLessThan(1.25);
    expect(() => tubeReflection(result.spectrum, weight, { ...view, samples: 2 }, seededRandom(1))).toThrow("samples");
  });
});

describe("a texture by rating", () => {
  const { conditions } = REFERENCE_SETTING;
  const result = simulateCoats(conditions, [{ gun: USUAL_GUN, flash_s: 0 }]);
  test("its own rating leaves the waves as they are; one step more makes them 1.7 times as high", () => {
    const same = withTexture(result, result.texture);
    const more = withTexture(result, result.texture + 1);
    result.spectrum.density.forEach((d, i) => {
      expect(same.spectrum.density[i]! / d).toBeCloseTo(1, 9);
      expect(Math.sqrt(more.spectrum.density[i]! / d)).toBeCloseTo(1.7, 9);
    });
    expect(() => withTexture(result, 0.5)).toThrow(RangeError);
  });
  test("textures of the surfaces below: polished is glass, a base as sprayed is not", () => {
    expect(textureOf(SUBSTRATE_TEXTURE.polished)).toBe(1);
    expect(textureOf(SUBSTRATE_TEXTURE.basecoat)).toBeGreaterThan(2);
    expect(textureOf({ long_m: result.rmsLong_m, short_m: result.rmsShort_m })).toBeCloseTo(Math.min(5, Math.max(1, result.texture)), 6);
    expect(() => textureOf({ long_m: -1, short_m: 0 })).toThrow(RangeError);
  });
});
