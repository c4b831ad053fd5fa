import { inRange, requireNumber } from "../kernel/guard";
import { CLIMATE_BOUNDS, GUN_BOUNDS, requireWithin } from "../models/bounds";
import {
  type FlowCoat,
  type FlowResult,
  type FlowConditions,
  type ShopFactors,
  layCoats,
  simulateCoats,
} from "../models/flow/simulate-coats";
import { edgeRunChance } from "../models/flow/run-chance";
import { type WaveNumbers, waveNumbers } from "../models/flow/wave-numbers";
import { SPRAY } from "../models/spray/constants";
import { TURNS_DEFAULT } from "../models/spray/fluid-from-turns";
import { thickerFlow } from "../models/spray/needle-flow";
import { viscosityAt } from "../models/spray/viscosity";
import type { BodyOf } from "../record/bodies";
import { type CoatsAsked, coatsAhead } from "./coats-ahead";
import { nextCoat } from "./next-coat";

type Settings = BodyOf<"coat">["settings"];

/** The coat about to be sprayed as its owner has it, and what it is worked out from. */
export interface EqualFrom {
  number: number;
  settings: Settings;
  conditions: FlowConditions;
  /** The wet coats it goes on, with itself as the last. */
  coats: readonly FlowCoat[];
  shop: ShopFactors | undefined;
  u_filmLog: number | undefined;
}

/** What is otherwise than this coat was planned with. */
export interface FoundOtherwise {
  /** At the gun, trigger pulled. */
  pressure_Pa: number;
  air_K: number;
  /** The mix in the cup against the one that was planned, as so many times as thick at one temperature. */
  thicker: number;
  /** Bore of the nozzle over that of the one that was meant. */
  bore: number;
  /** Another gun in the hand, as it is set; null: the one that was meant. */
  gun: Settings | null;
}

/** How a coat comes out. */
export interface Finish {
  settings: Settings;
  dry_m: number;
  drop_m: number;
  texture: number;
  /** At an edge, the film's doubt with it; of all wet coats that it goes on with. */
  runChance: number;
  /** How far this coat slides. */
  sagLocal_m: number;
  spectrum: FlowResult["spectrum"];
}

/** What a set of settings does not bring back. */
export type NotEqual = "thinner film" | "heavier film" | "coarser drops" | "finer drops" | "rougher" | "smoother" | "nearer a run";

export interface EqualWay extends Finish {
  /** The hand alone, the needle left as it stands; or the needle with it. */
  by: "hand" | "needle";
  notEqual: NotEqual[];
}
export interface EqualFinish {
  number: number;
  planned: Finish;
  /** Where nothing is set otherwise. */
  asItIs: Finish & { notEqual: NotEqual[] };
  /** Least change of the hand first. */
  ways: EqualWay[];
}

/** What nobody tells apart on a panel: shares of film, drop and sag, steps of texture. Defaults of ours. */
const SAME = { film: 0.05, drop: 0.08, sag: 0.2, texture: 0.15 } as const;
/** A change of the hand as far as this weighs little against a finish that is another. Shares; defaults of ours. */
const EASY = { fluid: 0.3, distance: 0.2, speed: 0.35 } as const;
const EASE_WEIGHT = 0.1;
/** A hand keeps a pace and a distance within these. Common practice. */
const HAND = { handSpeed_m_s: { min: 0.15, max: 0.9 }, distance_m: { min: 0.1, max: 0.28 } } as const;
/** Needle: from half of what it gives to half as much again, at most what it gives wide open. */
const NEEDLE = { least: 0.5, most: 1.6 } as const;
const SWEPT = waveNumbers(8);
const MOST = { thicker: 4, bore: 1.6 } as const;

/** The next coat of a panel for its equal finish; null where there is none, or its settings lie beyond the model. */
export function equalFrom(asked: CoatsAsked): EqualFrom | null {
  const [row] = coatsAhead(asked) ?? [];
  if (!row) return null;
  const { settings } = nextCoat(asked);
  return { number: row.number, settings, conditions: row.conditions, coats: row.build, shop: asked.shop, u_filmLog: asked.shopFilm?.u_log };
}

