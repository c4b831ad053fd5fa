import { requireNumber } from "#core/guard";
import { type Point, type Polygon, boundingBox, edgeDistance } from "#core/panel/geometry";
import { normals, seededRandom } from "#core/stats/random";

/** What any film gauge, real or not, gives: one total-film reading at a place, or a fault in words. */
export interface FilmGaugePort {
  readonly name: string;
  readonly simulated: boolean;
  read(at: Point): { ok: true; total_m: number } | { ok: false; fault: string };
}

export interface HiddenPanel {
  outline: Polygon;
  /** Mean under-layers and clear of the hidden truth; clear 0 before it is sprayed. */
  under_m: number;
  clear_m: number;
  /** Panel seed: the same panel keeps its unevenness from visit to visit. */
  seed: number;
}

/** The hidden true film at a place: slow waves over the panel and thinning towards the edge. */
export function trueFilm({ outline, under_m, clear_m, seed }: HiddenPanel, at: Point): { under_m: number; clear_m: number } {
  const random = seededRandom(seed);
  const { x0, y0, x1, y1 } = boundingBox(outline);
  const [u, v] = [(at[0] - x0) / (x1 - x0), (at[1] - y0) / (y1 - y0)];
  const wave = (amplitude_m: number) => {
    let sum = 0;
    for (let k = 0; k < 4; k++)
      sum += Math.cos(2 * Math.PI * (u * (0.3 + 0.9 * random()) + v * (0.3 + 0.9 * random()) + random())) * amplitude_m * 0.6;
    return sum;
  };
  const under = under_m + wave(4e-6);
  if (clear_m <= 0) return { under_m: under, clear_m: 0 };
  const edge = -9e-6 * Math.exp(-edgeDistance(at, outline) / 0.03);
  return { under_m: under, clear_m: Math.max(0, clear_m + wave(4e-6) + edge) };
}

/** A simulated magnetic gauge: seeded noise, a little slope error, and now and then a reading that does not settle. */
export function standInGauge(
  panel: HiddenPanel,
  {
    visitSeed,
    noise_m = 1.6e-6,
    slope = 1.006,
    faultEvery = 0,
  }: { visitSeed: number; noise_m?: number; slope?: number; faultEvery?: number },
): FilmGaugePort {
  requireNumber("noise_m", noise_m, { min: 0, max: 1e-3 });
  const normal = normals(seededRandom(visitSeed));
  let count = 0;
  return {
    name: "Stand-in gauge",
    simulated: true,
    read(at) {
      count++;
      if (faultEvery > 0 && count % faultEvery === 0)
        return { ok: false, fault: "The probe did not settle. Hold it flat and press again." };
      const film = trueFilm(panel, at);
      const raw = (film.under_m + film.clear_m) * slope + noise_m * normal();
      return { ok: true, total_m: Math.max(0, Math.round(raw * 1e6) / 1e6) };
    },
  };
}
