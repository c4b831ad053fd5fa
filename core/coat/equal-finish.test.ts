import fc from "fast-check";
import { houseWay } from "#core/models/ways/house-ways";
import { GUN_BOUNDS } from "#core/models/bounds";
import { type CoatsAsked, coatsAhead } from "./coats-ahead";
import { type FoundOtherwise, asPlannedFound, equalFinish, equalFrom } from "./equal-finish";
import { handFor, nextCoat } from "./next-coat";
import { type TestLedger, askedOf } from "./testing/asked-of";

const from = equalFrom(askedOf())!;
const planned = asPlannedFound(from);
const with_ = (o: Partial<FoundOtherwise>) => equalFinish(from, { ...planned, ...o });
const by = (e: ReturnType<typeof equalFinish>, name: "hand" | "needle") => e.ways.find((w) => w.by === name)!;
const HAND = { min: 0.15, max: 0.9 };

const found = fc.record({
  pressure_Pa: fc.double({ min: 0.9e5, max: 3e5, noNaN: true }),
  air_K: fc.double({ min: 285, max: 308, noNaN: true }),
  thicker: fc.double({ min: 0.6, max: 1.7, noNaN: true }),
  bore: fc.double({ min: 0.85, max: 1.25, noNaN: true }),
  gun: fc.constant(null),
});

test("where nothing is otherwise there is nothing to set: film, drops and slide are those of the coats' owner", () => {
  const e = equalFinish(from, planned);
  const [ahead] = coatsAhead(askedOf())!;
  expect(e.planned).toMatchObject({
    dry_m: ahead!.dry_m,
    sagLocal_m: ahead!.sagLocal_m,
    texture: ahead!.texture,
    runChance: ahead!.runChance,
  });
  expect(e.asItIs.notEqual).toEqual([]);
  expect(e.ways.map((w) => w.by)).toEqual(["hand"]);
  expect(by(e, "hand").settings).toEqual(e.planned.settings);
});

test("less pressure is met by going closer and quicker (common practice); less fluid with it brings the drops back", () => {
  const e = with_({ pressure_Pa: 0.75 * planned.pressure_Pa });
  expect(e.asItIs.notEqual).toEqual(expect.arrayContaining(["coarser drops", "nearer a run"]));
  const [hand, needle] = [by(e, "hand"), by(e, "needle")];
  expect(hand.settings.distance_m).toBeLessThan(e.planned.settings.distance_m);
  expect(hand.settings.handSpeed_m_s).toBeGreaterThan(e.planned.settings.handSpeed_m_s);
  expect(hand.notEqual).toContain("coarser drops"); // no hand makes a drop finer
  expect(needle.settings.fluidRate_m3_s).toBeLessThan(0.75 * e.planned.settings.fluidRate_m3_s);
  expect(needle.notEqual).toEqual([]);
});

test("a warmer booth thins the mix: more comes through the needle left as it stands, and the hand goes nearer and quicker", () => {
  const e = with_({ air_K: planned.air_K + 7 });
  expect(e.asItIs.settings.fluidRate_m3_s).toBeGreaterThan(1.1 * e.planned.settings.fluidRate_m3_s);
  expect(e.asItIs.settings.turns).toBe(e.planned.settings.turns);
  const { settings } = by(e, "hand");
  expect(settings.distance_m).toBeLessThan(e.planned.settings.distance_m);
  expect(settings.handSpeed_m_s).toBeGreaterThan(1.2 * e.planned.settings.handSpeed_m_s);
});

test("a nozzle a tenth wider gives as its area; the needle closed again brings all of it back with the hand as it was", () => {
  const e = with_({ bore: 1.4 / 1.3 });
  expect(e.asItIs.settings.fluidRate_m3_s / e.planned.settings.fluidRate_m3_s).toBeCloseTo((1.4 / 1.3) ** 2, 9);
  const needle = by(e, "needle");
  expect(needle.settings.handSpeed_m_s / e.planned.settings.handSpeed_m_s).toBeCloseTo(1, 1);
  expect(needle.settings.turns! / e.planned.settings.turns!).toBeCloseTo((1.3 / 1.4) ** 2, 1);
});