/** What is found where nothing is otherwise. */
export const asPlannedFound = ({ settings, conditions }: Pick<EqualFrom, "settings" | "conditions">): FoundOtherwise => ({
  pressure_Pa: settings.pressure_Pa,
  air_K: conditions.air_K,
  thicker: 1,
  bore: 1,
  gun: null,
});

/**
 * Settings that lay the film, the drops and the margin to a run of the coat that was planned, where pressure, air, mix or nozzle are others; first with
 * the hand alone, then with the needle too. Film is brought back by the hand's speed, which it goes with exactly; drops, margin and texture by distance
 * and needle, searched on a grid and closed in on, with the smaller change preferred where two are as good (docs/models.md, "Equal finish").
 * @throws RangeError for what is found beyond the models' limits
 */
export function equalFinish(from: EqualFrom, found: FoundOtherwise): EqualFinish {
  const then = foundConditions(from, found);
  const still = stillSet(from, found);
  const coarse = finishing(from, then, SWEPT);
  const target = { planned: finishing(from, from.conditions, SWEPT)(from.settings), still, most_m3_s: wideOpen(still) };
  const at = (settings: Settings) => inRange(() => coarse(settings));
  const hand = search(at, target, { needle: false, known: null });
  const needle = search(at, target, { needle: true, known: hand });
  const shown = finishing(from, then);
  const planned = finishing(from, from.conditions)(from.settings);
  const beside = (settings: Settings) => {
    const finish = shown(settings);
    return { ...finish, notEqual: notEqual(planned, finish) };
  };
  return {
    number: from.number,
    planned,
    asItIs: beside(still),
    ways: [
      ...(hand ? [{ ...beside(hand.settings), by: "hand" as const }] : []),
      ...(needle && setOtherThan(needle.settings, hand?.settings ?? still) ? [{ ...beside(needle.settings), by: "needle" as const }] : []),
    ],
  };
}

/** The gun as it stands where nothing is set otherwise: what is in the hand, at the pressure found, with what its needle gives of this mix. */
function stillSet(from: EqualFrom, found: FoundOtherwise): Settings {
  const { settings } = from;
  const pressure_Pa = requireWithin(GUN_BOUNDS, "pressure_Pa", found.pressure_Pa);
  const inHand = found.gun
    ? {
        ...settings,
        ...fanAt(found.gun, settings.distance_m),
        fluidRate_m3_s: found.gun.fluidRate_m3_s,
        fluidFrom: found.gun.fluidFrom,
        turns: found.gun.turns,
      }
    : settings;
  return { ...inHand, pressure_Pa, ...flowing(from, found, inHand) };
}

/** Today's air and mix in the place of those that were planned with. */
function foundConditions({ conditions }: EqualFrom, found: FoundOtherwise): FlowConditions {
  const times = requireNumber("thicker", found.thicker, { min: 1 / MOST.thicker, max: MOST.thicker });
  return {
    ...conditions,
    air_K: requireWithin(CLIMATE_BOUNDS, "air_K", found.air_K),
    viscosity22C_Pa_s: times * (conditions.viscosity22C_Pa_s ?? SPRAY.viscosityRef_Pa_s),
  };
}

/** What the needle, left as it stands, gives of it: thicker flows less, a wider bore more, as its area. */
function flowing(
  { conditions, coats }: EqualFrom,
  { air_K, thicker, bore }: FoundOtherwise,
  { fluidRate_m3_s }: Settings,
): Pick<Settings, "fluidRate_m3_s"> {
  const wide = requireNumber("bore", bore, { min: 1 / MOST.bore, max: MOST.bore });
  const reducer = coats.at(-1)!.reducer ?? conditions.reducer;
  const u = (1 + reducer) / conditions.volumeSolids - 1;
  const at = (temperature_K: number) => viscosityAt(u, temperature_K, { viscosity_Pa_s: 1, volumeSolids: conditions.volumeSolids });
  const before_K = conditions.material_K ?? conditions.air_K;
  const now_K = conditions.material_K ?? air_K; // logged as it was, it is as it was
  const times = (thicker * at(now_K)) / at(before_K);
  return { fluidRate_m3_s: fluidRate_m3_s * thickerFlow(times) * wide ** 2 };
}

