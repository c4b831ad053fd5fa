import { readFileSync } from "node:fs";
import fc from "fast-check";
import { panelShape } from "../kernel/geometry/shapes";
import { LAYER_KEYS, type LayerKey } from "../models/prep/layer-names";
import { productSheet } from "../models/product/sheet-schema";
import type { Finish } from "../models/ways/terms";
import { HOUSE_WAYS, houseWay } from "../models/ways/house-ways";
import type { Substrate } from "../panel/brief";
import { derivePanel } from "../panel/derive-panel";
import { TEST_GUN, TEST_SHEET, testLedger } from "../panel/testing/test-ledger";
import type { Side } from "../record/kinds";
import { layerWait } from "../coat/layer-wait";
import { clocksOf } from "./clocks";
import { DEFECT_IDS, type DefectKind, ofClearAlone } from "../models/defects/kinds";
import { type CourseInput, courseOf } from "./course";
import { nextWait } from "../coat/next-wait";
import { standingOf } from "./standing";
import { type CourseStep, STEP_KINDS, nextAction } from "./steps";

type Logged = readonly [what: string, at_min: number, ...more: (number | string)[]];
interface Worked {
  name: string;
  /** The rule is one of the trade's (trade practice, no published source); the others follow from the sheet by arithmetic. */
  practice: boolean;
  way: string;
  finish: Finish;
  log: Logged[];
  now_min: number;
  sheet?: object;
  tilt?: number;
  sides?: 1 | 2;
  substrate?: Substrate;
  expect: {
    now: string | null;
    action: string | null;
    number?: number | null;
    side?: Side;
    from_min?: number | null;
    from_after?: number;
    from_of_now?: number;
    best_min?: number;
    latest_min?: number;
    latest_between?: [number, number];
    late?: string;
    past?: boolean;
    why?: string;
    grit?: number;
    open?: string[];
    optional?: string[];
    missed?: string[];
    absent?: string[];
    purge_min?: number;
  };
}
const MINUTE = 60_000;
const C0 = 273.15;
/** Minute 0 of the cases: some day. */
const START = 1_000 * MINUTE;
const shape = panelShape("door", { width_m: 1.1, height_m: 0.7 });
const worked = JSON.parse(readFileSync("core/course/testing/worked-courses.json", "utf8")) as Worked[];

/** A ledger of the short form that the worked courses are written in. */
function ledgerOf(log: readonly Logged[]) {
  const l = testLedger();
  let at_min = -START / MINUTE;
  const ids: string[] = [];
  let coats = 0;
  for (const [what, minute, ...more] of log) {
    const after = { after_min: minute - at_min };
    at_min = minute;
    const target = () => ids.at(more[0] as number)!;
    const side: Side = more[0] === "back" ? "back" : "front";
    const coat = (number: number, speed?: number) => ({
      number,
      role: number === 1 && what === "tack" ? "tack" : "full wet",
      reducer: 0,
      wetReading_m: null,
      side,
      settings: { ...TEST_GUN, ...(speed ? { handSpeed_m_s: speed } : {}) },
    });
    const reading = (phase: "before" | "after", um: number) => ({
      phase,
      spot: "1",
      at: { x_m: 0.3, y_m: 0.3 },
      gauge: "typed",
      readings: [{ thickness_m: um * 1e-6, entered: String(um), unit: "µm" }],
    });
    switch (what) {
      case "climate":
        ids.push(l.add("climate", { air_K: (more[0] as number) + C0, part_K: null, relativeHumidity: 0.5 }, after));
        break;
      case "before":
      case "after":
        ids.push(l.add("reading", reading(what, what === "before" ? 90 : 150), after));
        break;
      case "coat":
      case "tack":
        ids.push(l.add("coat", coat(++coats, more[1] as number | undefined), after));
        break;
      case "corrected": {
        const at_ms = START + (more[1] as number) * MINUTE;
        const id = l.add("coat", coat(coats), { ...after, supersedes: target() });
        Object.assign(l.entries.at(-1)!, { at_ms });
        ids.push(id);
        break;
      }
      case "strike":
        ids.push(l.add("strike", { reason: "", whole: more[1] !== "undo" }, { ...after, supersedes: target() }));
        break;
      case "flatten":
        ids.push(l.add("flatten", { grit: 800, by: "machine", removal_m: 8e-6, u_m: 3e-6, from: "forecast" }, after));
        break;
      case "turn":
        ids.push(l.add("turn", { how: "upright", side: "front", tilt_rad: Math.PI / 2 }, after));
        break;
      case "colour":
        ids.push(l.add("colourCoat", { coat: more[0] as LayerKey }, after));
        break;
      case "bakeStart":
        ids.push(l.add("bakeStart", { air_K: null }, after));
        break;
      case "bake":
        ids.push(l.add("bake", { part_K: (more[0] as number) + C0, time_s: (more[1] as number) * 60 }, after));
        break;
      case "defect": {
        const size = { length_m: null, width_m: null, height_m: null, measured: false };
        ids.push(l.add("defect", { kind: more[0] as DefectKind, at: { x_m: 0.3, y_m: 0.3 }, count: 1, ...size }, after));
        break;
      }
      case "handOver":
        ids.push(l.add("handOver", { note: "" }, after));
        break;
      default:
        throw new Error(`no entry is written so: ${what}`);
    }
  }
  return l.entries;
}

