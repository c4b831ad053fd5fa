import { UNMEASURED } from "#core/judge/limits";
import { filmFacts } from "#core/judge/film-question";
import { removedAtSpots } from "#core/panel/removed-at-spots";
import type { BodyInputOf, EntryKind } from "#core/record/bodies";
import { accountPanel } from "#core/judge/account";
import { mapPanel } from "#core/judge/panel-map";
import { type FilmMoment, filmHistory } from "#core/judge/film-history";
import { panelShape, suggestSpots } from "#core/kernel/geometry/shapes";
import { TEST_SHEET as sheet, testLedger, typedFilm } from "#core/panel/testing/test-ledger";

const um = (x: number) => x * 1e-6;
const shape = panelShape("bonnet", { width_m: 1.4, height_m: 1.2 });
const brief = { shape, substrate: "refinish" as const, tilt_rad: 0, coatsPlanned: 2 };
/** A ledger whose entries are ten minutes apart unless told otherwise. */
function ledger() {
  const { entries, coat, ...made } = testLedger({ minutesApart: 10 });
  const add = <K extends EntryKind>(kind: K, body: BodyInputOf<K>, after_min = 10) => made.add(kind, body, { after_min });
  const read = (phase: "before" | "after" | "recheck", film: number, more: Partial<BodyInputOf<"reading">> = {}, spot = "1") =>
    add(
      "reading",
      {
        phase,
        spot,
        at: { x_m: 0.5 + Number(spot) / 10, y_m: 0.5 },
        gauge: "typed",
        readings: [typedFilm(film)],
        ...more,
      },
      1,
    );
  const check = (zero: number, onFoil: number, correct = false, gauge = "typed") => {
    const one = (v: number) => [typedFilm(v)];
    return add("gaugeCheck", { gauge, foil_m: um(150), uFoil_m: um(1), zero: one(zero), onFoil: one(onFoil), correct });
  };
  const step = (name: string, taken: number) => add("step", { planId: "plan", index: 0, name, removal_m: um(taken), u_m: um(1), note: "" });
  return { entries, add, read, check, coat, step };
}
const derive = (l: ReturnType<typeof ledger>) => accountPanel(brief, sheet, l.entries);

test("one gauge before and after shares its error; another gauge, or a new set-up between, does not", () => {
  const same = ledger();
  same.read("before", 90);
  same.read("after", 150);
  const other = ledger();
  other.read("before", 90);
  other.read("after", 150, { gauge: "Gauge 2" });
  const setUpAgain = ledger();
  setUpAgain.read("before", 90);
  setUpAgain.check(0, 150);
  setUpAgain.read("after", 150);
  expect([same, other, setUpAgain].map((l) => derive(l).sessions.correlation)).toEqual([0.8, 0, 0]);
  expect(derive(other).spots[0]!.clear!.u_m).toBeGreaterThan(derive(same).spots[0]!.clear!.u_m);
});

test("places found again by a template make the clear surer", () => {
  const by = (template: boolean) => {
    const l = ledger();
    l.read("before", 90);
    l.read("after", 150, { template });
    return derive(l);
  };
  expect(by(true).sessions.relocation_m).toBe(0.003);
  expect(by(false).sessions.relocation_m).toBe(0.015);
  expect(by(true).spots[0]!.clear!.u_m).toBeLessThan(by(false).spots[0]!.clear!.u_m);
});

test("a gauge that cannot be set is corrected by its own zero and foil, from its check on", () => {
  const l = ledger();
  l.read("before", 100);
  l.check(4, 160, true);
  l.read("after", 160);
  const [spot] = derive(l).spots;
  expect(spot!.films.after!.film.mean_m / um(1)).toBeCloseTo(150, 6); // (160 − 4)·150/(160 − 4)
  expect(spot!.films.before!.film.mean_m / um(1)).toBeCloseTo(100, 6); // read before the check: as it was
  const plain = ledger();
  plain.check(4, 160, false);
  plain.read("after", 160);
  expect(derive(plain).spots[0]!.films.after!.film.mean_m / um(1)).toBeCloseTo(160, 6);
});

