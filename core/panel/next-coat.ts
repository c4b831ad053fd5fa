import { USUAL_GUN } from "../models/spray/usual-gun";
import { type CoatZone, type HouseWay, plannedCoat } from "../models/ways/house-ways";
import type { BodyOf } from "../record/bodies";
import type { Side } from "../record/kinds";
import type { PanelBrief } from "./brief";
import type { CoatState } from "./builds";
import type { PanelFacts } from "./derive-panel";

export interface NextCoat {
  /** The face it goes on: of a part with two faces the back comes first. */
  side: Side;
  /** Its place among the coats of that face that count. */
  number: number;
  /** The number that it is logged as: of its own, also where coats were taken out. */
  loggedAs: number;
  role: string;
  /** Where the way sprays it. */
  zone: CoatZone;
  settings: BodyOf<"coat">["settings"];
  reducer: number;
  /** Where the settings come from: a gun taken up, the coat before, or nobody's gun. */
  from: "gun" | "last coat" | "other panel" | "usual";
  gunName: string | null;
}

/** The gun in the hand at its usual pace, before a way hurries or slows a coat. */
export type HandGun = Pick<NextCoat, "settings" | "reducer" | "from" | "gunName">;

/**
 * A gun taken up since the last coat, else the last coat's own without the pace that its way gave it, else a usual one; a coat on another panel
 * of the job counts as well, for the same gun is in the hand. What was sprayed fast as a tack coat says how the full coat after it is sprayed
 * only once that pace is taken out.
 */
export function handGun(state: Pick<PanelFacts, "coats" | "backCoats" | "coatElsewhere" | "gunSet" | "mix">, way: HouseWay): HandGun {
  const own = newestCoat(state)?.entry ?? null;
  const other = state.coatElsewhere;
  const newest = own && other ? (other.seq > own.seq ? other : own) : (own ?? other);
  const reducer = own?.body.reducer ?? state.mix?.body.reducer ?? newest?.body.reducer ?? 0;
  const { gunSet } = state;
  if (gunSet && !(newest && newest.seq > gunSet.seq))
    return { settings: gunSet.body.settings, reducer, from: "gun", gunName: gunSet.body.name };
  if (!newest) return { settings: { ...USUAL_GUN, fluidFrom: "turns", fan_m: null }, reducer, from: "usual", gunName: null };
  const last = newest.body;
  const then = plannedCoat(way, last.number);
  const pace = then.role === last.role ? then.speedFactor : 1; // sprayed otherwise than planned: at nobody's pace but its own
  return { settings: atPace(last.settings, 1 / pace), reducer, from: newest === own ? "last coat" : "other panel", gunName: null };
}

/** Coats on both faces. */
export const coatsOn = ({ coats, backCoats }: Pick<PanelFacts, "coats" | "backCoats">): number => coats.length + backCoats.length;

/** The newest coat of either face. */
export function newestCoat({ coats, backCoats }: Pick<PanelFacts, "coats" | "backCoats">): CoatState | null {
  const [front, back] = [coats.at(-1), backCoats.at(-1)];
  return (front && back ? (front.entry.seq > back.entry.seq ? front : back) : (front ?? back)) ?? null;
}

/** The face that the next coat goes on: the back of a part with two faces until it has its coats. */
export const nextSide = (
  state: Pick<PanelFacts, "backCoats">,
  { sides, coatsPlanned }: Pick<PanelBrief, "sides" | "coatsPlanned">,
): Side => (sides === 2 && state.backCoats.length < coatsPlanned ? "back" : "front");

/** Settings offered for a panel's next coat: the gun in the hand at the pace that the house way gives this coat. */
export function nextCoat(
  state: Pick<PanelFacts, "coats" | "backCoats" | "coatElsewhere" | "gunSet" | "mix">,
  way: HouseWay,
  brief: Pick<PanelBrief, "sides" | "coatsPlanned">,
): NextCoat {
  const side = nextSide(state, brief);
  const number = (side === "front" ? state.coats : state.backCoats).length + 1;
  const loggedAs = Math.max(0, ...[...state.coats, ...state.backCoats].map((c) => c.loggedAs)) + 1;
  const { role, speedFactor, zone = "whole" } = plannedCoat(way, number);
  const gun = handGun(state, way);
  return { ...gun, side, number, loggedAs, role, zone, settings: atPace(gun.settings, speedFactor) };
}

const atPace = (s: BodyOf<"coat">["settings"], factor: number): BodyOf<"coat">["settings"] => ({
  ...s,
  handSpeed_m_s: s.handSpeed_m_s * factor,
});