function asked(
  { way, finish, sheet = {}, tilt, sides, substrate = "refinish" }: Partial<Worked>,
  log: readonly Logged[],
  now_min: number,
): CourseInput {
  const chosen = houseWay(way ?? "two-full");
  const of = productSheet.parse({ ...TEST_SHEET, ...sheet });
  const brief = { shape, substrate, tilt_rad: tilt ?? Math.PI / 2, coatsPlanned: chosen.coats.length, sides: sides ?? 1 };
  const role = (n: number) => chosen.coats[Math.min(n, chosen.coats.length) - 1]!.role;
  const entries = ledgerOf(log).map((e) => (e.kind === "coat" ? { ...e, body: { ...e.body, role: role(e.body.number) } } : e));
  return {
    brief,
    sheet: of,
    way: chosen,
    finish: finish ?? "match",
    facts: derivePanel(brief, of, entries),
    now_ms: START + now_min * MINUTE,
  };
}

const minute = (ms: number | null) => (ms === null ? null : (ms - START) / MINUTE);

test.each(worked)("$name", ({ log, now_min, expect: e, ...given }) => {
  const input = asked(given, log, now_min);
  const steps = courseOf(input);
  const now = steps.find((s) => s.state === "now") ?? null;
  const action = nextAction(steps);
  expect({ now: now?.kind ?? null, action: action?.kind ?? null }).toEqual({ now: e.now, action: e.action });
  if (e.number !== undefined) expect(action!.number).toBe(e.number);
  if (e.side) expect(action!.side).toBe(e.side);
  if (e.from_min === null) expect(action!.from_ms).toBeNull();
  else if (e.from_min !== undefined) expect(Math.abs(minute(action!.from_ms)! - e.from_min)).toBeLessThan(0.1);
  if (e.from_after !== undefined) expect(minute(action!.from_ms)).toBeGreaterThan(e.from_after);
  if (e.from_of_now !== undefined) expect(minute(now!.from_ms)).toBeCloseTo(e.from_of_now, 3);
  if (e.best_min !== undefined) expect(minute(action!.best_ms)).toBeCloseTo(e.best_min, 3);
  if (e.latest_min !== undefined) expect(Math.abs(minute(action!.latest_ms)! - e.latest_min)).toBeLessThan(0.1);
  if (e.latest_between) {
    expect(minute(action!.latest_ms)).toBeGreaterThan(e.latest_between[0]);
    expect(minute(action!.latest_ms)).toBeLessThan(e.latest_between[1]);
  }
  if (e.late) expect(action!.late).toBe(e.late);
  if (e.past !== undefined) expect(action!.latest_ms !== null && action!.latest_ms < input.now_ms).toBe(e.past);
  if (e.why) expect(now!.why).toBe(e.why);
  if (e.grit) expect(action!.grit).toBe(e.grit);
  const ofKind = (kind: string) => steps.filter((s) => s.kind === kind);
  for (const kind of e.open ?? []) expect(ofKind(kind).map((s) => s.state)).toEqual(["open"]);
  for (const kind of e.optional ?? []) expect(ofKind(kind).every((s) => s.optional)).toBe(true);
  for (const kind of e.missed ?? []) expect([...new Set(ofKind(kind).map((s) => s.state))]).toEqual(["missed"]);
  for (const kind of e.absent ?? []) expect(ofKind(kind)).toEqual([]);
  if (e.purge_min !== undefined) expect(minute(ofKind("purge")[0]!.from_ms)).toBeCloseTo(e.purge_min, 6);
});

test("at least 60 courses were worked, 20 of them by the trade's own rules", () => {
  expect(worked.length).toBeGreaterThanOrEqual(60);
  expect(worked.filter((w) => w.practice).length).toBeGreaterThanOrEqual(20);
});

