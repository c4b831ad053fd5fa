import type { BodyInputOf, EntryKind } from "#core/ledger/bodies";
import { derivePanel } from "#core/ledger/derive-panel";
import { filmHistory } from "#core/ledger/film-history";
import { panelShape } from "#core/panel/shapes";
import { TEST_SHEET as sheet, testLedger } from "#core/testing/test-ledger";

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
        readings: [{ thickness_m: um(film), entered: String(film), unit: "µm" }],
        ...more,
      },
      1,
    );
  const check = (zero: number, onFoil: number, correct = false, gauge = "typed") => {
    const one = (v: number) => [{ thickness_m: um(v), entered: String(v), unit: "µm" }];
    return add("gaugeCheck", { gauge, foil_m: um(150), uFoil_m: um(1), zero: one(zero), onFoil: one(onFoil), correct });
  };
  const step = (name: string, taken: number) => add("step", { planId: "plan", index: 0, name, removal_m: um(taken), u_m: um(1), note: "" });
  return { entries, add, read, check, coat, step };
}
const derive = (l: ReturnType<typeof ledger>) => derivePanel(brief, sheet, l.entries);

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
  expect(read!.measured!.clear_m / um(1)).toBeCloseTo(60, 6);
  expect(read!.measured!.spots).toBe(1); // the other two were never read before clear
  expect((read!.measured!.clear_m - worked!.measured!.clear_m) / um(1)).toBeCloseTo(5, 6);
  expect((two!.predicted!.clear_m - worked!.predicted!.clear_m) / um(1)).toBeCloseTo(5, 6);
  expect(worked!.measured!.how).toBe("measured less removal");
  expect(again!.spots["1"]!.clear_m / um(1)).toBeCloseTo(53, 6);
});

test("a spot struck out is not in the history, and an empty ledger has none", () => {
  const l = ledger();
  l.read("before", 90);
  const id = l.read("after", 150);
  l.entries.push({ ...l.entries[0]!, id: "strike", kind: "strike", body: { reason: "" }, supersedes: id });
  expect(filmHistory(brief, sheet, l.entries)).toEqual([]);
  expect(filmHistory(brief, sheet, [])).toEqual([]);
});
