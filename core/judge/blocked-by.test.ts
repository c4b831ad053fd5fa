import fc from "fast-check";
import { cureStatus } from "../course/cure-status";
import { clocksOf } from "../course/clocks";
import { courseOf } from "../course/course";
import { COOL_S, cureOf, readyAt } from "../coat/cure";
import { productSheet } from "../models/product/sheet-schema";
import { houseWay } from "../models/ways/house-ways";
import type { Finish } from "../models/ways/terms";
import { panelShape } from "../kernel/geometry/shapes";
import { derivePanel } from "../panel/derive-panel";
import { TEST_SHEET, testLedger } from "../panel/testing/test-ledger";
import { VERDICTS } from "../record/kinds";
import { DEFECT_IDS, type DefectKind, isFold, isInclusion } from "../models/defects/kinds";
import { holdOf } from "../models/defects/holds";
import { WHOLE_PANEL, type WorkedAt, faultsHolding } from "../panel/fault-holds";
import { type BlockedBy, blockedBy, blockedVerdict } from "./blocked-by";

const brief = {
  shape: panelShape("door", { width_m: 1.1, height_m: 0.8 }),
  substrate: "refinish" as const,
  tilt_rad: Math.PI / 2,
  coatsPlanned: 1,
};
const sheet = productSheet.parse({ ...TEST_SHEET, bake: { part_K: 333.15, time_s: 1800 }, dustFree_s: 900 });
const HOUR = 3600_000;

interface Day {
  bakedAt_h?: number | null;
  finish?: Finish;
  correctAfter_h?: number;
  air_K?: number;
}
function at(hours: number, { bakedAt_h = null, finish = "match", correctAfter_h = 0, air_K = 293.15 }: Day = {}) {
  const l = testLedger();
  l.add("climate", { air_K, part_K: null, relativeHumidity: 0.5 });
  l.add("coat", { number: 1, role: "full wet", reducer: 0, wetReading_m: null, settings: { ...GUN } });
  const coat_ms = l.entries.at(-1)!.at_ms;
  if (bakedAt_h !== null) {
    l.add("bake", { part_K: 333.15, time_s: 1800 });
    Object.assign(l.entries.at(-1)!, { at_ms: coat_ms + bakedAt_h * HOUR });
  }
  const facts = derivePanel(brief, sheet, l.entries);
  const way = { ...houseWay("two-full"), correctAfter_s: correctAfter_h * 3600 };
  const now_ms = coat_ms + hours * HOUR;
  const asked = { sheet, facts, way, finish, now_ms };
  return {
    ...cureStatus(asked),
    ready_ms: readyAt(cureOf(sheet, facts, now_ms)!, asked),
    now_ms,
    heatOff_ms: coat_ms + (bakedAt_h ?? 0) * HOUR,
    course: { ...asked, brief },
  };
}
const GUN = {
  fluidRate_m3_s: 3.83e-6,
  fluidFrom: "turns",
  turns: 2.25,
  pressure_Pa: 1.93e5,
  distance_m: 0.175,
  overlap: 0.5,
  handSpeed_m_s: 0.34,
  fan_m: null,
} as const;

test("fresh it is wet, then a coat may still go on, then it cures, then it is hard; hot from the bake it is dabbed", () => {
  expect([0.1, 3, 30].map((h) => at(h, { correctAfter_h: 72 }).phase)).toEqual(["wet", "open", "curing"]);
  expect(at(80, { correctAfter_h: 72 })).toMatchObject({ phase: "cured", cured: 1, left_s: 0 });
  expect(at(1.1, { bakedAt_h: 1, correctAfter_h: 24 }).phase).toBe("hot");
  expect(at(2, { bakedAt_h: 1, correctAfter_h: 24 }).phase).toBe("curing");
});

test("hard is one answer: cured exactly when the course has it bear work, in the cold as in the warmth", () => {
  fc.assert(
    fc.property(
      fc.double({ min: 0.01, max: 200, noNaN: true }),
      fc.integer({ min: 0, max: 100 }),
      fc.double({ min: 284, max: 308, noNaN: true }),
      fc.constantFrom("match" as const, "matte" as const),
      (hours, correctAfter_h, air_K, finish) => {
        const f = at(hours, { correctAfter_h, air_K, finish });
        expect(f.cured >= 1).toBe(f.ready_ms <= f.now_ms);
        expect(f.left_s).toBeCloseTo(Math.max(0, (f.ready_ms - f.now_ms) / 1000), 3);
        expect(f.phase === "cured").toBe(f.cured >= 1);
      },
    ),
  );
  // At 12 °C the options said ready after 16 h where the cure said 36.
  expect(at(16.5, { air_K: 285.15 }).cured).toBeLessThan(1);
  expect(at(16.5).cured).toBe(1);
});

/** What a door with plenty of clear is told of a work, with something marked on it. */
function doorWith(kind: DefectKind | null, at_m: { x_m: number; y_m: number } = { x_m: 0.5, y_m: 0.4 }) {
  const l = testLedger();
  l.add("coat", { number: 1, role: "full wet", reducer: 0, wetReading_m: null, settings: { ...GUN } });
  if (kind) l.add("defect", { kind, at: at_m, count: 1, height_m: null, length_m: null, width_m: null, measured: false, note: "" });
  return derivePanel(brief, sheet, l.entries);
}
const hard = { finish: "flat" as const, cured: 1, account: { inTheWay: [], doubtful: [] } };

