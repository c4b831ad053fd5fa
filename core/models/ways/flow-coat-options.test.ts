import { REFERENCE_SETTING, referenceWith } from "../flow/testing/usual-setting";
import { CHANCE_WORDS } from "../flow/run-chance";
import { FLAT_M } from "../trade-limits";
import { flowCoatOptions } from "./flow-coat-options";
import { flowStage } from "./flow-stage";

const setting = REFERENCE_SETTING;
const at = referenceWith;

describe("flow coat in its three meanings", () => {
  const square = [
    [0, 0],
    [1, 0],
    [1, 1],
    [0, 1],
  ] as const;
  const panel = { outline: square, under_m: 110e-6, sandAfter_h: 16, flash_s: 600 };
  const options = flowCoatOptions(setting, panel);
  const of = (id: string) => options.find((o) => o.id === id)!;
  test("flat and re-clear is the flattest and takes a day; the last wet coat takes no longer than leaving it", () => {
    expect(of("re-clear").texture).toBeLessThan(of("leave").texture);
    expect(of("last-wet").texture).toBeLessThan(of("leave").texture);
    expect(of("re-clear").hours).toBeGreaterThan(16);
    expect(of("last-wet").hours - of("leave").hours).toBeLessThan(0.1);
  });
  test("flat and re-clear is the flow coat's own question: never shown at a hand at which a run is not unlikely", () => {
    const row = of("re-clear");
    expect(row.runChance).toBeLessThan(CHANCE_WORDS.may);
    const left = { clear_m: of("leave").clear_m - FLAT_M, u_m: 0 };
    const { coats } = setting;
    const conditions = { ...setting.conditions, speed: "slow" as const };
    const stage = flowStage({ flash_s: 600, conditions, gun: coats[1]!.gun, left, under_m: panel.under_m });
    expect(row).toMatchObject({ texture: stage.texture, clear_m: stage.clear_m, runChance: stage.runChance });
    // Without a flash between its coats the hand has to be faster, and lays less.
    const wait = (flash_s: number) => ({ ...setting, coats: coats.map((c, i) => (i === 0 ? { ...c, flash_s } : c)) });
    const reClear = (flash_s: number) => flowCoatOptions(wait(flash_s), panel).find((o) => o.id === "re-clear")!;
    expect(reClear(0).clear_m).toBeLessThan(reClear(540).clear_m);
    for (const o of [reClear(0), reClear(540)]) expect(o.runChance < CHANCE_WORDS.may || o.against !== null).toBe(true);
    const flood = { ...setting, coats: coats.map((c) => ({ ...c, gun: { ...c.gun, fluidRate_m3_s: 9e-6 } })) };
    expect(flowCoatOptions(flood, panel).find((o) => o.id === "re-clear")!.against).toContain("at no hand");
  });
  test("film adds up: clear is what was laid less what was flatted, all film has the layers below", () => {
    for (const o of options) expect(o.total_m).toBeCloseTo(o.clear_m + panel.under_m, 12);
    expect(of("re-clear").clear_m).toBeGreaterThan(of("leave").clear_m);
    // Litres are the strokes': two coats more beside the two that are planned, whatever the area says.
    expect(of("re-clear").volume_m3).toBeGreaterThan(1.5 * of("leave").volume_m3);
    expect(of("re-clear").volume_m3).toBeLessThan(2.8 * of("leave").volume_m3);
    expect(of("stacked").volume_m3).toBeGreaterThan(of("leave").volume_m3 * 2.5);
  });
  test("too much film in all or too much clear is said, and nonsense is refused", () => {
    expect(flowCoatOptions(setting, { ...panel, under_m: 220e-6 }).find((o) => o.id === "stacked")!.against).toContain("300 µm");
    const heavy = flowCoatOptions(at({ handSpeed_m_s: 0.26 }), panel).find((o) => o.id === "stacked")!;
    expect(heavy.against === null || heavy.against.length > 0).toBe(true);
    expect(() => flowCoatOptions(setting, { ...panel, outline: square.slice(0, 2) })).toThrow("area_m2");
  });
});