/** Some way, day and log that could have been: coats with waits between them, a look now. */
const lives = fc.record({
  way: fc.constantFrom(...HOUSE_WAYS.map((w) => w.id)),
  air_C: fc.integer({ min: 11, max: 31 }),
  later_C: fc.integer({ min: 11, max: 31 }),
  flash_min: fc.constantFrom(1, 8, 15),
  most: fc.constantFrom(1.2, 4),
  gaps_min: fc.array(fc.integer({ min: 1, max: 300 }), { minLength: 0, maxLength: 5 }),
  bake: fc.boolean(),
  sides: fc.constantFrom<1 | 2>(1, 2),
  look_min: fc.integer({ min: 1, max: 3000 }),
});
function lived({
  way,
  air_C,
  later_C,
  flash_min,
  most,
  gaps_min,
  bake,
  sides,
  look_min,
}: typeof lives extends fc.Arbitrary<infer T> ? T : never) {
  let at = 0;
  const planned = houseWay(way).coats.length;
  const log: Logged[] = [
    ["climate", -90, air_C],
    ["before", -60],
  ];
  gaps_min.slice(0, planned * sides).forEach((gap, i) => {
    log.push(["coat", at, sides === 2 && i < planned ? "back" : "front"]);
    if (i === 1) log.push(["climate", at + 0.5, later_C]);
    at += gap;
  });
  const sheet = {
    flashMin_s: flash_min * 60,
    flashMax_s: most * flash_min * 60,
    tape_s: 7200,
    ...(bake ? { bake: { part_K: 333.15, time_s: 1800 } } : {}),
  };
  const given = { way, finish: houseWay(way).finish, sheet, sides };
  return { given, log, now_min: at + look_min };
}

test("whatever was logged: steps stand in order, windows do not cross, one thing is now, clocks and standing say the same", () => {
  fc.assert(
    fc.property(lives, (life) => {
      const { given, log, now_min } = lived(life);
      const input = asked(given, log, now_min);
      const steps = courseOf(input);
      expect(new Set(steps.map((s) => s.id)).size).toBe(steps.length);
      expect(steps.filter((s) => s.state === "now")).toHaveLength(1);
      for (const s of steps) windowsHold(s);
      const rank = { done: 0, missed: 0, open: 1, now: 1, next: 2, later: 3 };
      const order = steps.filter((s) => !s.optional).map((s) => rank[s.state]);
      expect(order).toEqual([...order].sort((a, b) => a - b));
      // The next coat's window is the one wait's, the clock's and the standing's.
      const wait = nextWait(input);
      const action = nextAction(steps)!;
      const [clock] = clocksOf(input);
      if (wait && wait.what === "flash") {
        expect(action).toMatchObject({ kind: "coat", from_ms: wait.least_ms, latest_ms: wait.latest_ms });
        expect(clock).toMatchObject({ kind: "flash", due_ms: wait.least_ms, late_ms: wait.latest_ms });
      }
      expect(standingOf(input).action).toMatchObject({
        kind: action.kind,
        number: action.number,
        from_ms: action.from_ms,
        latest_ms: action.latest_ms,
      });
    }),
    { numRuns: 60 },
  );
});

test("also in an order that nobody plans: faces in turns, sanded flat between, one coat more: course and lists say one window, no clock twice", () => {
  const act = fc.constantFrom("back", "front", "front", "flatten", "turn" as const);
  fc.assert(
    fc.property(
      fc.array(act, { minLength: 1, maxLength: 7 }),
      fc.constantFrom(1, 2),
      fc.integer({ min: 1, max: 90 }),
      (acts, planned, gap) => {
        const log = acts.map((what, i): Logged => (what === "back" || what === "front" ? ["coat", gap * i, what] : [what, gap * i]));
        const given = { sides: 2 as const, coatsPlanned: planned, sheet: { tape_s: 7200 } };
        const input = asked(given, log, gap * (acts.length - 1) + 1);
        const action = nextAction(courseOf(input));
        const { action: listed } = standingOf(input);
        expect(
          listed && { kind: listed.kind, number: listed.number, side: listed.side, from_ms: listed.from_ms, latest_ms: listed.latest_ms },
        ).toEqual(
          action && { kind: action.kind, number: action.number, side: action.side, from_ms: action.from_ms, latest_ms: action.latest_ms },
        );
        const keys = clocksOf(input).map((c) => `${c.entryId} ${c.kind}`);
        expect(new Set(keys).size).toBe(keys.length);
        const wait = nextWait(input);
        if (wait && action?.kind === "coat") expect(action.from_ms).toBe(wait.least_ms);
      },
    ),
    { numRuns: 100 },
  );
});

