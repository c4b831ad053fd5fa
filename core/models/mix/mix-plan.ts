import { inRange, requireNumber } from "../../kernel/guard";
import { type AnySheet, type PartSheet, type ProductSheet, flashLeastAt, potLifeAt } from "../product/sheet";
import type { TimeAtTemperature } from "../product/time-at-temperature";
import { type Amount, mixAmount } from "./amount";
import { type Pot, type PotCoat, passTime, splitPots } from "./pots";
import { type MixPart, type ReducerMeaning, mixShares, reducerOnActivated } from "../product/ratio";
import { REDUCTION_SCHOOLS, type ReductionCost, reductionCost } from "./reduction";
import { rolesOf } from "../product/roles";
import { vocOf } from "./voc";
import { type PourTarget, pourTargets } from "./weigh";
import { type MatteBlend, productVolumeShare } from "./matte-blend";

export interface MixInput {
  sheet: ProductSheet;
  hardener: PartSheet | null;
  thinner: PartSheet | null;
  /** What the clear is blended with for its gloss, and how much. */
  blend?: MatteBlend | null;
  /** Volume parts in order: clear, hardener, reducer … */
  ratio: readonly number[];
  reducer: number;
  meaning: ReducerMeaning;
  areas: readonly { area_m2: number; bothSides: boolean }[];
  coats: number;
  dryFilm_m: number;
  transfer: number;
  waste: number;
  dead_m3: number;
  temperature_K: number;
  gun: { fan_m: number; overlap: number; handSpeed_m_s: number };
  /** Ready-to-spray material of each coat over all parts by the gun's strokes; without it the area says how much. */
  strokes_m3?: readonly number[] | null;
  /** How long each coat over all parts takes; without it the area at that gun's hand says. */
  coats_s?: readonly number[] | null;
}

export interface MixPlanCoat extends PotCoat {
  dry_m: number;
  wet_m: number;
}
export interface MixPlan {
  amount: Amount;
  /** What the area says: the amount itself where no strokes are known, else a check beside it. */
  byArea_m3: number;
  reducerOnActivated: number;
  /** In pouring order; null mass: the density of this part is not on the shelf. */
  parts: { role: string; name: string; share: number; volume_m3: number; mark: number; density_kg_m3: number | null }[];
  /** Weights, when every density is known. */
  targets: PourTarget[] | null;
  missingDensity: string[];
  reduction: ReductionCost;
  schools: { id: string; name: string; how: string; reducer: number; cost: ReductionCost }[];
  voc: { actual_kg_m3: number; regulatory_kg_m3: number } | null;
  potLife: TimeAtTemperature;
  flash: TimeAtTemperature;
  coats: MixPlanCoat[];
  pots: Pot[] | null;
  potFault: string | null;
  outsideWindow: string | null;
}

/** Uncertainty of fluid over hand speed: a default of ours. */
export const U_STROKES = 0.1;
/** Uncertainty of a hand's transfer and of the film against what was wanted: defaults of ours. */
export const U_TRANSFER = 0.07;
export const FILM_CV = 0.1;

/**
 * Everything about one mix: how much, of what, by volume and weight, what it emits, how long it lives, and which coats come from which pot.
 * @throws RangeError for any figure outside sense.
 */
export function mixPlan(input: MixInput): MixPlan {
  const { sheet } = input;
  const reducer = reducerOnActivated(input.reducer, input.meaning);
  const shares = mixShares(input.ratio, { reducer: input.reducer, meaning: input.meaning, roles: rolesOf(sheet) });
  const byArea = mixAmount({
    parts: input.areas,
    coats: input.coats,
    dryFilm_m: input.dryFilm_m,
    u_dryFilm_m: FILM_CV * input.dryFilm_m,
    volumeSolids: sheet.volumeSolids,
    reducer,
    transfer: input.transfer,
    u_transfer: U_TRANSFER,
    dead_m3: input.dead_m3,
    waste: input.waste,
  });
  const strokes = input.strokes_m3 ?? null;
  if (strokes && strokes.length !== input.coats) throw new RangeError(`strokes_m3 must have one member a coat, got ${strokes.length}`);
  const amount = strokes ? byStrokes(byArea, strokes, input) : byArea;
  const volumeOf = (i: number) => (strokes ? strokes[i]! * (1 + input.waste) : amount.perCoat_m3);
  const { blend } = input;
  const sheetOf = (role: string): AnySheet | null =>
    ({ clear: sheet, blend: blend?.other, hardener: input.hardener, reducer: input.thinner })[role] ?? null;
  let mark = 0;
  const parts = blended(shares, sheet, blend ?? null).map((s) => {
    mark += s.share;
    const own = sheetOf(s.role);
    return { ...s, name: own?.name ?? s.role, volume_m3: s.share * amount.ready_m3, mark, density_kg_m3: own?.density_kg_m3 ?? null };
  });
  const missingDensity = parts.filter((p) => p.density_kg_m3 === null).map((p) => p.name);
  const targets =
    missingDensity.length === 0
      ? pourTargets(
          parts.map((p) => ({ role: p.name, share: p.share, density_kg_m3: p.density_kg_m3! })),
          amount.ready_m3,
        )
      : null;
  const cost = (r: number) =>
    reductionCost({
      volumeSolids: sheet.volumeSolids,
      wetPerCoat_m: amount.wetPerCoat_m,
      dryWanted_m: amount.dryTotal_m,
      reducer: r,
      sheetMost: sheet.reducerMax,
    });
  const potLife = potLifeAt(sheet, input.temperature_K);
  const flash = flashLeastAt(sheet, input.temperature_K);
  const { coats, pots, potFault, window } = coatsAndPots({ amount, input, volumeOf, flash, potLife });
  return {
    amount,
    byArea_m3: byArea.ready_m3,
    reducerOnActivated: reducer,
    parts,
    targets,
    missingDensity,
    reduction: cost(reducer),
    schools: REDUCTION_SCHOOLS.map((s) => {
      const r = Math.max(0, sheet.reducerMax + s.beyond);
      return { id: s.id, name: s.name, how: s.how, reducer: r, cost: cost(r) };
    }),
    voc: vocOfMix(parts.map((p) => ({ volume_m3: p.volume_m3, sheet: sheetOf(p.role) }))),
    potLife,
    flash,
    coats,
    pots,
    potFault,
    outsideWindow:
      window && (input.temperature_K < window.low_K || input.temperature_K > window.high_K)
        ? `${input.hardener?.window ? input.hardener.name : sheet.name} is not meant for this temperature`
        : null,
  };
}

