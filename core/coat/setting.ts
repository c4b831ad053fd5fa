import type { PanelBrief } from "../panel/brief";
import { FLASH_S } from "../models/bounds";
import { UNLOGGED_AIR_K } from "../models/trade-limits";
import type { SprayedIn } from "../panel/predict-coat";
import type { PanelFacts } from "../panel/derive-panel";
import { type CupSheet, mixViscosity22C } from "../models/product/mix-viscosity";
import type { ProductSheet } from "../models/product/sheet";
import { inRange } from "../kernel/guard";
import { baseRoughness } from "../models/prep/papers";
import { SUBSTRATE_TEXTURE } from "../models/flow/constants";
import type { FlowSetting } from "../models/flow/flow-window";
import type { FlowCoat, FlowConditions } from "../models/flow/simulate-coats";
import type { CoatState } from "../panel/builds";
import type { Side } from "../record/kinds";
import type { HouseWay } from "../models/ways/way";

/** Air along the panel in a running booth. Common practice. */
const AIR_ALONG_M_S = 0.3;

/** What a clear is sprayed under: its own figures, the day's, how the panel hangs; over base, away from the edges. */
export function flowConditions(
  sheet: Pick<ProductSheet, "speed"> & CupSheet,
  o: Pick<FlowConditions, "air_K" | "material_K" | "reducer" | "tilt_rad"> & { lastPaper?: number | null | undefined },
): FlowConditions {
  return {
    air_K: o.air_K,
    material_K: o.material_K,
    speed: sheet.speed,
    volumeSolids: sheet.volumeSolids,
    viscosity22C_Pa_s: mixViscosity22C(sheet),
    reducer: o.reducer,
    airSpeed_m_s: AIR_ALONG_M_S,
    tilt_rad: o.tilt_rad,
    edge: 1,
    below: baseOver(o.lastPaper ?? null),
  };
}

/** The base that clear is laid on, by its last paper where that is known; else a usual one. */
function baseOver(lastPaper: number | null): FlowConditions["below"] {
  const { long_m, short_m } = SUBSTRATE_TEXTURE.basecoat;
  const rough = lastPaper === null ? 1 : (inRange(() => baseRoughness(lastPaper)) ?? 1);
  return { long_m: rough * long_m, short_m: rough * short_m };
}

/** The last paper below the base that was logged; null: nobody said. */
export const lastPaperOf = ({ under }: Pick<PanelFacts, "under">): number | null =>
  under.findLast((u) => u.body.step === "sand" && u.body.grit !== null)?.body.grit ?? null;

/** How the part lies: as it was last turned, else as it is planned. */
export const tiltOf = (facts: Pick<PanelFacts, "turned">, brief: Pick<PanelBrief, "tilt_rad">): number =>
  facts.turned?.body.tilt_rad ?? brief.tilt_rad;

/** What the next coat is sprayed in: the air and material as they were logged last, the hardener as it was mixed where that is known. */
export const sprayedNow = (facts: Pick<PanelFacts, "climate" | "mix">, { speed }: Pick<ProductSheet, "speed">): SprayedIn => ({
  air_K: facts.climate?.body.air_K ?? UNLOGGED_AIR_K,
  material_K: facts.climate?.body.material_K ?? null,
  speed: facts.mix?.body.speed ?? speed,
});

/** What a panel's coats are sprayed under: the material as it was logged, the part as it lies. */
export const conditionsOf = (
  {
    sheet,
    facts,
    brief,
    way,
  }: {
    sheet: ProductSheet;
    facts: Pick<PanelFacts, "climate" | "turned" | "under" | "mix">;
    brief: Pick<PanelBrief, "tilt_rad">;
    /** Its last paper stands where none was logged. */
    way?: HouseWay;
  },
  { air_K, reducer }: Pick<FlowConditions, "air_K" | "reducer">,
): FlowConditions =>
  flowConditions(
    { ...sheet, speed: sprayedNow(facts, sheet).speed },
    {
      air_K,
      material_K: sprayedNow(facts, sheet).material_K,
      reducer,
      tilt_rad: tiltOf(facts, brief),
      lastPaper: lastPaperOf(facts) ?? way?.lastPaper,
    },
  );

/** The same for the next coat of a face: on a surface, or a build on one, that was sanded flat where it was. */
export function conditionsOn(
  asked: Parameters<typeof conditionsOf>[0] & { facts: Pick<PanelFacts, "builds"> },
  side: Side,
  now: Parameters<typeof conditionsOf>[1],
): FlowConditions {
  const conditions = conditionsOf(asked, now);
  const { builds } = asked.facts;
  const overSanded = side === "front" && (builds.length > 1 || (builds.at(-1)?.thinning.length ?? 0) > 0);
  return overSanded ? { ...conditions, below: SUBSTRATE_TEXTURE.sanded } : conditions;
}

/** Coats wet on wet as the flow model is asked: as they were logged, with the waits between them and so long a one after the last. */
export const asTheyLie = (build: readonly CoatState[], last_s: number): FlowCoat[] =>
  build.map(({ entry }, i) => {
    const after = build[i + 1];
    return {
      gun: entry.body.settings,
      reducer: entry.body.reducer,
      flash_s: Math.max(0, after ? (after.entry.at_ms - entry.at_ms) / 1000 : last_s),
    };
  });

/** Waits between the coats of a panel as logged, s; none below zero where their times stand the other way round, none above what the models tell apart. */
export const flashesOf = (coats: PanelFacts["coats"]): number[] =>
  coats.slice(1).map((c, i) => Math.min(FLASH_S.max, Math.max(FLASH_S.min, (c.entry.at_ms - coats[i]!.entry.at_ms) / 1000)));

/** A panel's coats as they were logged, for the flow model, under what the newest was sprayed in and as it hung then: at least one coat. */
export function loggedSetting(brief: PanelBrief, state: PanelFacts, sheet: ProductSheet): Pick<FlowSetting, "conditions" | "coats"> {
  const flashes = flashesOf(state.coats);
  const { entry, sprayed } = state.coats.at(-1)!;
  const { reducer, tilt_rad } = entry.body;
  return {
    conditions: flowConditions(
      { ...sheet, speed: sprayed.speed },
      { ...sprayed, reducer, tilt_rad: tilt_rad ?? brief.tilt_rad, lastPaper: lastPaperOf(state) },
    ),
    coats: state.coats.map((c, i) => ({
      gun: c.entry.body.settings,
      reducer: c.entry.body.reducer,
      flash_s: flashes[i] ?? 0,
    })),
  };
}