test("film through time: coats add as predicted, a visit is one event, steps take off, a recheck settles it", () => {
  const l = ledger();
  l.read("before", 90);
  l.coat(1);
  l.coat(2);
  for (const spot of ["1", "2", "3"]) l.read("after", 150, {}, spot);
  l.step("P1500 medium", 5);
  l.read("recheck", 143);
  const moments = filmHistory(brief, sheet, l.entries);
  expect(moments.map((m) => m.what)).toEqual(["Coat 1", "Coat 2", "after clear", "P1500 medium", "after sanding"]);
  const [one, two, read, worked, again] = moments;
  expect(one!.measured).toBeNull();
  expect(two!.predicted!.clear_m / one!.predicted!.clear_m).toBeCloseTo(2, 6);
  expect(Math.abs(read!.measured!.clear_m / um(1) - 60)).toBeLessThan(3); // edges are thinner than the spots
  expect(read!.measured!).toMatchObject({ spots: 3, how: "measured" });
  expect(read!.spots["2"]!.how).toBe("by its neighbours"); // never read before clear
  expect((read!.measured!.clear_m - worked!.measured!.clear_m) / um(1)).toBeCloseTo(5, 0);
  expect((two!.predicted!.clear_m - worked!.predicted!.clear_m) / um(1)).toBeCloseTo(5, 6);
  expect(worked!.measured!.how).toBe("measured less removal");
  expect(Math.abs(again!.spots["1"]!.clear_m / um(1) - 53)).toBeLessThan(2);
});

test("carried forward entry by entry, through strikes and corrections, the history is the one of the whole ledger; only what is new is worked out", () => {
  const l = ledger();
  l.read("before", 90);
  l.coat(1);
  const slip = l.read("after", 480);
  for (const spot of ["2", "3"]) l.read("after", 150, {}, spot);
  l.step("P1500 medium", 5);
  l.read("recheck", 143);
  const last = () => l.entries.at(-1)!;
  l.entries.push({ ...last(), id: "strike", kind: "strike", body: { reason: "", whole: false }, supersedes: slip, seq: last().seq + 1 });
  l.coat(2);
  l.entries.push({ ...l.entries[0]!, id: "put right", supersedes: l.entries[0]!.id, seq: last().seq + 1 });
  l.read("after", 190);
  const kept = new Map<string, FilmMoment>();
  for (let n = 0; n <= l.entries.length; n++) {
    const upTo = l.entries.slice(0, n);
    const before = kept.size;
    expect(filmHistory(brief, sheet, upTo, undefined, kept)).toEqual(filmHistory(brief, sheet, upTo));
    const size = kept.size;
    expect(filmHistory(brief, sheet, upTo, undefined, kept)).toHaveLength(filmHistory(brief, sheet, upTo).length);
    expect(kept.size).toBe(size); // nothing of it was worked out a second time
    if (upTo.at(-1)?.kind === "coat") expect(size - before).toBe(1);
  }
});

test("a spot struck out is not in the history, and an empty ledger has none", () => {
  const l = ledger();
  l.read("before", 90);
  const id = l.read("after", 150);
  l.entries.push({ ...l.entries[0]!, id: "strike", kind: "strike", body: { reason: "", whole: false }, supersedes: id });
  expect(filmHistory(brief, sheet, l.entries)).toEqual([]);
  expect(filmHistory(brief, sheet, [])).toEqual([]);
});