/** Which coat comes when, out of which pot. */
function coatsAndPots({
  amount,
  input,
  volumeOf,
  flash,
  potLife,
}: {
  amount: Amount;
  input: MixInput;
  volumeOf: (i: number) => number;
  flash: TimeAtTemperature;
  potLife: TimeAtTemperature;
}) {
  const { sheet } = input;
  const byArea_s = passTime({ area_m2: amount.area_m2, ...input.gun });
  let start_s = 0;
  const coats = Array.from({ length: input.coats }, (_, i): MixPlanCoat => {
    const own_s = input.coats_s?.[i] ?? byArea_s;
    const coat = {
      number: i + 1,
      volume_m3: volumeOf(i),
      start_s,
      end_s: start_s + own_s,
      dry_m: input.dryFilm_m,
      wet_m: amount.wetPerCoat_m,
    };
    start_s += Math.max(own_s, flash.time_s);
    return coat;
  });
  const pots = inRange(() => splitPots(coats, { potLife_s: potLife.time_s }));
  const potFault = pots ? null : "One coat takes longer than a pot lives. Spray it in two pots or take a slower hardener.";
  const window = input.hardener?.window ?? sheet.window;
  return { coats, pots, potFault, window };
}

/** The clear's place in two where it is blended: by weight, put into volumes. What there is none of is not poured. */
function blended(shares: readonly MixPart[], sheet: ProductSheet, blend: MatteBlend | null): MixPart[] {
  if (!blend) return [...shares];
  const own = productVolumeShare(sheet, blend);
  return shares
    .flatMap((s) =>
      s.role === "clear"
        ? [
            { ...s, share: s.share * own },
            { role: "blend", share: s.share * (1 - own) },
          ]
        : [s],
    )
    .filter((s) => s.share > 0);
}

/** The same amount where the gun's strokes say how much goes through it. */
function byStrokes(area: Amount, strokes: readonly number[], { waste, dead_m3 }: Pick<MixInput, "waste" | "dead_m3">): Amount {
  const sprayed_m3 = strokes.reduce((a, v, i) => a + requireNumber(`strokes_m3[${i}]`, v, { above: 0, max: 0.1 }), 0) * (1 + waste);
  const ready_m3 = sprayed_m3 + dead_m3;
  return {
    ...area,
    ready_m3,
    activated_m3: (area.activated_m3 / area.ready_m3) * ready_m3,
    u_ready_m3: U_STROKES * sprayed_m3,
    perCoat_m3: sprayed_m3 / strokes.length,
  };
}

/** VOC of the mix when every part's figures are on the shelf; else null, never a guess. */
function vocOfMix(parts: readonly { volume_m3: number; sheet: AnySheet | null }[]): MixPlan["voc"] {
  const known = parts.flatMap(({ volume_m3, sheet }) => {
    if (!sheet || sheet.density_kg_m3 === null || sheet.voc_kg_m3 === null) return [];
    const organic = sheet.voc_kg_m3 / sheet.density_kg_m3;
    return [
      {
        volume_m3,
        density_kg_m3: sheet.density_kg_m3,
        volatile: Math.min(1, organic + sheet.waterShare + sheet.exemptShare),
        water: sheet.waterShare,
        exempt: sheet.exemptShare,
        exemptDensity_kg_m3: sheet.exemptDensity_kg_m3 ?? 1000,
      },
    ];
  });
  return known.length === parts.length ? vocOf(known) : null;
}