test("a part out of the heat is not hard before it has cooled: film, course and clocks wait for the same minute", () => {
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 120 }), fc.constantFrom("match" as const, "matte" as const), (minutes, finish) => {
      const bakedAt_h = 1;
      const f = at(bakedAt_h + minutes / 60, { bakedAt_h, finish });
      expect(f.cured >= 1).toBe(minutes * 60 >= COOL_S);
      const steps = courseOf(f.course).filter((s) => s.state !== "done" && s.state !== "missed");
      // Nothing that works on the film is told for a moment before the cool clock has run out.
      for (const s of steps.filter((s) => ["readAfter", "inspect", "correct", "handOver"].includes(s.kind)))
        expect(s.from_ms!).toBeGreaterThanOrEqual(f.heatOff_ms + COOL_S * 1000);
      expect(clocksOf(f.course).find((c) => c.kind === "cure")?.due_ms ?? Infinity).toBeGreaterThanOrEqual(f.heatOff_ms + COOL_S * 1000);
    }),
  );
});

test("held back it is never safe, and no verdict is made better than it was", () => {
  const rank = { safe: 0, caution: 1, uncertain: 1, stop: 2, none: 3 };
  const [fault] = faultsHolding(doorWith("pop"), "paper", WHOLE_PANEL);
  const one: BlockedBy[] = [{ by: "matte" }, { by: "uncured" }, { by: "inTheWay" }, { by: "doubtful" }, { by: "fault", fault: fault! }];
  for (const v of VERDICTS)
    for (const held of [[], one, ...one.map((h) => [h])]) {
      const now = blockedVerdict(v, held);
      if (held.length > 0) expect(now).not.toBe("safe");
      else expect(now).toBe(v);
      expect(rank[now]).toBeGreaterThanOrEqual(rank[v]);
    }
  const by = (o: Partial<Parameters<typeof blockedBy>[0]>) => blockedBy({ ...hard, faults: [], ...o }).map((h) => h.by);
  expect(by({ finish: "matte" })).toEqual(["matte"]);
  expect(by({ cured: 0.99, account: { inTheWay: ["an entry"], doubtful: ["a spot"] } })).toEqual(["uncured", "inTheWay", "doubtful"]);
  expect(by({})).toEqual([]);
});

// Each of these was told as "Short sanding: Safe" on 75 µm of clear.
const NEVER_SAFE: DefectKind[] = ["softFilm", "cutThrough", "burn", "peeling", "wrinkling", "pop", "edgeLift", "pinhole"];

test.each(NEVER_SAFE)("%s marked on a panel holds what is sanded over it, whatever the film", (kind) => {
  const faults = faultsHolding(doorWith(kind), "paper", WHOLE_PANEL);
  expect(faults.map((f) => f.kind)).toEqual([kind]);
  expect(blockedVerdict("safe", blockedBy({ ...hard, faults }))).not.toBe("safe");
});

test("every kind says whether it holds work: what lifted, is through or soft stops it, nibs and runs do not", () => {
  for (const kind of DEFECT_IDS) {
    const hold = holdOf(kind);
    const over = faultsHolding(doorWith(kind), ["paper", "clear"], WHOLE_PANEL);
    expect(over.map((f) => f.level)).toEqual(hold ? [hold.level] : []);
    if (hold?.until === "stripped" && kind !== "microFoam") expect(hold).toMatchObject({ level: "stop", holds: ["paper", "clear"] });
    // What is worked by its own school is not held back by itself.
    if (isFold(kind) || isInclusion(kind)) expect(hold).toBeNull();
  }
  expect(faultsHolding(doorWith(null), ["paper", "clear"], WHOLE_PANEL)).toEqual([]);
});

test("it holds where it is: a nib on the other side goes on, one beside it does not; a soft film is soft everywhere", () => {
  const nibAt = (x: number): WorkedAt => ({ over: null, places: [[x, 0.4]] });
  const part = (from: number, to: number): WorkedAt => ({
    over: {
      region: [
        [
          [from, 0],
          [to, 0],
          [to, 0.8],
          [from, 0.8],
        ],
      ],
    },
    places: [],
  });
  const held = (kind: DefectKind, work: WorkedAt) => faultsHolding(doorWith(kind, { x_m: 0.3, y_m: 0.4 }), "paper", work).length;
  expect([0.3, 0.44, 0.46, 1].map((x) => held("peeling", nibAt(x)))).toEqual([1, 1, 0, 0]);
  expect([held("peeling", part(0, 0.5)), held("peeling", part(0.6, 1.1)), held("softFilm", part(0.6, 1.1))]).toEqual([1, 0, 1]);
  expect(held("softFilm", nibAt(1))).toBe(1);
  expect(held("softFilm", { over: null, places: [] })).toBe(0); // no work at all
});

test("an area that was drawn round a place holds it, and a part that lies in it", () => {
  const l = testLedger();
  l.add("defect", {
    kind: "wrinkling",
    at: { x_m: 0.1, y_m: 0.1 },
    count: 1,
    height_m: null,
    length_m: null,
    width_m: null,
    measured: false,
    note: "",
    trace: {
      as: "area",
      at: [
        { x_m: 0.1, y_m: 0.1 },
        { x_m: 1, y_m: 0.1 },
        { x_m: 1, y_m: 0.7 },
        { x_m: 0.1, y_m: 0.7 },
      ],
    },
  });
  const state = derivePanel(brief, sheet, l.entries);
  const inside: [number, number][] = [
    [0.5, 0.35],
    [0.6, 0.35],
    [0.6, 0.45],
    [0.5, 0.45],
  ];
  expect(faultsHolding(state, "paper", { over: null, places: [[0.55, 0.4]] })).toHaveLength(1);
  expect(faultsHolding(state, "paper", { over: { region: [inside] }, places: [] })).toHaveLength(1);
});
