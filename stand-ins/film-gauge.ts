import { requireNumber } from "#core/kernel/guard";
import { type Point, type Polygon, boundingBox, edgeDistance, lineDistances } from "#core/kernel/geometry/geometry";
import { normals, seededRandom } from "#core/kernel/stats/random";

/** What any film gauge, real or not, gives: one total-film reading at a place, or a fault in words. */
export interface FilmGaugePort {
  readonly name: string;
  readonly simulated: boolean;
  read(at: Point): GaugeAnswer;
  /** What it shows on bare metal (which may be below zero) and on a foil laid on it. */
  readFoil(foil_m: number): GaugeAnswer;
}
export type GaugeAnswer = { ok: true; total_m: number } | { ok: false; fault: string };

export interface HiddenPanel {
  outline: Polygon;
  /** Mean under-layers and clear of the hidden truth; clear 0 before it is sprayed. */
  under_m: number;
  clear_m: number;
  /** Panel seed: the same panel keeps its unevenness from visit to visit. */
  seed: number;
  /** Height of the slow waves of either, thinning at the edge, and over body lines. */
  wave_m?: number;
  edge_m?: number;
  bodyLines?: readonly (readonly Point[])[];
  line_m?: number;
}

/** The hidden true film at a place: slow waves over the panel and thinning towards the edge. */
export function trueFilm(panel: HiddenPanel, at: Point): { under_m: number; clear_m: number } {
  const { outline, under_m, clear_m, seed, wave_m = 4e-6, edge_m = -9e-6, bodyLines = [], line_m = 0 } = panel;
  const random = seededRandom(seed);
  const { x0, y0, x1, y1 } = boundingBox(outline);
  const [u, v] = [(at[0] - x0) / (x1 - x0), (at[1] - y0) / (y1 - y0)];
  const wave = (amplitude_m: number) => {
    let sum = 0;
    for (let k = 0; k < 4; k++)
      sum += Math.cos(2 * Math.PI * (u * (0.3 + 0.9 * random()) + v * (0.3 + 0.9 * random()) + random())) * amplitude_m * 0.6;
    return sum;
  };
  const under = under_m + wave(wave_m);
  if (clear_m <= 0) return { under_m: under, clear_m: 0 };
  const edge = edge_m * Math.exp(-edgeDistance(at, outline) / 0.03);
  const line = bodyLines.length ? line_m * Math.exp(-lineDistances([at], bodyLines)[0]! / 0.01) : 0;
  return { under_m: under, clear_m: Math.max(0, clear_m + wave(wave_m) + edge + line) };
}

/** A simulated magnetic gauge: seeded noise, a little slope error, and now and then a reading that does not settle. */
export function standInGauge(
  panel: HiddenPanel,
  {
    visitSeed,
    noise_m = 1.6e-6,
    slope = 1.006,
    offset_m = 0,
    drift_m = 0,
    substrate_m = 0,
    faultEvery = 0,
  }: {
    visitSeed: number;
    noise_m?: number;
    slope?: number;
    /** Error at zero, what it wanders off each hundred readings, and what another steel below adds on the panel but not on the zero plate. */
    offset_m?: number;
    drift_m?: number;
    substrate_m?: number;
    faultEvery?: number;
  },
): FilmGaugePort {
  requireNumber("noise_m", noise_m, { min: 0, max: 1e-3 });
  const normal = normals(seededRandom(visitSeed));
  let count = 0;
  const shown = (film_m: number) => Math.round((film_m * slope + offset_m + (drift_m * count) / 100 + noise_m * normal()) * 1e6) / 1e6;
  return {
    name: "Stand-in gauge",
    simulated: true,
    read(at) {
      count++;
      if (faultEvery > 0 && count % faultEvery === 0)
        return { ok: false, fault: "The probe did not settle. Hold it flat and press again." };
      const film = trueFilm(panel, at);
      return { ok: true, total_m: Math.max(0, shown(film.under_m + film.clear_m + substrate_m)) };
    },
    readFoil(foil_m) {
      count++;
      return { ok: true, total_m: shown(requireNumber("foil_m", foil_m, { min: 0, max: 5e-3 })) };
    },
  };
}
