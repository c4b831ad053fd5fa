import { USUAL_GUN } from "../spray/usual-gun";
import { type HouseWay, plannedCoat } from "../ways/house-ways";
import type { BodyOf } from "./bodies";
import type { PanelState } from "./derive-panel";

export interface NextCoat {
  number: number;
  role: string;
  settings: BodyOf<"coat">["settings"];
  reducer: number;
  /** Where the settings come from: a gun taken up, the coat before, or nobody's gun. */
  from: "gun" | "last coat" | "usual";
  gunName: string | null;
}

/** Settings offered for a panel's next coat: a gun taken up since the last coat, else that coat's own, else a usual gun by the house way. */
export function nextCoat(state: Pick<PanelState, "coats" | "gunSet" | "mix">, way: HouseWay): NextCoat {
  const number = state.coats.length + 1;
  const planned = plannedCoat(way, number);
  const last = state.coats.at(-1)?.entry.body ?? null;
  const common = { number, role: planned.role, reducer: last?.reducer ?? state.mix?.body.reducer ?? 0 };
  const paced = (s: BodyOf<"coat">["settings"]) => ({ ...s, handSpeed_m_s: s.handSpeed_m_s * planned.speedFactor });
  if (state.gunSet) return { ...common, settings: paced(state.gunSet.body.settings), from: "gun", gunName: state.gunSet.body.name };
  if (last) return { ...common, settings: last.settings, from: "last coat", gunName: null };
  return { ...common, settings: paced({ ...USUAL_GUN, fluidFrom: "turns", fan_m: null }), from: "usual", gunName: null };
}
