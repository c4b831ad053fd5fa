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
