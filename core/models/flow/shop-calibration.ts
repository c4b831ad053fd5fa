import { requireNumber } from "../../kernel/guard";
import { median } from "../../kernel/stats/summary";
import { FLOW } from "./constants";

/** Spread of one observation and of shops around the model, in logarithms; defaults of ours. */
const FILM = { observation: 0.1, prior: 0.3, trim: 0.3 } as const;
const RUN = { slope: 0.35, prior: 0.5, most: 1.4 } as const;
const TEXTURE = { observation: 0.6, prior: 0.4, trim: 0.5 } as const;
/** Fewer panels than this say nothing yet. */
export const LOGS_LEAST = { film: 6, texture: 8, runs: 20, runsSeen: 3 } as const;

export interface Learnt {
  factor: number;
  /** Standard uncertainty of ln(factor). */
  u_log: number;
  n: number;
  enough: boolean;
  words: string;
}

const nothing = (n: number, u_log: number, words: string): Learnt => ({ factor: 1, u_log, n, enough: false, words });

/** Log ratios pulled in to within `trim` of their median, so that one wrong log cannot steer the shop. */
function winsorised(ratios: readonly number[], trim: number): number[] {
  const middle = median(ratios);
  return ratios.map((r) => Math.min(middle + trim, Math.max(middle - trim, r)));
}

/**
 * Factor on the film laid down: c_h = exp[Σr/(n + (0.10/0.30)²)], r = ln(measured/predicted dry film).
 * @throws RangeError for films that are not above zero
 */
export function learnFilm(logs: readonly { measured_m: number; predicted_m: number }[]): Learnt {
  const shrink = (FILM.observation / FILM.prior) ** 2;
  const u_log = FILM.observation / Math.sqrt(logs.length + shrink);
  const ratios = logs.map((l, i) =>
    Math.log(
      requireNumber(`logs[${i}].measured_m`, l.measured_m, { above: 0 }) /
        requireNumber(`logs[${i}].predicted_m`, l.predicted_m, { above: 0 }),
    ),
  );
  if (logs.length < LOGS_LEAST.film) return nothing(logs.length, u_log, `not enough yet: ${logs.length} of ${LOGS_LEAST.film} panels`);
  const sum = winsorised(ratios, FILM.trim).reduce((a, r) => a + r, 0);
  const factor = Math.exp(sum / (logs.length + shrink));
  return {
    factor,
    u_log,
    n: logs.length,
    enough: true,
    words:
      factor > 1.03 ? "this shop lays more than the model" : factor < 0.97 ? "this shop lays less than the model" : "as the model says",
  };
}

/**
 * Factor on levelling and sag from which panels ran: c_F = e^θ that makes the seen runs most likely, logistic in ln(sag/22 mm) with slope
 * 0.35, θ ~ N(0, 0.5²), |θ| ≤ 1.4. `sag_m` is the sag at factor 1; simulate again with the answer and repeat three times, as sag is only
 * nearly proportional.
 * @throws RangeError
 */
export function learnRuns(logs: readonly { sag_m: number; ran: boolean }[]): Learnt {
  const z = logs.map((l, i) => Math.log(requireNumber(`logs[${i}].sag_m`, l.sag_m, { above: 0 }) / FLOW.sagRun_m));
  let theta = 0;
  let curvature = 1 / RUN.prior ** 2;
  for (let step = 0; step < 60; step++) {
    let slope = theta / RUN.prior ** 2;
    curvature = 1 / RUN.prior ** 2;
    z.forEach((zi, i) => {
      const q = 1 / (1 + Math.exp(-(zi + theta) / RUN.slope));
      slope += (q - (logs[i]!.ran ? 1 : 0)) / RUN.slope;
      curvature += (q * (1 - q)) / RUN.slope ** 2;
    });
    const move = Math.min(0.5, Math.max(-0.5, slope / curvature));
    theta -= move;
    if (Math.abs(move) < 1e-10) break;
  }
  const ran = logs.filter((l) => l.ran).length;
  const u_log = 1 / Math.sqrt(curvature);
  if (logs.length < LOGS_LEAST.runs || ran < LOGS_LEAST.runsSeen)
    return nothing(
      logs.length,
      u_log,
      `not enough yet: ${logs.length} of ${LOGS_LEAST.runs} panels, ${ran} of ${LOGS_LEAST.runsSeen} with a run`,
    );
  return {
    factor: Math.exp(Math.min(RUN.most, Math.max(-RUN.most, theta))),
    u_log,
    n: logs.length,
    enough: true,
    words:
      theta > 0.1
        ? "it runs sooner here than the model says"
        : theta < -0.1
          ? "it runs later here than the model says"
          : "as the model says",
  };
}

/**
 * Factor on the drops' noise from texture ratings 1…5: c_a = exp[Σr/(n + (0.6·ln 1.7/0.4)²)], r = ln 1.7·(rated − predicted, kept in 1…5).
 * @throws RangeError for a rating outside 1…5
 */
export function learnTexture(logs: readonly { rated: number; predicted: number }[]): Learnt {
  const unit = Math.log(FLOW.textureStep);
  const shrink = ((unit * TEXTURE.observation) / TEXTURE.prior) ** 2;
  const u_log = (unit * TEXTURE.observation) / Math.sqrt(logs.length + shrink);
  const ratios = logs.map(
    (l, i) =>
      unit *
      (requireNumber(`logs[${i}].rated`, l.rated, { min: 1, max: 5 }) -
        Math.min(5, Math.max(1, requireNumber(`logs[${i}].predicted`, l.predicted)))),
  );
  if (logs.length < LOGS_LEAST.texture)
    return nothing(logs.length, u_log, `not enough yet: ${logs.length} of ${LOGS_LEAST.texture} ratings`);
  const sum = winsorised(ratios, TEXTURE.trim).reduce((a, r) => a + r, 0);
  return { factor: Math.exp(sum / (logs.length + shrink)), u_log, n: logs.length, enough: true, words: "texture against the model" };
}
