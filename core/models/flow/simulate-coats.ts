import { FLASH_S } from "../bounds";
import { requireNumber } from "../../kernel/guard";
import { SPEED_EVAPORATION, SPRAY } from "../spray/constants";
import { type Deposit, type GunSettings, type SprayConditions, deposit } from "../spray/deposit";
import type { Ripple } from "../spray/pattern-ripple";
import { FLOW, SPEED_CURE } from "./constants";
import { compositionAfter, dryingTime } from "./drying";
import { type Fluidity, PANELS, emptyFluidity, fluidityInto } from "./fluidity";
import { orchardCorrection } from "./orchard";
import { arrhenius, freeVolumeExponent, freeVolumeOffset, viscosityAt } from "../spray/viscosity";
import { type WaveNumbers, waveNumbers, whiteDensity } from "./wave-numbers";

export interface FlowConditions extends SprayConditions {
  /** Air along the part, m/s. */
  airSpeed_m_s: number;
  /** π/2 vertical, 0 horizontal. */
  tilt_rad: number;
  /** Film at an edge or body line over the film beside it. */
  edge: number;
  /** Texture below the first coat, rms in the two bands. */
  below: { long_m: number; short_m: number };
  /** Shape of the fan across: symmetric Beta(β). */
  fanBeta?: number;
}
export interface FlowCoat {
  gun: GunSettings;
  /** Its own reducer, where it is not that of the conditions. */
  reducer?: number;
  /** Wait after this coat before the next. */
  flash_s: number;
}
/** A shop's own factors on film, levelling and drop noise; 1 until learnt. */
export interface ShopFactors {
  film: number;
  levelling: number;
  noise: number;
}
export const NO_SHOP_FACTORS: ShopFactors = { film: 1, levelling: 1, noise: 1 };

/** A coat with what it softened below, as it begins to dry. */
export interface LaidFilm {
  solids_m: number;
  /** Solvent over solids, by volume. */
  u0: number;
  viscosity0_Pa_s: number;
}

export interface CoatFlow {
  deposit: Deposit;
  film: LaidFilm;
  /** Film that moves: this coat and what it softens below. */
  mobile_m: number;
  /** Share of the coat below that moves with this one. */
  mobileBelow: number;
  landed_Pa_s: number;
  F_1_Pa: number;
  G2: number;
  G3: number;
  /** How far the surface slides, on the flat field and where pattern and edge pile it up. */
  sag_m: number;
  sagLocal_m: number;
  /** Mobile film at which this coat would run. */
  runFilm_m: number;
  /** Longest wave that still levels. */
  levelWavelength_m: number;
  /** Share still mobile when the flash is over. */
  mobileNext: number;
}
export interface FlowResult {
  coats: CoatFlow[];
  dry_m: number;
  rmsShort_m: number;
  rmsLong_m: number;
  slope_rad: number;
  visible_m: number;
  /** 1 glass … 5 heavy; may lie outside. */
  texture: number;
  drySpray: boolean;
  sagLocal_m: number;
  verdict: "safe" | "risk" | "run";
  /** Spectral density of the surface at the nodes, for pictures. */
  spectrum: { k: Float64Array; density: Float64Array };
}

/** Film sag as words: run above 22 mm, risk above 11 mm. */
export function sagVerdict(sagLocal_m: number): FlowResult["verdict"] {
  return sagLocal_m > FLOW.sagRun_m ? "run" : sagLocal_m > FLOW.sagRisk_m ? "risk" : "safe";
}

const FULL_NODES = waveNumbers(16);

export interface FlowOptions {
  shop?: ShopFactors;
  /** Spectrum nodes: 16 a band by default, 8 in a sweep. */
  nodes?: WaveNumbers;
  /** Ripple by overlap, where it is known already. */
  ripple?: ReadonlyMap<number, Ripple>;
  /** The coats before the last, worked out once by {@link layCoats} under the same conditions and nodes. */
  laid?: LaidCoats;
  /** Two fluidities to write into, so that a sweep makes no garbage. */
  scratch?: readonly [Fluidity, Fluidity];
}

/** Coats that lie there already, for a sweep that only changes the next one. */
export interface LaidCoats {
  sources: readonly { amplitude: Float64Array; base: Float64Array }[];
  below: Below | null;
  out: readonly CoatFlow[];
  dry_m: number;
}

