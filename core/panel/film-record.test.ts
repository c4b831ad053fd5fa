import fc from "fast-check";
import { derivePanel } from "./derive-panel";
import { removedAtSpots } from "./removed-at-spots";
import { TEST_SHEET, testLedger, typedFilm } from "./testing/test-ledger";
import { panelShape } from "../kernel/geometry/shapes";

const um = (x: number) => x * 1e-6;
const shape = panelShape("door", { width_m: 1, height_m: 0.8 });
const brief = { shape, substrate: "refinish" as const, tilt_rad: Math.PI / 2, coatsPlanned: 2 };
const places = [
  [0.3, 0.3],
  [0.6, 0.5],
] as const;
type Ledger = ReturnType<typeof testLedger>;
function facts(fill: (l: Ledger) => void) {
  const l = testLedger({ places });
  fill(l);
  return derivePanel(brief, TEST_SHEET, l.entries);
}
const flat = (l: Ledger, removal = 8) =>
  l.add("flatten", { grit: 1000, by: "machine", removal_m: um(removal), u_m: um(1.5), from: "forecast" });
/** One coat on a panel read before it, read, and sanded flat. */
function oneCoatSanded(l: Ledger) {
  l.read("before", [90, 92]);
  l.coat(1);
  l.read("after", [120, 121]);
  flat(l, 5);
}
const at = (f: ReturnType<typeof facts>, spot: string) => f.spots.find((s) => s.name === spot)!;

test("before, after, sanded, after sanding: each reading stands on its own surface", () => {
  const f = facts((l) => {
    l.read("before", [90, 92]);
    l.coat(1);
    l.coat(2);
    l.read("after", [150, 152]);
    flat(l);
    l.read("recheck", [141]);
  });
  const [one, two] = [at(f, "1"), at(f, "2")];
  expect(one.films.before!.film.mean_m).toBeCloseTo(um(90), 9);
  expect(one.films.after!.film.mean_m).toBeCloseTo(um(150), 9);
  expect(one.films.recheck!.film.mean_m).toBeCloseTo(um(141), 9);
  // Read again, nothing is reckoned from the forecast; where nobody read again, all of it is.
  expect(one.latest!.since).toEqual({ taken_m: 0, laid_m: 0 });
  expect(two.latest!.since.taken_m).toBeCloseTo(um(8), 12);
  expect(two.films.recheck).toBeUndefined();
});

test("a reading called *after clear* over a sanded film is a reading after sanding, whatever it was called", () => {
  const f = facts((l) => {
    oneCoatSanded(l);
    l.read("after", [115]);
  });
  expect(at(f, "1").films.recheck!.film.mean_m).toBeCloseTo(um(115), 9);
  expect(at(f, "1").films.after!.film.mean_m).toBeCloseTo(um(120), 9);
  expect(removedAtSpots(f)).toMatchObject([{ name: "1" }]);
  expect(removedAtSpots(f)[0]!.removal_m).toBeCloseTo(um(5), 9);
});

test("coats on a sanded film begin a build: it has its own readings, and the older surface is what lies below", () => {
  const f = facts((l) => {
    oneCoatSanded(l);
    l.coat(2);
    l.coat(3);
    l.read("after", [170, 171]);
  });
  expect(f.builds.map((b) => b.coats.length)).toEqual([1, 2]);
  expect(at(f, "1").films.after!.film.mean_m).toBeCloseTo(um(170), 9);
  expect(at(f, "1").films.before!.film.mean_m).toBeCloseTo(um(90), 9);
  expect(at(f, "1").latest!.since).toEqual({ taken_m: 0, laid_m: 0 });
});

test("coats laid over a sanded film and not yet read count as laid; they are not mixed with what was read before them", () => {
  const f = facts((l) => {
    oneCoatSanded(l);
    l.coat(2);
  });
  const { since, film } = at(f, "1").latest!;
  expect(film.film.mean_m).toBeCloseTo(um(120), 9);
  expect(since.taken_m).toBeCloseTo(um(5), 12);
  expect(since.laid_m).toBeCloseTo(f.builds[1]!.predicted.clear_m, 12);
  const after = f.observations.filter((o) => o.layer === "after");
  expect(after[0]!.total_m).toBeCloseTo(um(120 - 5) + f.builds[1]!.predicted.clear_m, 9);
  expect(after[0]!.since).toHaveLength(2);
});

