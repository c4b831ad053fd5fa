import fc from "fast-check";
import { foilFault } from "../models/film/gauge-check";
import { RELOCATION, SAME_GAUGE_CORRELATION } from "../models/film/difference";
import type { BodyInputOf } from "../record/bodies";
import { ofKind } from "../record/entry";
import { checkOf, correctedReadings, judgeCheck, sessionsOf, underFoil } from "./gauge-sessions";
import { testLedger, typedFilm } from "./testing/test-ledger";

const um = (x: number) => x * 1e-6;
const films = (...list: number[]) => list.map(typedFilm);
const check = (own: Partial<BodyInputOf<"gaugeCheck">> = {}): BodyInputOf<"gaugeCheck"> => ({
  gauge: "g",
  foil_m: um(150),
  uFoil_m: um(1),
  zero: films(0, 0, 0),
  onFoil: films(150, 151, 150),
  correct: false,
  ...own,
});
const reading = (phase: "before" | "after" | "recheck", own: Partial<BodyInputOf<"reading">> = {}): BodyInputOf<"reading"> => ({
  phase,
  spot: "1",
  at: { x_m: 0, y_m: 0 },
  gauge: "g",
  readings: films(150),
  ...own,
});
/** What was entered, in its order. */
function entered(...steps: (["check", BodyInputOf<"gaugeCheck">] | ["reading", BodyInputOf<"reading">])[]) {
  const l = testLedger();
  for (const step of steps)
    if (step[0] === "check") l.add("gaugeCheck", step[1]);
    else l.add("reading", step[1]);
  return { readings: ofKind(l.entries, "reading"), checks: ofKind(l.entries, "gaugeCheck") };
}

test("a reading stands under the last check of its own gauge before it", () => {
  const { readings, checks } = entered(
    ["reading", reading("before")],
    ["check", check()],
    ["check", check({ gauge: "other" })],
    ["reading", reading("after")],
    ["check", check()],
  );
  expect(checkOf(readings[0]!, checks)).toBeNull();
  expect(checkOf(readings[1]!, checks)).toBe(checks[0]);
});

test("before and after share the gauge's error with one gauge under one set-up; another gauge or a set-up between ends that", () => {
  const between = (...middle: Parameters<typeof entered>) => {
    const { readings, checks } = entered(["reading", reading("before")], ...middle, ["reading", reading("after")]);
    return sessionsOf(readings, checks).correlation;
  };
  expect(between()).toBe(SAME_GAUGE_CORRELATION);
  expect(between(["check", check({ gauge: "other" })])).toBe(SAME_GAUGE_CORRELATION);
  expect(between(["check", check()])).toBe(0);
  const two = entered(["reading", reading("before")], ["reading", reading("after", { gauge: "h" })]);
  expect(sessionsOf(two.readings, two.checks).correlation).toBe(0);
  const one = entered(["check", check()], ["reading", reading("before")], ["reading", reading("after")]);
  expect(sessionsOf(one.readings, one.checks).correlation).toBe(SAME_GAUGE_CORRELATION);
});

test("the probe is found again nearer only where every later reading was taken by a mark", () => {
  const moved = (...later: boolean[]) => {
    const { readings, checks } = entered(
      ["reading", reading("before")],
      ...later.map((template): ["reading", BodyInputOf<"reading">] => ["reading", reading("after", { template })]),
    );
    return sessionsOf(readings, checks).relocation_m;
  };
  expect(moved(true, true)).toBe(RELOCATION.template_m);
  expect(moved(true, false)).toBe(RELOCATION.freehand_m);
  expect(moved()).toBe(RELOCATION.freehand_m);
});

test("a check that held covers a reading; one that did not covers it only where the readings are set right by it", () => {
  const under = (own: Partial<BodyInputOf<"gaugeCheck">>) => {
    const { readings, checks } = entered(["check", check(own)], ["reading", reading("after")]);
    return underFoil(readings[0]!, checks);
  };
  expect(under({})).toBe(true);
  expect(under({ onFoil: films(170, 171, 169) })).toBe(false);
  expect(under({ onFoil: films(170, 171, 169), correct: true })).toBe(true);
  // A foil that reads no more than bare metal, or nothing like itself, does not come into the ledger.
  for (const onFoil of [films(20), films(19), films(90), films(340)])
    expect(() => under({ zero: films(20), onFoil })).toThrow("does not read this foil");
  const bare = entered(["reading", reading("after")]);
  expect(underFoil(bare.readings[0]!, bare.checks)).toBe(false);
});