test("another gun in the hand: its fluid, its fan at this distance, the same film", () => {
  const gun = { ...from.settings, fluidRate_m3_s: 1.3 * from.settings.fluidRate_m3_s, turns: 3, distance_m: 0.2, fan_m: 0.24 };
  const e = with_({ gun });
  expect(e.asItIs.settings).toMatchObject({ turns: 3, fan_m: expect.closeTo((0.24 * from.settings.distance_m) / 0.2, 9) as number });
  for (const w of e.ways) expect(w.dry_m / e.planned.dry_m).toBeCloseTo(1, 6);
});

test("on a lying part nothing slides, and nothing is said of a run", () => {
  const lying = equalFrom(askedOf(() => undefined, { tilt_rad: 0 }))!;
  const e = equalFinish(lying, { ...asPlannedFound(lying), pressure_Pa: 1.3e5 });
  for (const f of [e.planned, e.asItIs, ...e.ways]) expect(f.sagLocal_m).toBe(0);
  expect([e.asItIs, ...e.ways].flatMap((w) => w.notEqual)).not.toContain("nearer a run");
});

test("whatever is found, the film is brought back or the hand stands at its quickest or slowest; the needle leaves no more than the hand alone", () => {
  fc.assert(
    fc.property(found, (o) => {
      const e = equalFinish(from, o);
      expect(e.ways.length).toBeGreaterThan(0);
      for (const { settings, dry_m, notEqual } of e.ways) {
        const free = settings.handSpeed_m_s > HAND.min * 1.000001 && settings.handSpeed_m_s < HAND.max * 0.999999;
        if (free) expect(dry_m / e.planned.dry_m).toBeCloseTo(1, 6);
        for (const key of ["fluidRate_m3_s", "distance_m", "handSpeed_m_s", "pressure_Pa"] as const) {
          expect(settings[key]).toBeGreaterThanOrEqual(GUN_BOUNDS[key].min);
          expect(settings[key]).toBeLessThanOrEqual(GUN_BOUNDS[key].max);
        }
        expect(new Set(notEqual).size).toBe(notEqual.length);
      }
      const [hand, needle] = [e.ways.find((w) => w.by === "hand"), e.ways.find((w) => w.by === "needle")];
      const dropOff = (w: { drop_m: number }) => Math.abs(Math.log(w.drop_m / e.planned.drop_m));
      if (hand && needle) expect(dropOff(needle)).toBeLessThanOrEqual(dropOff(hand) + 0.02);
    }),
    { numRuns: 25 },
  );
});

test("once it is taken, the coats' owner says what was promised: over any way, on the first coat and on a wet one", () => {
  const first = () => undefined;
  const second = (l: TestLedger) => void l.coat(1);
  for (const [way, fill] of [
    ["two-full", first],
    ["second-heavier", second],
    ["tack-full", second],
    ["tack-full", first],
    ["many-thin", first],
  ] as const) {
    const set = (l: TestLedger, body: (CoatsAsked["facts"]["gunSet"] & object)["body"] | null) => {
      fill(l);
      if (body) l.add("gunSet", body);
    };
    const asked = askedOf((l) => set(l, null), { way: houseWay(way) });
    const start = equalFrom(asked)!;
    const promised = equalFinish(start, { ...asPlannedFound(start), pressure_Pa: 0.8 * start.settings.pressure_Pa }).ways.at(-1)!;
    const taken = askedOf((l) => set(l, { name: "set anew", gunId: null, settings: handFor(asked, promised.settings) }), {
      way: houseWay(way),
    });
    const next = nextCoat(taken);
    for (const key of ["fluidRate_m3_s", "distance_m", "handSpeed_m_s", "pressure_Pa", "overlap"] as const)
      expect(next.settings[key] / promised.settings[key]).toBeCloseTo(1, 9);
    expect(coatsAhead(taken)![0]!.dry_m / promised.dry_m).toBeCloseTo(1, 6);
  }
});

test.each([
  ["pressure_Pa", { pressure_Pa: 0.1e5 }],
  ["air_K", { air_K: 200 }],
  ["thicker", { thicker: 9 }],
  ["bore", { bore: NaN }],
])("beyond the models: %s", (name, o) => {
  expect(() => with_(o)).toThrow(new RegExp(name));
  expect(() => with_(o)).toThrow(RangeError);
});

test("a panel with all its coats on has nothing to set", () => {
  expect(equalFrom(askedOf((l) => void l.coat(1), { coats: 1 }))).toBeNull();
});