test("a reading before clear that was logged after the coats is of the first build all the same", () => {
  const f = facts((l) => {
    l.coat(1);
    l.read("before", [90, 92]);
    l.read("after", [120, 121]);
  });
  expect(f.hasBefore).toBe(true);
  expect(f.observations.map((o) => o.layer).sort()).toEqual(["after", "after", "before", "before"]);
});

test("repeats of one place and one surface are one spot with as many readings, and the doubt of one is pooled over all of them", () => {
  const f = facts((l) => {
    l.read("after", [120, 121]);
    l.read("after", [122]);
  });
  expect(at(f, "1").films.after!.readings_m).toHaveLength(6);
  expect(at(f, "1").films.after!.film.mean_m).toBeCloseTo(um(121), 9);
  expect(f.observations.find((o) => o.at[0] === 0.3)!.n).toBe(6);
  expect(f.repeatability_m).toBeGreaterThan(um(1));
  expect(f.repeatability_m).toBeLessThan(um(3));
});

test("whatever is read and sanded in whatever order, every place stands at its newest surface, and what was taken off since adds up", () => {
  const acts = fc.array(fc.constantFrom("read 1", "read both", "sand", "coat"), { maxLength: 12 });
  fc.assert(
    fc.property(acts, (list) => {
      const l = testLedger({ places });
      l.read("before", [90, 92]);
      l.coat(1);
      let sanded = 0;
      const read = { "1": -1, "2": -1 };
      const sands: number[] = [];
      for (const act of ["read both", ...list]) {
        if (act === "coat") {
          l.coat(2);
          sanded = 0; // a coat over a sanded film begins the next build
        } else if (act === "sand") {
          flat(l, 1);
          sands.push(l.entries.length);
          sanded++;
        } else {
          l.read(sanded > 0 ? "recheck" : "after", act === "read 1" ? [140] : [140, 141]);
          read["1"] = l.entries.length;
          if (act === "read both") read["2"] = l.entries.length;
        }
      }
      const f = derivePanel(brief, TEST_SHEET, l.entries);
      for (const spot of ["1", "2"] as const) {
        const taken = sands.filter((seq) => seq > read[spot]).length;
        expect(at(f, spot).latest!.since.taken_m).toBeCloseTo(um(taken), 12);
      }
    }),
    { numRuns: 60 },
  );
});

test("worked on from state to state it is the same as from the whole ledger read anew: readings, checks, sanding, corrections and strikes in any order", () => {
  type Act = readonly ["read" | "coat" | "flat" | "check" | "correct" | "strike", number];
  const acts = fc.array(fc.tuple(fc.constantFrom("read", "read", "coat", "flat", "check", "correct", "strike"), fc.nat(11)), {
    maxLength: 14,
  });
  fc.assert(
    fc.property(acts as fc.Arbitrary<Act[]>, (list) => {
      const l = testLedger({ places });
      const reading = (n: number) => ({
        phase: n % 3 === 0 ? ("before" as const) : ("after" as const),
        spot: String(1 + (n % 2)),
        at: { x_m: 0.3, y_m: 0.3 },
        gauge: "typed",
        readings: [100, 101 + n, n === 11 ? 900 : 99].map(typedFilm),
      });
      let coats = 0;
      for (const [act, n] of list) {
        const older = l.entries.filter((e) => e.kind === "reading").at(-1 - (n % 3));
        if (act === "read") l.add("reading", reading(n));
        if (act === "coat") l.coat(++coats);
        if (act === "flat") flat(l, n);
        if (act === "check")
          l.add("gaugeCheck", {
            gauge: "typed",
            foil_m: um(50),
            uFoil_m: um(1),
            zero: [0, 1].map(typedFilm),
            onFoil: [51 + n, 52 + n].map(typedFilm),
            correct: n % 2 === 0,
          });
        if (act === "correct" && older) l.add("reading", reading(n), { supersedes: older.id });
        if (act === "strike" && older) l.add("strike", { reason: "slip", whole: n % 2 === 0 }, { supersedes: older.id });
        expect(derivePanel(brief, TEST_SHEET, l.entries)).toEqual(derivePanel(brief, TEST_SHEET, structuredClone(l.entries)));
      }
    }),
    { numRuns: 60 },
  );
});

