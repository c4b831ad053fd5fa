import { seededRandom } from "../../../kernel/stats/random";
import { normalCdf } from "../../../kernel/stats/normal";
import { FLOW } from "../constants";
import type { RunLog } from "../run-calibration";
import { sagAtEdge } from "../run-chance";

/** Spread of shops' borders about the model's, and how uneven their painters are, in logarithms of sag: what nobody knows. */
const SHIFT = 0.6;
const WIDTH = [0.45, 1.25] as const;
/** Coats as painters lay them, about a third of the border, in logarithms. */
const USUAL = { mean: -1, sd: 0.9 } as const;

/** A simulated shop whose border for a run lies elsewhere than the model's, with painters of its own unevenness. */
export function hiddenShop(seed: number): { coat: () => RunLog } {
  const random = seededRandom(7919 * seed);
  const gauss = () => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
  const shift = SHIFT * gauss();
  const width = WIDTH[0] + (WIDTH[1] - WIDTH[0]) * random();
  return {
    coat: () => {
      const ratio = USUAL.mean + USUAL.sd * gauss();
      return { sagLocal_m: (FLOW.sagRun_m * Math.exp(ratio)) / sagAtEdge(1), ran: random() < normalCdf((ratio + shift) / width) };
    },
  };
}