/** What comes out of this needle wide open; where nobody counts its turns, as far as it is likely to open. */
function wideOpen({ fluidRate_m3_s, turns, fluidFrom }: Settings): number {
  const open =
    fluidFrom === "turns" && turns ? TURNS_DEFAULT.saturation_turns / Math.min(turns, TURNS_DEFAULT.saturation_turns) : NEEDLE.most;
  return Math.min(fluidRate_m3_s * open, GUN_BOUNDS.fluidRate_m3_s.max);
}

/** How settings come out over what lies below, under these conditions. @param nodes of the spectrum; all of them where it is shown */
function finishing({ coats, shop, u_filmLog }: EqualFrom, conditions: FlowConditions, nodes?: WaveNumbers): (settings: Settings) => Finish {
  const options = { ...(shop ? { shop } : {}), ...(nodes ? { nodes } : {}) };
  const below = coats.slice(0, -1);
  const laid = below.length > 0 ? layCoats(conditions, below, options) : undefined;
  return (settings) => {
    const r = simulateCoats(conditions, [...below, { ...coats.at(-1)!, gun: settings }], { ...options, ...(laid ? { laid } : {}) });
    const { deposit, sagLocal_m } = r.coats.at(-1)!;
    return {
      settings,
      dry_m: deposit.dry_m,
      drop_m: deposit.drop_m,
      texture: r.texture,
      runChance: edgeRunChance(r.sagLocal_m, { edge: conditions.edge, u_filmLog }),
      sagLocal_m,
      spectrum: r.spectrum,
    };
  };
}

interface Target {
  planned: Finish;
  /** The gun as it stands where nothing is set otherwise. */
  still: Settings;
  most_m3_s: number;
}

/**
 * The best settings of a grid over distance and needle, closed in on twice; none worse than the gun as it stands, and than what is known already. Null
 * where none lies within the model.
 */
function search(
  at: (s: Settings) => Finish | null,
  target: Target,
  { needle, known }: { needle: boolean; known: Finish | null },
): Finish | null {
  const { still, most_m3_s, planned } = target;
  const spans = {
    distance: span(
      Math.max(HAND.distance_m.min, still.distance_m * 0.6),
      Math.min(HAND.distance_m.max, still.distance_m * 1.5),
      still.distance_m,
    ),
    fluid: needle
      ? span(still.fluidRate_m3_s * NEEDLE.least, Math.min(most_m3_s, still.fluidRate_m3_s * NEEDLE.most), still.fluidRate_m3_s)
      : { low: still.fluidRate_m3_s, high: still.fluidRate_m3_s },
  };
  const lossAt = (finish: Finish | null) => (finish ? lossOf(planned, still, finish) : Infinity);
  let best = known ?? withFilm(at, target, still);
  let least = lossAt(best);
  let [distance, fluid] = [spans.distance, spans.fluid];
  for (const n of needle ? [11, 7, 7] : [31, 9, 9]) {
    for (const distance_m of places(distance, n))
      for (const fluidRate_m3_s of places(fluid, n)) {
        const gun = { ...still, distance_m, ...fanAt(still, distance_m), fluidRate_m3_s, ...turned(still, fluidRate_m3_s) };
        const finish = withFilm(at, target, gun);
        const loss = lossAt(finish);
        if (loss < least) [best, least] = [finish, loss];
      }
    if (!best) return null;
    distance = near(spans.distance, best.settings.distance_m, distance, n);
    fluid = near(spans.fluid, best.settings.fluidRate_m3_s, fluid, n);
  }
  return best;
}

interface Span {
  low: number;
  high: number;
}
/** A span that has its middle in it, wherever that lies. */
const span = (low: number, high: number, middle: number): Span => ({ low: Math.min(low, middle), high: Math.max(high, middle) });
const places = ({ low, high }: Span, n: number): number[] =>
  high > low ? Array.from({ length: n }, (_, i) => low * (high / low) ** (i / (n - 1))) : [low];