/** What earlier coats leave behind for the next. */
interface Below {
  mobile: number;
  solids_m: number;
  u: number;
  phi: number;
}

/** All coats but no finish: what lies there before the coat that a sweep changes. @throws RangeError */
export function layCoats(conditions: FlowConditions, coats: readonly FlowCoat[], options: FlowOptions = {}): LaidCoats {
  return lay(conditions, coats, options, false);
}

/**
 * Coats on top of each other: what each lays down, how it dries, levels, carries the texture of what lies below, and slides
 * (docs/models.md, "Flow"). A port of the reference program without simplification.
 * @param options.nodes spectrum nodes (16 a band by default, 8 in a sweep) @param options.ripple known ripple by overlap
 * @throws RangeError for any figure outside the deposition model's limits
 * @example two coats, 230 ml/min, .34 m/s, 175 mm, 50 %, 28 psi, flash 10 min, 22 °C, upright: dry 55.7 µm, texture 3.45, safe
 */
export function simulateCoats(conditions: FlowConditions, coats: readonly FlowCoat[], options: FlowOptions = {}): FlowResult {
  if (coats.length === 0) throw new RangeError("coats must have at least 1 member, got 0");
  const { shop = NO_SHOP_FACTORS, nodes = FULL_NODES } = options;
  const { k, weight, long } = nodes;
  const { sources, out, dry_m, end } = lay(conditions, coats, options, true);
  const shrinkage = whiteDensity(shop.noise * FLOW.shrinkageShare * end.solids_m * end.u, "short");
  let short2 = 0;
  let long2 = 0;
  let slope2 = 0;
  const density = new Float64Array(k.length);
  for (let i = 0; i < k.length; i++) {
    let sum = long[i] ? 0 : shrinkage;
    for (const source of sources) sum += source.amplitude[i]! ** 2;
    density[i] = sum;
    const share = sum * weight[i]!;
    if (long[i]) long2 += share;
    else short2 += share;
    slope2 += share * k[i]! * k[i]!;
  }
  const visible_m = Math.sqrt(long2 + 9 * short2);
  const sagLocal_m = Math.max(...out.map((c) => c.sagLocal_m));
  return {
    coats: [...out],
    dry_m,
    rmsShort_m: Math.sqrt(short2),
    rmsLong_m: Math.sqrt(long2),
    slope_rad: Math.sqrt(slope2),
    visible_m,
    texture: 1 + Math.log(Math.max(visible_m, 1e-9) / FLOW.textureUnit_m) / Math.log(FLOW.textureStep),
    drySpray: out.at(-1)!.levelWavelength_m < FLOW.drySprayWavelength_m,
    sagLocal_m,
    verdict: sagVerdict(sagLocal_m),
    spectrum: { k, density },
  };
}

/** How fast solvent leaves a film as long as it is wet, and how fast it cures. @throws RangeError */
export function filmRates({ air_K, speed, airSpeed_m_s }: Pick<FlowConditions, "air_K" | "speed" | "airSpeed_m_s">): {
  evaporation_m_s: number;
  cure_1_s: number;
} {
  const along_m_s = requireNumber("airSpeed_m_s", airSpeed_m_s, { above: 0, max: 5 });
  return {
    evaporation_m_s:
      FLOW.evaporation_m_s *
      SPEED_EVAPORATION[speed] *
      arrhenius(FLOW.evaporationEnergy_J_mol, air_K) *
      (along_m_s / FLOW.airSpeedRef_m_s) ** FLOW.airSpeedPower,
    cure_1_s: FLOW.cure_1_s * SPEED_CURE[speed] * arrhenius(FLOW.cureEnergy_J_mol, air_K),
  };
}