test("two points set a reading right: its zero and its foil come out as they are, half way lies half way", () => {
  const at = (shown: number) => {
    const { readings, checks } = entered(
      ["check", check({ zero: films(2), onFoil: films(162), correct: true })],
      ["reading", reading("after", { readings: films(shown) })],
    );
    return correctedReadings(readings[0]!, checks)[0]!;
  };
  expect(at(2)).toBeCloseTo(0, 12);
  expect(at(162)).toBeCloseTo(um(150), 12);
  expect(at(82)).toBeCloseTo(um(75), 12);
  // Below its own zero there is no film, not less than none.
  expect(at(0)).toBe(0);
  const as = entered(["check", check({ zero: films(2), onFoil: films(162) })], ["reading", reading("after", { readings: films(82) })]);
  expect(correctedReadings(as.readings[0]!, as.checks)).toEqual([um(82)]);
});

test("a check is held against the one before it of the same gauge: within the readings' scatter no drift, beyond it one", () => {
  const drift = (second: number, gauge = "g") => {
    const { checks } = entered(["check", check({ gauge })], ["check", check({ onFoil: films(second, second, second) })]);
    return judgeCheck(checks[1]!, checks).drift;
  };
  expect(drift(151)).toMatchObject({ drifted: false });
  expect(drift(158)).toMatchObject({ drifted: true });
  expect(drift(158, "other")).toBeNull();
});

/** What a film is told as, read under a check that sets its gauge right. */
const setRight = (raw_um: number, own: Partial<BodyInputOf<"gaugeCheck">>) => {
  const { readings, checks } = entered(
    ["check", check({ correct: true, ...own })],
    ["reading", reading("after", { readings: films(raw_um) })],
  );
  return { film_um: Math.round(1e9 * correctedReadings(readings[0]!, checks)[0]!) / 1e3, held: underFoil(readings[0]!, checks) };
};

test("one slip among three and more readings on metal or foil moves no film", () => {
  // Typed 15 for 150: 42 µm of clear were told as 60.0 ± 2.6.
  expect(Math.abs(setRight(192, { onFoil: films(15, 150, 150) }).film_um - 192)).toBeLessThan(2);
  const few = fc.integer({ min: -15, max: 15 }).map((d) => d / 10);
  fc.assert(
    fc.property(
      fc.array(few, { minLength: 3, maxLength: 6 }),
      fc.integer({ min: 2, max: 1000 }),
      fc.integer({ min: 30, max: 400 }),
      fc.boolean(),
      (spread, slip_um, raw_um, onZero) => {
        const good = { zero: films(...spread), onFoil: films(...spread.map((d) => 152 + d)) };
        const bad = onZero
          ? { ...good, zero: films(slip_um / 10, ...spread.slice(1)) }
          : { ...good, onFoil: films(slip_um, ...spread.slice(1).map((d) => 152 + d)) };
        if (foilFault({ zero_m: metres(bad.zero), onFoil_m: metres(bad.onFoil), foil_m: um(150) })) return; // turned away at the door
        expect(Math.abs(setRight(raw_um, bad).film_um - setRight(raw_um, good).film_um)).toBeLessThan(3 + 0.02 * raw_um);
      },
    ),
  );
});
const metres = (list: readonly { thickness_m: number }[]) => list.map((r) => r.thickness_m);

test("what two readings disagree about, or what lies further off than a gauge drifts, sets nothing right and is not held", () => {
  expect(setRight(200, { onFoil: films(120, 160) })).toEqual({ film_um: 200, held: false });
  expect(setRight(200, { onFoil: films(200, 201, 200) })).toEqual({ film_um: 200, held: false });
  expect(setRight(200, { zero: films(20, 20, 21), onFoil: films(170, 170, 171) })).toEqual({ film_um: 200, held: false });
  // Within reach it is set right as ever.
  const near = setRight(200, { onFoil: films(157, 158, 157) });
  expect(near.held).toBe(true);
  expect(near.film_um).toBeCloseTo((200 * 150) / 157, 1);
});

test("the doubt of a set-up is that of its own readings: apart they tell less", () => {
  const u = (...onFoil: number[]) => {
    const { checks } = entered(["check", check({ onFoil: films(...onFoil) })]);
    return judgeCheck(checks[0]!, checks).uOnFoil_m;
  };
  expect(u(145, 150, 155)).toBeGreaterThan(1.2 * u(150, 150, 150));
  expect(u(150, 150, 150, 150, 150, 150)).toBeLessThan(u(150, 150, 150));
});