/** Between the neighbours of what was best so far. */
function near(whole: Span, best: number, last: Span, n: number): Span {
  if (!(whole.high > whole.low)) return whole;
  const step = (last.high / last.low) ** (1 / (n - 1));
  return { low: Math.max(whole.low, best / step), high: Math.min(whole.high, best * step) };
}

/** A fan opens with the distance, as far as one is known. */
function fanAt({ fan_m, distance_m: seen_m }: Pick<Settings, "fan_m" | "distance_m">, distance_m: number): Pick<Settings, "fan_m"> {
  const { min, max } = GUN_BOUNDS.fan_m;
  return { fan_m: fan_m === null ? null : Math.min(max, Math.max(min, (fan_m * distance_m) / seen_m)) };
}

/** Turns that give so much: in the proportion of this needle as it stands; of one that nobody measured, up to where it gives no more. */
function turned({ fluidFrom, turns, fluidRate_m3_s: still }: Settings, fluidRate_m3_s: number): Pick<Settings, "turns"> {
  if (turns === null || fluidRate_m3_s === still) return { turns };
  const open = fluidFrom === "turns" ? Math.min(turns, TURNS_DEFAULT.saturation_turns) : turns;
  return { turns: (open * fluidRate_m3_s) / still };
}

/** The same gun with the hand at the speed that lays the film planned; as near to it as a hand goes. */
function withFilm(at: (s: Settings) => Finish | null, { planned }: Target, gun: Settings): Finish | null {
  const first = at(gun);
  if (!first) return null;
  const { min, max } = HAND.handSpeed_m_s;
  const [slow, fast] = [Math.min(min, planned.settings.handSpeed_m_s), Math.max(max, planned.settings.handSpeed_m_s)];
  const handSpeed_m_s = Math.min(fast, Math.max(slow, (gun.handSpeed_m_s * first.dry_m) / planned.dry_m));
  return at({ ...gun, handSpeed_m_s });
}

const ratio = (a: number, b: number, share: number) => (a > 0 && b > 0 ? Math.log(a / b) / share : 0);

/** How far a finish is from the one planned, with a little for each change of the hand. */
function lossOf(planned: Finish, still: Settings, { settings, ...f }: Finish): number {
  const finish =
    ratio(f.dry_m, planned.dry_m, SAME.film / 2) ** 2 +
    ratio(f.drop_m, planned.drop_m, SAME.drop) ** 2 +
    ratio(f.sagLocal_m, planned.sagLocal_m, SAME.sag) ** 2 +
    ((f.texture - planned.texture) / SAME.texture) ** 2;
  const ease =
    ratio(settings.fluidRate_m3_s, still.fluidRate_m3_s, EASY.fluid) ** 2 +
    ratio(settings.distance_m, still.distance_m, EASY.distance) ** 2 +
    ratio(settings.handSpeed_m_s, planned.settings.handSpeed_m_s, EASY.speed) ** 2;
  return finish + EASE_WEIGHT * ease;
}

/** What of a finish somebody would see or feel. */
function notEqual(planned: Finish, f: Finish): NotEqual[] {
  const off = (a: number, b: number, share: number) => (b > 0 ? Math.sign(a - b) * Number(Math.abs(a / b - 1) > share) : 0);
  const film = off(f.dry_m, planned.dry_m, SAME.film);
  const drop = off(f.drop_m, planned.drop_m, SAME.drop);
  const rough = f.texture - planned.texture;
  return [
    ...(film < 0 ? ["thinner film" as const] : film > 0 ? ["heavier film" as const] : []),
    ...(drop > 0 ? ["coarser drops" as const] : drop < 0 ? ["finer drops" as const] : []),
    ...(rough > SAME.texture ? ["rougher" as const] : rough < -SAME.texture ? ["smoother" as const] : []),
    ...(off(f.sagLocal_m, planned.sagLocal_m, SAME.sag) > 0 ? ["nearer a run" as const] : []),
  ];
}

/** Two settings that a hand tells apart. */
const setOtherThan = (a: Settings, b: Settings): boolean =>
  (["fluidRate_m3_s", "distance_m", "handSpeed_m_s"] as const).some((k) => Math.abs(a[k] / b[k] - 1) > 0.02);
