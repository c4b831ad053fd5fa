import { requireNumber } from "../../kernel/guard";
import { CLIMATE_BOUNDS, GUN_BOUNDS, requireWithin } from "../bounds";
import { type ActivatorSpeed, SPEED_EVAPORATION, SPRAY } from "./constants";
import { arrhenius, freeVolumeExponent } from "./viscosity";
import { type Ripple, patternRipple } from "./pattern-ripple";

export interface GunSettings {
  /** Liquid through the nozzle, m³/s. */
  fluidRate_m3_s: number;
  /** Air pressure at the gun, trigger pulled, Pa. */
  pressure_Pa: number;
  distance_m: number;
  /** Share of the fan covered again by the next pass, 0 ≤ overlap < 1. */
  overlap: number;
  handSpeed_m_s: number;
  /** Measured fan at this distance; without it the model's fan is used. */
  fan_m?: number | null | undefined;
}

export interface SprayConditions {
  air_K: number;
  material_K?: number | null | undefined;
  speed: ActivatorSpeed;
  /** Solids by volume of the activated mix before reducer. */
  volumeSolids: number;
  /** Added reducer as a share of the activated mix. */
  reducer: number;
  viscosity22C_Pa_s?: number | null | undefined;
  /** Shop's own factor on the film laid down (1 until learnt). */
  shopFactor?: number | undefined;
  /** Log-sd that is left once the factor is learnt. */
  shopLogSd?: number | undefined;
}

export interface Deposit {
  drop_m: number;
  transfer: number;
  fan_m: number;
  flightLoss: number;
  /** Liquid that reaches the panel at gun composition, as a film. */
  applied_m: number;
  /** Film as it lies when it has landed. */
  wet_m: number;
  /** Film when every solvent has gone. */
  dry_m: number;
  /** Standard uncertainty of `dry_m` before this shop has calibrated the model. */
  u_dry_m: number;
  rippleCv: number;
  ripplePeak: number;
}

/** A thinner material than this is torn no finer at the air cap either [C]. */
const FINER_DOWN_TO_PA_S = 0.03;
/** Up to so much more reducer the drop gets finer; beyond it the air cap decides. Set so that over-reduction runs, as practice has it [C]. */
const FINER_UP_TO = 0.1;

/** Width of the fan: as it was seen, else as it opens with the distance. */
export const fanOf = ({ fan_m, distance_m }: Pick<GunSettings, "fan_m" | "distance_m">): number =>
  fan_m ?? (SPRAY.fanRef_m * distance_m) / SPRAY.distanceRef_m;

/** What leaves the gun and reaches the panel, whatever the hand does. */
export interface SprayCone extends Pick<Deposit, "drop_m" | "transfer" | "fan_m" | "flightLoss"> {
  /** Solids by volume of what is in the gun. */
  volumeSolids: number;
  /** Solvent over solids by volume, in the gun and as it lands. */
  composition: number;
  landedComposition: number;
}

/**
 * Drop size, transfer efficiency, width of the fan and loss in flight (docs/models.md, "Deposition").
 * @throws RangeError for any figure outside the model's limits or not finite.
 */