describe("the film account of a panel", () => {
  const places = suggestSpots(shape.outline, 6);
  const BEFORE = [92, 90, 94, 91, 93, 90];
  const CLEAR = [59, 56, 60, 58, 57, 53];
  const AFTER = BEFORE.map((b, i) => b + CLEAR[i]!);
  const fresh = () => testLedger({ places });
  const accountOf = (l: ReturnType<typeof fresh>) => accountPanel(brief, sheet, l.entries);
  const step = (l: ReturnType<typeof fresh>, taken: number) =>
    l.add("step", { planId: "x", index: 0, name: "P1500 medium", removal_m: um(taken), u_m: um(1), note: "" });
  const foilCheck = (l: ReturnType<typeof fresh>, onFoil = 150, correct = false) => {
    const one = (v: number) => [typedFilm(v)];
    l.add("gaugeCheck", { gauge: "typed", foil_m: um(150), uFoil_m: um(1), zero: one(0), onFoil: one(onFoil), correct });
  };
  const inMicrons = (m: number) => m / um(1);
  const clearLayers = (s: ReturnType<typeof accountOf>) => s.layers.filter((x) => x.tone === "clear");
  const sectionClear = (s: ReturnType<typeof accountOf>) => clearLayers(s).reduce((a, x) => a + x.thickness_m, 0);

  test("clear at the spots is after less before, as far as one gauge can tell; section and mean are one figure", () => {
    const l = fresh();
    l.read("before", BEFORE);
    l.coat(1);
    l.coat(2);
    l.read("after", AFTER);
    const state = accountOf(l);
    state.spots.forEach((s, i) => {
      expect(Math.abs(inMicrons(s.clear!.clear_m) - CLEAR[i]!)).toBeLessThan(2.5);
      expect(Math.abs(inMicrons(s.clear!.clear_m) - CLEAR[i]!)).toBeLessThan(2 * inMicrons(s.clear!.u_m));
    });
    expect(state.film).toMatchObject({ how: "measured", inferred: false, spots: 6 });
    expect(sectionClear(state)).toBeCloseTo(state.film.mean!.clear_m, 12);
    expect(clearLayers(state).map((x) => x.how)).toEqual(["measured", "measured"]);
    expect(state.film.thinnest!.clear_m).toBeLessThan(state.film.mean!.clear_m);
  });

  test("without before-readings two coats are one figure everywhere, inferred (once: 55 on Inspect, 68 on the map)", () => {
    const l = fresh();
    l.coat(1);
    l.coat(2);
    l.read("after", AFTER);
    const state = accountOf(l);
    expect(state.film).toMatchObject({ inferred: true, how: "inferred" });
    expect(state.spots.every((s) => s.clear!.how === "inferred")).toBe(true);
    const map = mapPanel({ film: filmFacts(brief, state), removal_m: um(9), uRel: 0.2, rim_m: 0.02, floor_m: um(35), draws: 100 }).map!;
    expect(map.mean).toEqual(state.film.mean);
    expect(map.thinnest).toEqual(state.film.thinnest);
    expect(sectionClear(state)).toBeCloseTo(map.mean.clear_m, 12);
  });

  test("coats alone give a predicted film; two coats 50 to 60 µm, known to about a third", () => {
    const l = fresh();
    l.coat(1);
    l.coat(2);
    const { predictedClear, layers, film } = accountOf(l);
    expect(predictedClear!.clear_m).toBeGreaterThan(um(50));
    expect(predictedClear!.u_m / predictedClear!.clear_m).toBeCloseTo(Math.hypot(0.3, 0.1 / Math.SQRT2), 6);
    expect(layers.at(-1)!.how).toBe("predicted");
    expect(film.mean).toBeNull();
  });

  test("sanded clear stays off where it was not read again: one of six spots read anew raises no other (once: 47.2 here, 56.0 there)", () => {
    const l = fresh();
    l.read("before", BEFORE);
    l.coat(1);
    l.coat(2);
    l.read("after", AFTER);
    step(l, 10);
    const sanded = accountOf(l);
    l.read("recheck", [AFTER[0]! - 10]);
    const again = accountOf(l);
    again.spots.slice(1).forEach((s, i) => expect(s.clear!.clear_m).toBeLessThanOrEqual(sanded.spots[i + 1]!.clear!.clear_m + um(0.3)));
    expect(again.film.mean!.clear_m).toBeLessThan(sanded.film.mean!.clear_m + um(0.5));
    expect(again.spots[1]!.clear!.how).toBe("measured less removal");
    expect(again.spots[0]!.clear!.how).toBe("measured");
    expect(again.spots[1]!.clear!.u_m).toBeLessThan(sanded.spots[1]!.clear!.u_m); // one mark tells something of the step everywhere
  });

  test("a step takes its forecast off, with its doubt; a reading after it settles the matter", () => {
    const l = fresh();
    foilCheck(l);
    l.read("before", BEFORE);
    l.read("after", AFTER);
    const untouched = accountOf(l).film.mean!;
    step(l, 6);
    const sanded = accountOf(l).film.mean!;
    expect(inMicrons(untouched.clear_m - sanded.clear_m)).toBeCloseTo(6, 0);
    expect(sanded.u_m).toBeGreaterThan(untouched.u_m);
    l.read(
      "recheck",
      AFTER.map((v) => v - 7),
    );
    const again = accountOf(l);
    expect(inMicrons(untouched.clear_m - again.film.mean!.clear_m)).toBeCloseTo(7, 0);
    expect(inMicrons(removedAtSpots(again)[0]!.removal_m)).toBeCloseTo(7, 6);
    expect(again.film.beforeWork).toEqual(untouched);
  });

  test("a recheck that later sanding has made old no longer counts", () => {
    const l = fresh();
    l.read("before", BEFORE);
    l.read("after", AFTER);
    for (const taken of [3, 6]) {
      step(l, 3);
      l.read(
        "recheck",
        AFTER.map((v) => v - taken),
      );
    }
    expect(inMicrons(removedAtSpots(accountOf(l))[0]!.removal_m)).toBeCloseTo(6, 6);
  });

  test("flat and re-clear: a second build has its own coats, readings and layers (once: 58 in all, split in five)", () => {
    const l = fresh();
    l.read("before", BEFORE);
    for (const n of [1, 2, 3]) l.coat(n);
    l.read(
      "after",
      BEFORE.map((b) => b + 80),
    );
    step(l, 22);
    l.read(
      "recheck",
      BEFORE.map((b) => b + 58),
    );
    l.coat(4);
    l.coat(5);
    const sprayed = accountOf(l);
    expect(sprayed.builds.map((b) => b.coats.length)).toEqual([3, 2]);
    expect(inMicrons(sprayed.film.mean!.clear_m)).toBeGreaterThan(58 + 40);
    expect(sprayed.film.how).toBe("measured with coats since");
    expect(sprayed.film.mean!.u_m).toBeGreaterThan(um(8)); // two coats by the model alone
    expect(sprayed.spots[0]!.films.after).toBeUndefined(); // the newest build is not read yet
    l.read(
      "after",
      BEFORE.map((b) => b + 108),
    );
    const read = accountOf(l);
    expect(inMicrons(read.film.mean!.clear_m)).toBeCloseTo(108, -0.5);
    expect(read.film.how).toBe("measured");
    expect(read.spots[0]!.films.after!.readings_m).toHaveLength(3); // not averaged with the first build's
    expect(read.spots[0]!.films.after!.film.flags).not.toContain(true);
    const layers = clearLayers(read).map((x) => inMicrons(x.thickness_m));
    expect(layers).toHaveLength(5);
    expect(layers.slice(0, 3).reduce((a, t) => a + t, 0)).toBeCloseTo(58, -0.5);
    expect(layers.slice(3).reduce((a, t) => a + t, 0)).toBeCloseTo(50, -0.5);
    expect(sectionClear(read)).toBeCloseTo(read.film.mean!.clear_m, 12);
    // The third coat lost what was sanded, the first two did not.
    expect(layers[2]!).toBeLessThan(layers[0]!);
  });

  test("coats logged after their own reading are taken as logged late: film that is not sure to be there is not counted", () => {
    const early = fresh();
    early.read("before", BEFORE);
    early.coat(1);
    early.coat(2);
    early.read("after", AFTER);
    const late = fresh();
    late.read("before", BEFORE);
    late.read("after", AFTER);
    late.coat(1);
    late.coat(2);
    expect(accountOf(late).film.mean!.clear_m).toBeCloseTo(accountOf(early).film.mean!.clear_m, 9);
  });

  test("order of unrelated entries does not matter", () => {
    const order = (list: readonly ("note" | "read")[]) => {
      const l = fresh();
      l.read("before", BEFORE);
      l.coat(1);
      for (const what of list) {
        if (what === "read") l.read("after", AFTER);
        else l.add("note", { text: "x" });
      }
      return accountOf(l).film.mean!;
    };
    expect(order(["note", "read"]).clear_m).toBeCloseTo(order(["read", "note"]).clear_m, 12);
  });

  test("a foil check logged with the readings makes the film surer; without one its doubt is never below 4 %", () => {
    const read = (foil: boolean) => {
      const l = fresh();
      if (foil) foilCheck(l);
      l.read("before", BEFORE);
      l.coat(1);
      l.coat(2);
      l.read("after", AFTER);
      return accountOf(l);
    };
    const [with_, without] = [read(true), read(false)];
    expect([with_.foil, without.foil]).toEqual([true, false]);
    expect(without.film.mean!.u_m).toBeGreaterThan(UNMEASURED.film * without.film.mean!.clear_m);
    expect(with_.film.mean!.u_m).toBeLessThan(0.7 * without.film.mean!.u_m);
  });

  test("a foil check that did not hold makes nothing surer, unless the readings are set right by it", () => {
    const foilAfter = (onFoil: number, correct: boolean) => {
      const l = fresh();
      foilCheck(l, onFoil, correct);
      l.read("before", BEFORE);
      l.coat(1);
      l.read("after", AFTER);
      return accountOf(l).foil;
    };
    expect([foilAfter(152, false), foilAfter(170, false), foilAfter(170, true)]).toEqual([true, false, true]);
  });
});

test("film through time tells an event that could not be worked out then without a figure, and all others with theirs", () => {
  const l = ledger();
  l.read("after", 3);
  l.add("flatten", { grit: 1000, by: "machine", removal_m: um(10), u_m: um(1), from: "forecast" });
  // Less than nothing, and nothing read below it: no history has such a film. Read again, it can be judged.
  expect(() => accountPanel(brief, sheet, l.entries)).toThrow("total_m");
  l.read("recheck", 140);
  expect(accountPanel(brief, sheet, l.entries).film.mean).not.toBeNull();
  const moments = filmHistory(brief, sheet, l.entries);
  expect(moments.map((m) => [m.kind, m.measured === null && m.predicted === null])).toEqual([
    ["read", false],
    ["step", true],
    ["read", false],
  ]);
});