test("read after sanding, and sanded said after it: the same film as in the other order, also with only some spots read again", () => {
  const clear = (order: "said first" | "read first" | "between", again: number) =>
    facts((l) => {
      l.read("before", [90, 92]);
      l.coat(1);
      l.coat(2);
      l.read("after", [150, 152]);
      if (order === "said first") flat(l);
      if (order === "between" && again > 1) {
        l.read("recheck", [141]);
        flat(l);
        l.add("reading", {
          phase: "recheck",
          spot: "2",
          at: { x_m: 0.6, y_m: 0.5 },
          gauge: "typed",
          readings: [143, 144, 142].map(typedFilm),
        });
      } else l.read("recheck", [141, 143].slice(0, again));
      if (order === "read first" || (order === "between" && again < 2)) flat(l);
    }).spots.map((s) => ({ film: s.latest!.film.film.mean_m, since: s.latest!.since }));
  for (const again of [1, 2])
    for (const order of ["read first", "between"] as const) expect(clear(order, again)).toEqual(clear("said first", again));
});

/** A plan of two papers, two minutes less than half an hour and twenty minutes of work. */
const planOf = (l: Ledger) =>
  l.add("plan", {
    schoolId: "short",
    runSchool: "block",
    tape_m: um(20_000),
    floor_m: um(35),
    steps: [6, 2].map((r, i) => ({ name: `paper ${i}`, use: null, removal_m: um(r), u_m: um(1), minutes: [28, 20][i]! })),
    removal_m: um(8),
    u_removal_m: um(1),
    verdict: "safe",
    cutChance: 0,
    thinChance: 0,
    inferred: false,
  });
const tick = (l: Ledger, planId: string, index: number, after_min: number) =>
  l.add("step", { planId, index, name: `paper ${index}`, removal_m: um([6, 2][index]!), u_m: um(1), note: "" }, { after_min });

test("steps ticked sooner than they can have been done were done before the reading; one that takes its time was not", () => {
  const film = (minutes: number) => {
    const f = facts((l) => {
      l.read("before", [90, 92]);
      l.coat(1);
      l.coat(2);
      l.read("after", [150, 152]);
      const planId = planOf(l);
      l.read("recheck", [141, 143]);
      tick(l, planId, 0, 1);
      tick(l, planId, 1, minutes);
    });
    return Math.round(at(f, "1").latest!.since.taken_m * 1e6);
  };
  expect(film(1)).toBe(0);
  expect(film(60)).toBe(2);
});

test("read after sanding, with no sanding said at all: what was read only before it is not taken for what is there now", () => {
  const f = facts((l) => {
    l.read("before", [90, 92]);
    l.coat(1);
    l.coat(2);
    l.read("after", [150, 152]);
    l.read("recheck", [141]);
  });
  expect(at(f, "1").latest!.since.taken_m).toBe(0);
  expect(at(f, "2").latest!.since.taken_m).toBeCloseTo(um(9), 9);
  expect(f.observations.filter((o) => o.layer === "after").map((o) => Math.round(o.total_m * 1e6))).toEqual([141, 143]);
});

test("a reading that waited for its server belongs to what had been done when it was taken", () => {
  const f = facts((l) => {
    l.read("before", [90, 92]);
    l.coat(1);
    l.coat(2);
    const taken_ms = l.entries.at(-1)!.at_ms + 1;
    flat(l);
    l.read("after", [150]);
    const late = l.entries.at(-1)!;
    l.entries[l.entries.length - 1] = { ...late, at_ms: taken_ms, recordedAt_ms: late.at_ms + 3600e3 };
  });
  expect(at(f, "1").films.recheck).toBeUndefined();
  expect(at(f, "1").latest!.since.taken_m).toBeCloseTo(um(8), 9);
});

test("a probe's log that knows one moment only says nothing of a bake: pages go by what else was logged", () => {
  const sample = { at_s: 600, part_K: 333 };
  const of = (samples: { at_s: number; part_K: number }[]) =>
    facts((l) => {
      l.coat(1);
      l.add("oven", { probe: "P", samples });
    }).oven?.body.samples.map((s) => s.at_s) ?? null;
  expect(of([sample, { ...sample, part_K: 334 }])).toBeNull();
  expect(of([{ ...sample, at_s: 1200 }, sample])).toEqual([600, 1200]);
});
