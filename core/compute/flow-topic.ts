import { z } from "zod";
import { SUBSTRATE_TEXTURE } from "../models/flow/constants";
import { type FlowResult, simulateCoats } from "../models/flow/simulate-coats";
import { toSi } from "../kernel/units/convert";
import { op, opsTable } from "./op";

const num = z.number();
const env = z.object({
  phi_s: num.default(0.475),
  eta_mPas: num.nullable().default(null),
  reducer: num.default(0),
  T_mat: num.nullable().default(null),
  T_C: num.default(22),
  v_air: num.default(0.3),
  speed: z.enum(["fast", "medium", "slow"]).default("medium"),
  alpha_deg: num.default(90),
  beta: num.default(2),
  edge: num.default(1),
  substrate: z
    .object({ rms_long_m: num, rms_short_m: num })
    .default({ rms_long_m: SUBSTRATE_TEXTURE.basecoat.long_m, rms_short_m: SUBSTRATE_TEXTURE.basecoat.short_m }),
});
const coat = z.object({
  Q_mLmin: num.default(230),
  v: num.default(0.34),
  d_cm: num.default(17.5),
  overlap: num.default(0.5),
  psi: num.default(28),
  flash_min: num.default(10),
});
const flowInput = z.object({ env: env.prefault({}), coats: z.array(coat).min(1).max(20) });

const um = (x: number) => x * 1e6;
const mm = (x: number) => x * 1e3;
const outputOf = (r: FlowResult) => ({
  dry_um: um(r.dry_m),
  verdict: r.verdict,
  sag_local_max_mm: mm(r.sagLocal_m),
  sag_nominal_max_mm: mm(Math.max(...r.coats.map((c) => c.sag_m))),
  rms_short_um: um(r.rmsShort_m),
  rms_long_um: um(r.rmsLong_m),
  slope_mrad: r.slope_rad * 1e3,
  A_vis_um: um(r.visible_m),
  rating: r.texture,
  dry_spray: r.drySpray,
  coats: r.coats.map((c) => ({
    wet_applied_um: um(c.deposit.applied_m),
    wet_landed_um: um(c.deposit.wet_m),
    mobile_um: um(c.mobile_m),
    solids_um: um(c.deposit.dry_m),
    D32_um: um(c.deposit.drop_m),
    TE: c.deposit.transfer,
    flight_loss: c.deposit.flightLoss,
    eta_land_Pas: c.landed_Pa_s,
    m_prev: c.mobileBelow,
    F_per_Pa: c.F_1_Pa,
    G2: c.G2,
    G3: c.G3,
    sag_mm: mm(c.sag_m),
    sag_local_mm: mm(c.sagLocal_m),
    h_run_um: um(c.runFilm_m),
    lambda_c_mm: mm(c.levelWavelength_m),
    ripple_cv: c.deposit.rippleCv,
    peak: c.deposit.ripplePeak,
  })),
});

/** One scenario: conditions and coats in the units of the case file (°C, ml/min, cm, psi, min); every id is answered. */
const scenario = op(flowInput, ({ env: e, coats }) =>
  outputOf(
    simulateCoats(
      {
        air_K: e.T_C + 273.15,
        material_K: e.T_mat === null ? null : e.T_mat + 273.15,
        speed: e.speed,
        volumeSolids: e.phi_s,
        reducer: e.reducer,
        viscosity22C_Pa_s: e.eta_mPas === null ? null : e.eta_mPas * 1e-3,
        airSpeed_m_s: e.v_air,
        tilt_rad: (e.alpha_deg * Math.PI) / 180,
        edge: e.edge,
        below: { long_m: e.substrate.rms_long_m, short_m: e.substrate.rms_short_m },
        fanBeta: e.beta,
      },
      coats.map((c) => ({
        gun: {
          fluidRate_m3_s: toSi("fluidRate", c.Q_mLmin, "ml/min"),
          pressure_Pa: toSi("pressure", c.psi, "psi"),
          distance_m: c.d_cm / 100,
          overlap: c.overlap,
          handSpeed_m_s: c.v,
        },
        flash_s: c.flash_min * 60,
      })),
    ),
  ),
);
export const FLOW_OPS = opsTable({ "": scenario });

/** The flow reference file keeps its scenarios by name: as a list of cases. */
export function flowCases(json: unknown): unknown {
  const file = z.looseObject({ scenarios: z.record(z.string(), z.looseObject({ input: z.unknown() })) }).safeParse(json);
  return file.success ? Object.entries(file.data.scenarios).map(([id, s]) => ({ id, input: s.input })) : json;
}