export function sprayCone(gun: Omit<GunSettings, "overlap" | "handSpeed_m_s">, conditions: SprayConditions): SprayCone {
  const q = requireWithin(GUN_BOUNDS, "fluidRate_m3_s", gun.fluidRate_m3_s);
  const p = requireWithin(GUN_BOUNDS, "pressure_Pa", gun.pressure_Pa);
  const d = requireWithin(GUN_BOUNDS, "distance_m", gun.distance_m);
  const air = requireWithin(CLIMATE_BOUNDS, "air_K", conditions.air_K);
  const material = requireWithin(CLIMATE_BOUNDS, "material_K", conditions.material_K ?? air);
  const solids = requireNumber("volumeSolids", conditions.volumeSolids, { min: 0.05, max: 0.95 });
  const reducer = requireWithin(GUN_BOUNDS, "reducer", conditions.reducer);
  const viscosity = requireNumber("viscosity22C_Pa_s", conditions.viscosity22C_Pa_s ?? SPRAY.viscosityRef_Pa_s, { min: 0.005, max: 1 });

  const phi = solids / (1 + reducer);
  const u = 1 / phi - 1;
  const reference = freeVolumeExponent(1 / solids - 1, SPRAY.temperatureRef_K);
  const uDrop = (1 + Math.min(reducer, FINER_UP_TO)) / solids - 1;
  const viscosityAtGun =
    Math.max(FINER_DOWN_TO_PA_S, viscosity) * Math.exp(SPRAY.freeVolumeB * (freeVolumeExponent(uDrop, material) - reference));
  const drop_m =
    SPRAY.dropRef_m *
    (q / SPRAY.fluidRateRef_m3_s) ** SPRAY.dropFluidPower *
    (p / SPRAY.pressureRef_Pa) ** -SPRAY.dropPressurePower *
    (viscosityAtGun / SPRAY.viscosityRef_Pa_s) ** SPRAY.dropViscosityPower;
  const transferFree =
    SPRAY.transferRef *
    Math.exp(-SPRAY.transferPerDistance_1_m * (d - SPRAY.distanceRef_m)) *
    (p / SPRAY.pressureRef_Pa) ** -SPRAY.transferPressurePower;
  const lost =
    SPRAY.flightLoss *
    SPEED_EVAPORATION[conditions.speed] *
    (d / SPRAY.distanceRef_m) ** SPRAY.flightDistancePower *
    (SPRAY.dropRef_m / drop_m) ** SPRAY.flightDropPower *
    arrhenius(SPRAY.flightEnergy_J_mol, air);
  const flightLoss = 1 - Math.exp(-Math.min(lost, SPRAY.flightLossCap));
  return {
    drop_m,
    transfer: Math.min(SPRAY.transferMax, Math.max(SPRAY.transferMin, transferFree)),
    fan_m: requireWithin(GUN_BOUNDS, "fan_m", fanOf(gun)),
    flightLoss,
    volumeSolids: phi,
    composition: u,
    landedComposition: u * (1 - flightLoss),
  };
}

/**
 * Film one coat lays down: drop size, transfer efficiency, loss in flight, wet and dry film (docs/models.md, "Deposition").
 * Valid near hand-gun practice: 60–900 ml/min, 0.7–4 bar, 80–350 mm, 5–45 °C.
 * @param known the ripple of this overlap, when a sweep has worked it out already @param fanBeta shape of the fan across, Beta(β)
 * @throws RangeError for any figure outside those limits or not finite.
 * @example deposit(230 ml/min, 28 psi, 175 mm, 50 %, 0.34 m/s; 22 °C, 47.5 % solids).dry_m // 27.85e-6
 */
export function deposit(gun: GunSettings, conditions: SprayConditions, known?: Ripple, fanBeta = 2): Deposit {
  const { drop_m, transfer, fan_m, flightLoss, volumeSolids, landedComposition } = sprayCone(gun, conditions);
  const overlap = requireWithin(GUN_BOUNDS, "overlap", gun.overlap);
  const v = requireWithin(GUN_BOUNDS, "handSpeed_m_s", gun.handSpeed_m_s);
  const shop = requireNumber("shopFactor", conditions.shopFactor ?? 1, { min: 0.1, max: 10 });
  const applied_m = (shop * gun.fluidRate_m3_s * transfer) / (v * fan_m * (1 - overlap));
  const dry_m = volumeSolids * applied_m;
  const ripple = known ?? patternRipple(overlap, fanBeta);
  return {
    drop_m,
    transfer,
    fan_m,
    flightLoss,
    applied_m,
    wet_m: dry_m * (1 + landedComposition),
    dry_m,
    u_dry_m: dry_m * Math.hypot(conditions.shopLogSd ?? SPRAY.shopLogSd, SPRAY.coatLogSd),
    rippleCv: ripple.cv,
    ripplePeak: ripple.peak,
  };
}
