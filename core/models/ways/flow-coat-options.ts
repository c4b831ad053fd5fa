import { FLASH_S } from "../bounds";
import { FLAT_M, MOST_CLEAR_M, MOST_TOTAL_M } from "../trade-limits";
import { requireNumber } from "../../kernel/guard";
import { polygonArea } from "../../kernel/geometry/geometry";
import type { GunSettings } from "../spray/deposit";
import { type CoatVolume, type PartOver, coatOver } from "../spray/coat-over";
import type { Trigger } from "../spray/trigger";
import { needleFlow } from "../spray/needle-flow";
import { FLOW_COAT } from "./flow-coat";
import { layFlowStage } from "./flow-stage";
import { SUBSTRATE_TEXTURE } from "../flow/constants";
import type { FlowSetting } from "../flow/flow-window";
import { CHANCE_WORDS, edgeRunChance } from "../flow/run-chance";
import { type FlowCoat, type FlowResult, simulateCoats } from "../flow/simulate-coats";

/** Hours of sanding a square metre flat, and the wait before sanding: common practice. */
const SAND_H_M2 = 0.7;
const CLEAN_H = 0.4;
const REDUCER_MORE = 0.075;
const FLATTEST_M = 0.35e-6;

export interface FlowCoatOption {
  id: "leave" | "last-wet" | "re-clear" | "stacked";
  name: string;
  how: string;
  texture: number;
  /** Clear there when all is done, and the whole film. */
  clear_m: number;
  total_m: number;
  hours: number;
  volume_m3: number;
  /** Chance that it runs at an edge, its film not known. */
  runChance: number;
  result: FlowResult;
  /** Why it should not be done; null: nothing against it. */
  against: string | null;
}

interface PanelSprayed extends PartOver {
  trigger?: Trigger;
  under_m: number;
  sandAfter_h: number;
  flash_s: number;
  u_filmLog?: number | undefined;
}

/**
 * The flow coat in its three meanings against leaving it: texture, film, hours, litres and the danger of a run.
 * @param plan the coats as planned, on their substrate @param panel outline, film of all layers below the clear, hours before it may be sanded, flash between coats where the plan has one coat only
 * @throws RangeError
 */
export function flowCoatOptions(plan: FlowSetting, panel: PanelSprayed): FlowCoatOption[] {
  const area = requireNumber("area_m2", polygonArea(panel.outline), { above: 0, max: 50 });
  const wait_h = requireNumber("sandAfter_h", panel.sandAfter_h, { min: 0, max: 2000 });
  const under_m = requireNumber("under_m", panel.under_m, { min: 0, max: 2e-3 });
  const { conditions, coats } = plan;
  const last = coats.at(-1)!;
  const { run, between_s, waited, option, spray_h, volume } = costing({ panel, last, plan, under_m });
  const first = run(conditions, coats);
  const wet = { ...conditions, reducer: Math.min(1, conditions.reducer + REDUCER_MORE) };
  const mixed = { volumeSolids: conditions.volumeSolids, material_K: conditions.material_K ?? conditions.air_K };
  // What is thinned flows more through the same needle: with it the hand need not be slower.
  const thinner = needleFlow(conditions.reducer, wet.reducer, mixed);
  const wetter: typeof coats = [
    ...coats.slice(0, -1),
    { ...last, gun: { ...last.gun, fluidRate_m3_s: last.gun.fluidRate_m3_s * thinner } },
  ];
  const lastWet = run(wet, wetter);
  // The flow coat's own question, as the page of it asks: the slowest hand at which a run is unlikely; here out of a pot with slow hardener.
  const left = { clear_m: Math.max(0, first.dry_m - FLAT_M), u_m: 0 };
  const { stage, laid: reClear } = layFlowStage({
    flash_s: between_s,
    conditions: { ...conditions, speed: "slow" },
    gun: last.gun,
    left,
    under_m,
    shop: plan.shop,
    u_filmLog: panel.u_filmLog,
  });
  const pair = stage.gun
    ? Array.from({ length: stage.coats }, (_, i) => ({ ...last, gun: stage.gun!, flash_s: i < stage.coats - 1 ? between_s : 0 }))
    : [];
  const stack = [waited, waited, last];
  const stackFirst = run(conditions, stack);
  const stacked = run({ ...conditions, below: SUBSTRATE_TEXTURE.sanded }, stack);
  const flat_h = SAND_H_M2 * area + CLEAN_H;
  return [
    option({ id: "leave", name: "Leave it", how: "the coats as planned, nothing more" }, first, {
      clear_m: first.dry_m,
      hours: spray_h(coats),
      volume_m3: volume(coats),
    }),
    option(
      { id: "last-wet", name: "Last wet coat", how: "the last coat 7.5 % more reduced, with needle and hand as they are, same visit" },
      lastWet,
      {
        clear_m: lastWet.dry_m,
        hours: spray_h(wetter),
        volume_m3: volume(wetter),
      },
    ),
    option(
      {
        id: "re-clear",
        name: "Flat and re-clear",
        how: `cure, sand all clear flat, clean, ${FLOW_COAT.coats} coats with slow hardener, 7.5 % more reduced, at the slowest hand that keeps them from running`,
      },
      reClear ?? first,
      {
        clear_m: stage.clear_m,
        hours: spray_h(coats) + wait_h + flat_h + spray_h(pair),
        volume_m3: volume(coats) + volume(pair),
        extra:
          stage.gun === null
            ? "at no hand does it keep from running"
            : first.visible_m < FLATTEST_M
              ? "the first coats are as flat already"
              : null,
      },
    ),
    option({ id: "stacked", name: "Stacked builds", how: "three coats, sand next day, three coats" }, stacked, {
      clear_m: Math.max(0, stackFirst.dry_m - FLAT_M) + stacked.dry_m,
      hours: spray_h(stack) * 2 + wait_h + flat_h,
      volume_m3: 2 * volume(stack),
    }),
  ];
}

