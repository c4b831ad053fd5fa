import { textureWords } from "./texture-words";
import { cureForecast } from "#core/models/cure/bake-plan";
import { SUBSTRATE_TEXTURE, TEXTURE_LIMITS } from "#core/models/flow/constants";
import { flowVerdict } from "#core/models/flow/flow-advice";
import { glossSummary } from "#core/models/gloss/gloss-statistics";
import { matteMix } from "#core/models/gloss/matte-fit";
import { mixPlan } from "#core/models/mix/mix-plan";
import { SOURCES } from "#core/kernel/sources";
import { seededRandom } from "#core/kernel/stats/random";
import { IMPERIAL, METRIC } from "#core/kernel/units/quantities";
import type { Working } from "~/kit/ui/figure";
import { cureWorking } from "~/stations/spray/cure.words";
import { flowSentence, flowWorking } from "./flow-words";
import { glossWorking } from "~/stations/plan/gloss.words";
import { matteWorking } from "./matte-working";
import { mixWorking, potWorking, vocWorking } from "./mix-workings";
import { TEST_SHEET } from "#core/panel/testing/test-ledger";

const gun = { fluidRate_m3_s: 230e-6 / 60, pressure_Pa: 193053, distance_m: 0.175, overlap: 0.5, handSpeed_m_s: 0.34 };
const setting = (handSpeed_m_s: number, distance_m = 0.175) => ({
  conditions: {
    air_K: 295.15,
    speed: "medium" as const,
    volumeSolids: 0.475,
    reducer: 0,
    airSpeed_m_s: 0.3,
    tilt_rad: Math.PI / 2,
    edge: 1,
    below: SUBSTRATE_TEXTURE.basecoat,
  },
  coats: [{ gun: { ...gun, handSpeed_m_s, distance_m }, flash_s: 0 }],
});
const LIMIT = TEXTURE_LIMITS.asSprayed;
const sheet = TEST_SHEET;

describe("the verdict first, in the painter's words", () => {
  const slip = { words: "a tenth slower", class: "runs" as const, where: " at the edges" };
  test("flows, and what spoils it", () => {
    expect(flowSentence(flowVerdict(setting(0.3), LIMIT), slip)).toEqual({
      lead: "Flows.",
      rest: "A tenth slower and it runs at the edges.",
    });
    expect(flowSentence(flowVerdict(setting(0.3), LIMIT), null).rest).toBe("No small slip of the hand spoils it.");
    expect(flowSentence(flowVerdict(setting(0.3), LIMIT), { words: "", class: "runs", where: " at the edges" }).rest).toBe(
      "But it runs at the edges.",
    );
  });
  test("runs and peels, with the reason", () => {
    expect(flowSentence(flowVerdict(setting(0.08), LIMIT), slip)).toEqual({ lead: "Runs.", rest: "It slides before it sets." });
    expect(flowSentence(flowVerdict(setting(0.6, 0.28), LIMIT), slip).lead).toBe("Peels.");
  });
  test("texture by name", () => {
    expect([1, 2, 3, 4, 5].map(textureWords)).toEqual(["glass", "fine", "usual", "coarse", "heavy peel"]);
  });
});

describe("every figure has its working: formula, inputs with units, known sources, what changes it most", () => {
  const mix = {
    sheet,
    hardener: null,
    thinner: null,
    ratio: [2, 1],
    reducer: 0.1,
    meaning: "activated" as const,
    areas: [{ area_m2: 1, bothSides: false }],
    coats: 2,
    dryFilm_m: 28e-6,
    transfer: 0.65,
    waste: 0.05,
    dead_m3: 3e-5,
    temperature_K: 295.15,
    gun: { fan_m: 0.25, overlap: 0.5, handSpeed_m_s: 0.34 },
  };
  const bake = { room_K: 293.15, air_K: 333.15, purge_s: 1050, ramp_s: 600, hold_s: 1800 };
  const baked = { ...sheet, bake: { part_K: 333.15, time_s: 1800 } };
  const cards = [90, 62, 34, 18, 9].map((gloss_GU, i) => ({ id: String(i), share: i / 4, gloss_GU }));
  const WORKINGS: [string, (units: typeof METRIC) => Working][] = [
    ["flow", (u) => flowWorking(flowVerdict(setting(0.34), LIMIT), LIMIT, u)],
    ["mix", (u) => mixWorking(mixPlan(mix), mix, u)],
    ["pot life", (u) => potWorking(mixPlan(mix), mix, u)],
    ["VOC", (u) => vocWorking(mixPlan(mix), mix, u)],
    ["matte", (u) => matteWorking(matteMix(cards, 25, { random: seededRandom(1), draws: 100 })!, 25, u)],
    ["gloss", (u) => glossWorking(glossSummary(60, [12, 12.5, 11.8]), u)],
    ["cure", (u) => cureWorking(cureForecast(baked, bake), bake, baked, u)],
  ];
  test.each(WORKINGS)("%s, in both systems of units", (_name, make) => {
    for (const units of [METRIC, IMPERIAL]) {
      const w = make(units);
      expect(w.formula.length).toBeGreaterThan(30);
      expect(w.changesMost.length).toBeGreaterThan(10);
      expect(w.inputs.length).toBeGreaterThan(2);
      for (const i of w.inputs) expect(i.shown).not.toMatch(/NaN|undefined|Infinity/);
      expect(new Set(w.inputs.map((i) => i.name)).size).toBe(w.inputs.length);
      for (const s of w.sources) expect(SOURCES[s].text.length).toBeGreaterThan(5);
    }
  });
  test("mil and µm show the same film", () => {
    const film = (units: typeof METRIC) => mixWorking(mixPlan(mix), mix, units).inputs.find((i) => i.name === "dry film a coat")!.shown;
    expect(film(METRIC)).toBe("28 ± 6 µm");
    expect(film(IMPERIAL)).toBe("1.1 ± 0.2 mil");
  });
});
