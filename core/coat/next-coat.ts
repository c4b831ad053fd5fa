import { coatGun, handOf, isLying, startGun } from "../models/ways/coat-gun";
import type { GunSettings } from "../models/spray/deposit";
import { needleFlow } from "../models/spray/needle-flow";
import { type HouseWay, type PlannedCoat, plannedCoat } from "../models/ways/way";
import type { CoatZone } from "../models/ways/terms";
import type { BodyOf } from "../record/bodies";
import type { Side } from "../record/kinds";
import type { ProductSheet } from "../models/product/sheet";
import type { PanelBrief } from "../panel/brief";
import { coatsOf, newestCoat, nextSide } from "../panel/coats-on";
import type { PanelFacts } from "../panel/derive-panel";

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

/** The gun in the hand as usual, before a way changes it for a coat. */
export interface HandGun extends Pick<NextCoat, "settings" | "reducer" | "from" | "gunName"> {
  /** That reducer is what was mixed since the last coat: a way adds nothing to it. */
  mixed: boolean;
}

/** What the gun in the hand is known from. */
export interface HandAsked {
  facts: Pick<PanelFacts, "coats" | "backCoats" | "coatElsewhere" | "gunSet" | "mix"> & Partial<Pick<PanelFacts, "turned">>;
  /** How the part is planned to lie. */
  brief?: Partial<Pick<PanelBrief, "tilt_rad">> | undefined;
  way: HouseWay;
  sheet: Pick<ProductSheet, "reducerMin" | "gun">;
  /** What nobody's gun and mix begin with; where it is not given the way's gun and the sheet's least. */
  start?: { gun: GunSettings & { turns: number }; reducer: number } | undefined;
  /** What is tried otherwise with the gun in the hand, whatever is known of it. */
  tried?: Partial<Pick<GunSettings, "overlap" | "handSpeed_m_s">> | undefined;
}
export interface NextAsked extends HandAsked {
  brief: Pick<PanelBrief, "sides" | "coatsPlanned"> & Partial<Pick<PanelBrief, "tilt_rad">>;
}

/**
 * A gun taken up since the last coat, else the last coat's own without what its way changed for it, else the way's first; a coat on another panel
 * of the job counts as well, for the same gun is in the hand. What was sprayed fast as a tack coat says how the full coat after it is sprayed
 * only once that is taken out. Its reducer is what was mixed, else what was sprayed last, else the least that the sheet asks for.
 */
export function handGun(asked: HandAsked): HandGun {
  const hand = handKnown(asked);
  return asked.tried ? { ...hand, settings: { ...hand.settings, ...asked.tried } } : hand;
}

function handKnown(asked: HandAsked): HandGun {
  const { facts: state, way, sheet, start } = asked;
  const own = newestCoat(state)?.entry ?? null;
  const other = state.coatElsewhere;
  const newest = own && other ? (other.seq > own.seq ? other : own) : (own ?? other);
  const { gunSet, mix } = state;
  const least = start?.reducer ?? sheet.reducerMin;
  const mixed = mix !== null && !(own && own.seq > mix.seq);
  const sprayed = own ?? newest;
  const reducer = mixed ? mix.body.reducer : sprayed ? reducerBefore(sprayed.body, way) : least;
  const common = { reducer, mixed, gunName: null };
  /** A gun that was set, or a usual one, gives more where more reducer than the sheet's least goes in after it. */
  const withMore = (gun: NextCoat["settings"], from_seq: number): NextCoat["settings"] =>
    mixed && mix.seq > from_seq ? { ...gun, fluidRate_m3_s: gun.fluidRate_m3_s * needleFlow(Math.min(reducer, least), reducer) } : gun;
  if (gunSet && !(newest && newest.seq > gunSet.seq))
    return { ...common, settings: withMore(gunSet.body.settings, gunSet.seq), from: "gun", gunName: gunSet.body.name };
  if (!newest)
    return {
      ...common,
      settings: withMore({ fan_m: null, ...(start?.gun ?? startOf(asked)), fluidFrom: "turns" }, -Infinity),
      from: "usual",
    };
  const last = newest.body;
  const then = asPlanned(last, way);
  const hand = then ? handOf(last.settings, then) : last.settings;
  // What was mixed since is thinner or thicker than what this needle was set for.
  const thinner = mixed ? needleFlow(reducerBefore(last, way), reducer) : 1;
  return {
    ...common,
    settings: { ...hand, fluidRate_m3_s: thinner * hand.fluidRate_m3_s },
    from: newest === own ? "last coat" : "other panel",
  };
}

/** The gun that a way starts with, upright or lying; where it leaves something to the gun, as the sheet asks for it. */
const startOf = ({ way: { gun }, sheet: { gun: asked }, facts, brief }: HandAsked) =>
  startGun(
    {
      gun: {
        ...gun,
        distance_m: gun.distance_m ?? asked?.distance_m ?? null,
        pressure_Pa: gun.pressure_Pa ?? asked?.pressure_Pa ?? null,
        fan_m: gun.fan_m ?? asked?.fan_m ?? null,
      },
    },
    { lying: isLying(facts.turned?.body.tilt_rad ?? brief?.tilt_rad ?? UPRIGHT_RAD) },
  );
const UPRIGHT_RAD = Math.PI / 2;

/** What the way planned of a logged coat; null where it was sprayed otherwise, as nobody's way but its own. */
function asPlanned({ number, role }: BodyOf<"coat">, way: HouseWay): PlannedCoat | null {
  const planned = plannedCoat(way, number);
  return planned.role === role ? planned : null;
}
const reducerBefore = (coat: BodyOf<"coat">, way: HouseWay) => Math.max(0, coat.reducer - (asPlanned(coat, way)?.reducerShift ?? 0));

/** The gun in the hand that sprays the next coat with these settings: what its way changes for that coat taken out. */
export function handFor(asked: NextAsked, settings: BodyOf<"coat">["settings"]): BodyOf<"coat">["settings"] {
  const planned = plannedCoat(asked.way, coatsOf(asked.facts, nextSide(asked.facts, asked.brief)).length + 1);
  return handOf(settings, handGun(asked).mixed ? { ...planned, reducerShift: 0 } : planned);
}

/** Settings offered for a panel's next coat: the gun in the hand at the pace that the house way gives this coat. */
export function nextCoat(asked: NextAsked): NextCoat {
  const { facts: state, way, brief } = asked;
  const side = nextSide(state, brief);
  const number = coatsOf(state, side).length + 1;
  const loggedAs = Math.max(0, ...[...state.coats, ...state.backCoats].map((c) => c.loggedAs)) + 1;
  const planned = plannedCoat(way, number);
  const { role, zone } = planned;
  const gun = handGun(asked);
  return {
    ...gun,
    side,
    number,
    loggedAs,
    role,
    zone,
    // A way adds no reducer to what is mixed.
    settings: coatGun(gun.settings, gun.mixed ? { ...planned, reducerShift: 0 } : planned),
    reducer: gun.mixed ? gun.reducer : gun.reducer + planned.reducerShift,
  };
}
