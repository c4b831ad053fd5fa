import { inRange } from "../../kernel/guard";
import { flowVerdict } from "./flow-advice";
import type { FlowClass, FlowSetting } from "./flow-window";
import type { PartSheet } from "../product/sheet";

export interface HardenerToday {
  name: string;
  /** Today lies inside its own window; null: its sheet does not say. */
  inWindow: boolean | null;
  /** What the flow model says of the coats with it; null: it does not reach. */
  class: FlowClass | null;
  /** The one to take. */
  best: boolean;
}

/** Hardeners for today's coats: inside their windows first, then the one furthest from both a run and peel. @throws RangeError */
export function hardenersToday(list: readonly PartSheet[], setting: FlowSetting, textureLimit: number): HardenerToday[] {
  const { air_K } = setting.conditions;
  const judged = list.map((h) => {
    const verdict = inRange(() =>
      flowVerdict({ ...setting, conditions: { ...setting.conditions, speed: h.speed ?? setting.conditions.speed } }, textureLimit),
    );
    const inWindow = h.window && air_K >= h.window.low_K && air_K <= h.window.high_K;
    return { name: h.name, inWindow, class: verdict?.class ?? null, worth: (inWindow === false ? -100 : 0) + (verdict?.margin ?? -50) };
  });
  const most = Math.max(...judged.map((j) => j.worth));
  const best = judged.findIndex((j) => j.worth === most);
  return judged.map(({ name, inWindow, class: flows }, i) => ({ name, inWindow, class: flows, best: i === best && inWindow !== false }));
}