test("no step is to be done before what it waits for is over; a forecast never begins a step before the one ahead of it", () => {
  fc.assert(
    fc.property(lives, (life) => {
      const { given, log, now_min } = lived(life);
      const input = asked(given, log, now_min);
      const ahead = courseOf(input).filter((s) => !s.optional && (s.state === "next" || s.state === "later" || s.state === "now"));
      let last = 0;
      for (const s of ahead) {
        if (s.from_ms === null) continue;
        expect(s.from_ms).toBeGreaterThanOrEqual(last - 1);
        last = Math.max(last, s.from_ms);
      }
      const now = ahead[0]!;
      if (STEP_KINDS[now.kind] === "wait") expect(now.from_ms).toBeGreaterThan(input.now_ms);
    }),
    { numRuns: 60 },
  );
});

test("later is never earlier: a coat laid later moves no window forward, and looking later changes no window", () => {
  fc.assert(
    fc.property(lives, fc.integer({ min: 1, max: 60 }), (life, delay) => {
      const { given, log, now_min } = lived(life);
      if (life.gaps_min.length === 0) return;
      const wait = nextWait(asked(given, log, now_min));
      const looked = nextWait(asked(given, log, now_min + 7));
      expect(looked?.least_ms ?? null).toBe(wait?.least_ms ?? null);
      // The same day, the newest coat later: no climate is logged after it.
      const steady = log.filter(([what], i) => what !== "climate" || i === 0);
      const at = steady.findLastIndex(([what]) => what === "coat");
      const moved = steady.map((e, i): Logged => (i === at ? [e[0], e[1] + delay, ...e.slice(2)] : e));
      const [before, after] = [nextWait(asked(given, steady, now_min)), nextWait(asked(given, moved, now_min + delay))];
      if (before && after) expect(after.least_ms).toBeGreaterThanOrEqual(before.least_ms - 6 * 1000); // the search for a run ends within 5 s
    }),
    { numRuns: 60 },
  );
});

test("colour coat by coat: the clock waits for the next of them, clear for longer; neither is ever sooner in the cold", () => {
  const at = (air_C: number, coat: LayerKey) =>
    asked(
      {},
      [
        ["climate", -30, air_C],
        ["colour", 0, "seal"],
        ["colour", 20, coat],
        ["before", 21],
      ],
      22,
    );
  for (const coat of LAYER_KEYS) {
    const due = [10, 15, 20, 30].map((air_C) => {
      const input = at(air_C, coat);
      const [clock] = clocksOf(input);
      const wait = layerWait(input)!;
      expect(clock).toMatchObject({ kind: "flash", then: "colour", number: 2, due_ms: wait.next_ms });
      expect(wait.over_ms).toBeGreaterThanOrEqual(wait.next_ms);
      expect(nextAction(courseOf(input))!.from_ms).toBe(wait.over_ms);
      return wait.next_ms;
    });
    due.slice(1).forEach((ms, i) => expect(ms).toBeLessThanOrEqual(due[i]!));
    expect(due[2]).toBe(due[3]);
  }
});
test("a strike and its undo leave every step as it was", () => {
  fc.assert(
    fc.property(lives, (life) => {
      const { given, log, now_min } = lived(life);
      if (life.gaps_min.length === 0) return;
      const end = Math.max(...log.map(([, at]) => at));
      const struck: Logged[] = [...log, ["strike", end + 0.1, -1]];
      const undone: Logged[] = [...struck, ["strike", end + 0.2, -1, "undo"]];
      const at = now_min + 1;
      expect(courseOf(asked(given, undone, at))).toEqual(courseOf(asked(given, log, at)));
    }),
    { numRuns: 30 },
  );
});

function windowsHold({ from_ms, best_ms, latest_ms }: CourseStep): void {
  if (best_ms !== null && from_ms !== null) expect(best_ms).toBeGreaterThanOrEqual(from_ms);
  if (latest_ms !== null) expect(latest_ms).toBeGreaterThanOrEqual(best_ms ?? from_ms ?? -Infinity);
}

test("a fault marked before any clear leaves the coats to come; one that only clear can have says that nobody logged it", () => {
  for (const kind of DEFECT_IDS) {
    const log: Logged[] = [
      ["before", -60],
      ["defect", -30, kind],
    ];
    const steps = courseOf(asked({}, log, 0));
    const coats = steps.filter((s) => s.kind === "coat").map((s) => s.state);
    expect({ kind, toCome: !coats.includes("missed") }).toEqual({ kind, toCome: !ofClearAlone(kind) });
  }
  // Dust in the base and what peels on arrival ended the course: coats not done, read the film after clear.
  expect((["dustInBase", "peeling", "nib", "notCovered"] as const).some(ofClearAlone)).toBe(false);
  expect((["run", "peel", "pop", "haze"] as const).every(ofClearAlone)).toBe(true);
});