function lay(
  conditions: FlowConditions,
  coats: readonly FlowCoat[],
  { shop = NO_SHOP_FACTORS, nodes = FULL_NODES, ripple, laid, scratch = [emptyFluidity(), emptyFluidity()] }: FlowOptions,
  finished: boolean,
): LaidCoats & { end: { solids_m: number; u: number } } {
  const tilt = requireNumber("tilt_rad", conditions.tilt_rad, { min: 0, max: Math.PI });
  const edge = requireNumber("edge", conditions.edge, { min: 0.2, max: 5 });
  requireNumber("below.long_m", conditions.below.long_m, { min: 0, max: 1e-4 });
  requireNumber("below.short_m", conditions.below.short_m, { min: 0, max: 1e-4 });
  for (const key of ["film", "levelling", "noise"] as const) requireNumber(`shop.${key}`, shop[key], { min: 0.05, max: 20 });
  const { air_K: T } = conditions;
  const viscosity = conditions.viscosity22C_Pa_s ?? SPRAY.viscosityRef_Pa_s;
  const { k, long } = nodes;
  // Independent sources of texture: the substrate and each coat's own drops, each with its amplitude and its base below.
  const sources: { amplitude: Float64Array; base: Float64Array }[] = laid
    ? laid.sources.map((l) => ({ amplitude: l.amplitude.slice(), base: l.base.slice() }))
    : [substrateSource(conditions, long)];
  const { evaporation_m_s, cure_1_s } = filmRates(conditions);
  const sprayed = { ...conditions, shopFactor: shop.film };
  const drying = { cure_1_s, evaporation_m_s, temperature_K: T };
  const out: CoatFlow[] = [...(laid?.out ?? [])];
  let below: Below | null = laid?.below ?? null;
  let dry_m = laid?.dry_m ?? 0;
  let end = { solids_m: 0, u: 0 };
  const [full, cut] = scratch;

  coats.forEach((coat, index) => {
    if (index < out.length) return;
    const last = finished && index === coats.length - 1;
    requireNumber("coat.flash_s", coat.flash_s, FLASH_S);
    const reducer = coat.reducer ?? conditions.reducer;
    const d = deposit(coat.gun, { ...sprayed, reducer }, ripple?.get(coat.gun.overlap), conditions.fanBeta);
    const phi = conditions.volumeSolids / (1 + reducer);
    const landed = (1 / phi - 1) * (1 - d.flightLoss);
    const landed_Pa_s =
      (FLOW.filmFactor / shop.levelling) * viscosityAt(landed, T, { viscosity_Pa_s: viscosity, volumeSolids: conditions.volumeSolids });
    let L = d.dry_m;
    let u0 = landed;
    let eta0 = landed_Pa_s;
    const mobileBelow = below?.mobile ?? 0;
    if (below) {
      const m = below.mobile;
      const drunk = Math.min((1 - m) * Math.min(below.solids_m, FLOW.absorbDepth_m) * Math.max(0, u0 - below.u), FLOW.absorbCap * L * u0);
      const together = L + m * below.solids_m;
      const mixed = (L * u0 + m * below.solids_m * below.u - drunk) / together;
      eta0 *= Math.exp(SPRAY.freeVolumeB * (freeVolumeExponent(mixed, T) - freeVolumeExponent(u0, T)));
      L = together;
      u0 = mixed;
      for (const s of sources)
        for (let i = 0; i < k.length; i++) {
          const above = s.amplitude[i]! - s.base[i]!;
          s.base[i] = s.base[i]! + (1 - m) * below.phi * above;
          s.amplitude[i] = s.base[i]! + m * above;
        }
    }
    const landedDrop_m3 = (Math.PI / 6) * d.drop_m ** 3 * Math.exp(6 * FLOW.dropLogSd ** 2) * phi * (1 + landed);
    const spread_m = (FLOW.dropSpread * ((6 * landedDrop_m3) / Math.PI) ** (1 / 3)) / 2;
    sources.push(dropSource(k, spread_m, shop.noise ** 2 * d.wet_m * landedDrop_m3));

    const offset = freeVolumeOffset(T);
    const frozenZ = 1 / (u0 + offset) + Math.max(1e-6, Math.log(FLOW.freeze_Pa_s / eta0)) / SPRAY.freeVolumeB;
    const frozen = Math.min(Math.max(FLOW.leastComposition, 1 / frozenZ - offset), u0 * (1 - 1e-6));
    const tau = L / evaporation_m_s;
    const flashed = last ? frozen : Math.max(compositionAfter(coat.flash_s / tau, u0), 1e-3);
    const film = { solids_m: L, u0, viscosity0_Pa_s: eta0, ...drying };
    fluidityInto(full, { ...film, u1: frozen });
    const flowed = last || flashed <= frozen ? full : fluidityInto(cut, { ...film, u1: Math.min(flashed, u0 * (1 - 1e-6)) });
    level(sources, flowed, k, { tilt, phiSeen: last ? 1 : 1 / (1 + Math.min(flashed, u0)) });

    const sag_m = ((FLOW.density_kg_m3 * FLOW.gravity_m_s2 * Math.sin(tilt)) / 2) * full.G2[PANELS]!;
    const sagLocal_m = sag_m * (d.ripplePeak * edge) ** 3;
    const mobile_m = L * (1 + u0);
    const atFlash = Math.min(flashed, u0);
    const flashEnd_s = tau * dryingTime(atFlash, u0);
    const eta = eta0 * Math.exp(SPRAY.freeVolumeB * (freeVolumeExponent(atFlash, T) - freeVolumeExponent(u0, T)) + cure_1_s * flashEnd_s);
    below = { mobile: 1 / (1 + eta / FLOW.lock_Pa_s), solids_m: L, u: atFlash, phi: 1 / (1 + atFlash) };
    dry_m += d.dry_m;
    end = { solids_m: L, u: frozen };
    out.push({
      deposit: d,
      film: { solids_m: L, u0, viscosity0_Pa_s: eta0 },
      mobile_m,
      mobileBelow,
      landed_Pa_s,
      F_1_Pa: full.F[PANELS]!,
      G2: full.G2[PANELS]!,
      G3: full.G3[PANELS]!,
      sag_m,
      sagLocal_m,
      runFilm_m: sagLocal_m > 0 ? mobile_m * (FLOW.sagRun_m / sagLocal_m) ** (1 / 3) : Infinity,
      levelWavelength_m: 2 * Math.PI * ((FLOW.surfaceTension_N_m * full.G3[PANELS]!) / 3) ** 0.25,
      mobileNext: below.mobile,
    });
  });
  return { sources, below, out, dry_m, end };
}

