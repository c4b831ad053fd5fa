import fc from "fast-check";
import { filmState } from "../course/film-phase";
import { cureOf, readyAt } from "../course/cure";
import { productSheet } from "../models/product/sheet-schema";
import { houseWay } from "../models/ways/house-ways";
import type { Finish } from "../models/ways/way";
import { panelShape } from "../kernel/geometry/shapes";
import { derivePanel } from "../panel/derive-panel";
import { TEST_SHEET, testLedger } from "../panel/testing/test-ledger";
import { VERDICTS } from "../record/kinds";
import { heldBy, heldVerdict } from "./held";

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
  return { ...filmState(asked), ready_ms: readyAt(cureOf(sheet, facts, now_ms)!, asked), now_ms };
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

test("held back it is never safe, and no verdict is made better than it was", () => {
  const rank = { safe: 0, caution: 1, uncertain: 1, stop: 2, none: 3 };
  for (const v of VERDICTS)
    for (const held of ["matte", "uncured", "inTheWay", null] as const) {
      const now = heldVerdict(v, held);
      if (held !== null) expect(now).not.toBe("safe");
      expect(rank[now]).toBeGreaterThanOrEqual(rank[v]);
    }
  expect(heldBy({ finish: "matte", cured: 1, inTheWay: [] })).toBe("matte");
  expect(heldBy({ finish: "flat", cured: 0.99, inTheWay: [] })).toBe("uncured");
  expect(heldBy({ finish: "flat", cured: 1, inTheWay: [] })).toBeNull();
  expect(heldBy({ finish: "flat", cured: 1, inTheWay: ["an entry"] })).toBe("inTheWay");
});