/** What coats take, and an option told with it. */
function costing({ panel, last, plan, under_m }: { panel: PanelSprayed; last: FlowCoat; plan: FlowSetting; under_m: number }) {
  const { conditions, coats } = plan;
  // Coats laid again wait for each other as the planned ones do: without a flash they would run.
  const between_s = requireNumber("flash_s", coats.at(-2)?.flash_s ?? panel.flash_s, FLASH_S);
  const waited = { ...last, flash_s: between_s };
  const run = (c: typeof conditions, list: typeof coats) => simulateCoats(c, list, plan.shop ? { shop: plan.shop } : {});
  const known = new Map<GunSettings, CoatVolume>(); // a coat laid again goes over the part as before
  const over = ({ gun }: (typeof coats)[number]) => {
    const volume = known.get(gun) ?? coatOver(panel.outline, gun, { trigger: panel.trigger, rows: panel.rows });
    known.set(gun, volume);
    return volume;
  };
  const spray_h = (list: typeof coats) => list.reduce((a, c, i) => a + over(c).time_s + (i < list.length - 1 ? c.flash_s : 0), 0) / 3600;
  const volume = (list: typeof coats) => list.reduce((a, c) => a + over(c).volume_m3, 0);
  const option = (
    o: Pick<FlowCoatOption, "id" | "name" | "how">,
    result: FlowResult,
    rest: { clear_m: number; hours: number; volume_m3: number; extra?: string | null },
  ): FlowCoatOption => {
    const total_m = under_m + rest.clear_m;
    const chance = edgeRunChance(result.sagLocal_m, { edge: conditions.edge, u_filmLog: panel.u_filmLog });
    const against =
      rest.extra ??
      (total_m > MOST_TOTAL_M
        ? "the whole film would be above 300 µm: it may crack"
        : rest.clear_m > MOST_CLEAR_M
          ? "more than 160 µm of clear: solvent stays in it"
          : chance >= CHANCE_WORDS.likely
            ? "it is likely to run"
            : null);
    return {
      ...o,
      texture: result.texture,
      clear_m: rest.clear_m,
      total_m,
      hours: rest.hours,
      volume_m3: rest.volume_m3,
      runChance: chance,
      result,
      against,
    };
  };
  return { run, between_s, waited, option, spray_h, volume };
}