/** Texture below the first coat, as it was and as it is. */
function substrateSource({ below }: FlowConditions, long: Uint8Array): { amplitude: Float64Array; base: Float64Array } {
  const [inLong, inShort] = [Math.sqrt(whiteDensity(below.long_m, "long")), Math.sqrt(whiteDensity(below.short_m, "short"))];
  const amplitude = Float64Array.from(long, (l) => (l ? inLong : inShort));
  return { amplitude, base: amplitude.slice() };
}

/** Unevenness of one coat's own drops: shot noise of landed drops that have spread. */
function dropSource(k: Float64Array, spread_m: number, white: number): { amplitude: Float64Array; base: Float64Array } {
  const amplitude = new Float64Array(k.length);
  const root = Math.sqrt(white);
  for (let i = 0; i < k.length; i++) amplitude[i] = root * Math.exp(-((k[i]! * spread_m) ** 2) / 8);
  return { amplitude, base: new Float64Array(k.length) };
}

/** e^−40 is below what a double can add to 1. */
const FADED = 40;
/** Below this the series of e^−x to the third power is exact to 5e-14. */
const SMALL = 1e-3;

/** Each source's amplitude after levelling, with what telegraphs through from its base while the film shrinks. */
function level(
  sources: readonly { amplitude: Float64Array; base: Float64Array }[],
  { F, G3, phi }: Fluidity,
  k: Float64Array,
  { tilt, phiSeen }: { tilt: number; phiSeen: number },
): void {
  const G3end = G3[PANELS]!;
  const depth_m = Math.cbrt(G3end / F[PANELS]!);
  const weightDown = FLOW.density_kg_m3 * FLOW.gravity_m_s2 * Math.max(0, Math.cos(tilt));
  const phi0 = phi[0]!;
  const phi1 = phi[PANELS]!;
  for (let i = 0; i < k.length; i++) {
    const kk = k[i]!;
    const rate = ((FLOW.surfaceTension_N_m * kk * kk + weightDown) * kk * kk * orchardCorrection(kk * depth_m)) / 3;
    let telegraph = 0;
    let before = Math.exp(-rate * G3end);
    const left = before;
    for (let j = 1; j <= PANELS; j++) {
      const faded = rate * (G3end - G3[j]!);
      const e = faded > FADED ? 0 : faded < SMALL ? 1 - faded * (1 - faded * (0.5 - faded / 6)) : Math.exp(-faded);
      telegraph += 0.5 * (before + e) * (phi[j]! - phi[j - 1]!);
      before = e;
    }
    for (const s of sources) {
      const y = phi0 * s.amplitude[i]! * left + s.base[i]! * telegraph;
      s.amplitude[i] = (y + (phiSeen - phi1) * s.base[i]!) / phiSeen;
    }
  }
}
