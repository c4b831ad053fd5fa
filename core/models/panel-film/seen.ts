import { requireInteger, requireNumber } from "../../kernel/guard";
import { normals, seededRandom } from "../../kernel/stats/random";
import { type ByFilm, byFilm } from "./by-film";
import { type PanelFilm, dryFilm, mobileShare } from "./panel-film";

/** Red, green and blue, 0 to 255. */
export type Rgb = readonly [number, number, number];

/** How a sprayed panel is looked at. */
export interface Look {
  /** What lies below the clear, dull; the same below a film; the light. */
  bare: Rgb;
  coated: Rgb;
  wet: Rgb;
  light: Rgb;
  /** Film colours instead of light: dark is thin, up to `most_m`; null: light tubes. */
  ramp: { colours: readonly Rgb[]; most_m: number } | null;
  /** Where the tubes' reflections lie, as shares of the panel's height; a tube leans by so much of its length. */
  tubes: readonly number[];
  lean: number;
  /** The tubes stand upright: their places are shares of the width. */
  upright?: boolean;
  /** Looked at along the panel, slopes turn the light so many times as far. */
  grazing?: number;
  /** The surface of what has set, rms slope, of each coat, the first first: by its film over the one planned up to it and its own wait. @see planned_m */
  setSlope: readonly ByFilm[];
  /** Film planned up to each coat, the first first; where none is, all is as planned. */
  planned_m: readonly number[];
}

export interface SeenPicture {
  width: number;
  height: number;
  rgba: Uint8ClampedArray<ArrayBuffer>;
}

/** From the panel to the tube, and half the height of a tube's reflection. Defaults of ours. */
const TUBE = { distance_m: 0.9, half_m: 0.02, edge_m: 0.006 } as const;
/** Below `dull_m` a film shines no more than its base; from `gloss_m` on it is closed. Common practice: a film that has not closed is dull. */
const CLOSED = { dull_m: 3e-6, gloss_m: 14e-6 } as const;
/** Slope of drops that have not joined: at the first, and the wet film over which they do. Defaults of ours, for the eye. */
const DROPS = { slope: 0.012, joins_m: 16e-6 } as const;
/** Square of noise, once made: a surface's fine and coarse waves. */
const NOISE = 128;
const MOST_PIXELS = 400_000;
const { abs, exp, floor, max, min } = Math;

let noise: Float32Array | null = null;
/** Waves about 2 and 8 pixels long, of rms 1. */
function waves(): Float32Array {
  if (noise) return noise;
  const white = normals(seededRandom(27));
  const raw = Float32Array.from({ length: NOISE * NOISE }, white);
  const at = (i: number, j: number) => raw[((j + NOISE) % NOISE) * NOISE + ((i + NOISE) % NOISE)]!;
  const made = raw.map((_, c) => {
    const [i, j] = [c % NOISE, floor(c / NOISE)];
    let coarse = 0;
    for (let b = -3; b <= 3; b++) for (let a = -3; a <= 3; a++) coarse += at(i + a, j + b);
    return 0.45 * (at(i, j) + at(i + 1, j)) + 0.14 * coarse;
  });
  const rms = Math.sqrt(made.reduce((sum, v) => sum + v * v, 0) / made.length);
  noise = made.map((v) => v / rms);
  return noise;
}

/** For each cell the nearest on the part, so that a picture that is cut by the outline goes on to it; worked out once a panel. */
const nearestOf = new WeakMap<Uint8Array, Int32Array>();
function nearestOn({ inside, columns }: PanelFilm): Int32Array {
  const known = nearestOf.get(inside);
  if (known) return known;
  const near = Int32Array.from(inside, (on, c) => (on === 1 ? c : -1));
  let front = Array.from(near).filter((c) => c >= 0);
  while (front.length > 0) {
    const next: number[] = [];
    for (const c of front) {
      const i = c % columns;
      for (const d of [i > 0 ? c - 1 : -1, i + 1 < columns ? c + 1 : -1, c - columns, c + columns])
        if (d >= 0 && d < near.length && near[d] === -1) {
          near[d] = near[c]!;
          next.push(d);
        }
    }
    front = next;
  }
  nearestOf.set(inside, near);
  return near;
}

/** What a cell looks like, whatever stands before it: slope down it (or across), roughness, colour under the light, and how much of the light it gives back. */
interface Surface {
  slope: Float32Array;
  rough: Float32Array;
  shine: Float32Array;
  under: Float32Array;
}

function surfaceOf(film: PanelFilm, look: Look, near: Int32Array): Surface {
  const { columns, cell_m, solids_m, solvent_m, fixed_m, still, wait_s } = film;
  const n = solids_m.length;
  const [slope, rough, shine, under] = [new Float32Array(n), new Float32Array(n), new Float32Array(n), new Float32Array(3 * n)];
  const depth = (c: number) => solids_m[c]! + solvent_m[c]! + fixed_m[c]!;
  const step = look.upright ? 1 : columns;
  const slopes = look.setSlope.map(byFilm);
  for (let at = 0; at < n; at++) {
    const c = near[at]!;
    const s = solids_m[c]!;
    const w = solvent_m[c]!;
    const h = s + w + fixed_m[c]!;
    const next = c + step;
    const onRow = !look.upright || next % columns !== 0;
    slope[at] = onRow && next < n && near[next] === next ? (depth(next) - h) / cell_m : 0;
    const wet = s > 1e-9 && still[c] === 0 ? mobileShare(film, c) : 0;
    const coat = film.coat[c]!;
    const closed = min(1, max(0, (h - CLOSED.dull_m) / (CLOSED.gloss_m - CLOSED.dull_m)));
    rough[at] =
      wet * DROPS.slope * exp(-(s + w) / DROPS.joins_m) +
      (wet < 1 && coat > 0
        ? (1 - wet) * slopes[min(coat, slopes.length) - 1]!(dryFilm(film, c) / (look.planned_m[coat - 1] ?? dryFilm(film, c)), wait_s[c]!)
        : 0);
    shine[at] = 0.07 * (1 - closed) + closed * (0.78 + 0.22 * wet);
    for (let k = 0; k < 3; k++)
      under[3 * at + k] = look.bare[k]! + closed * (look.coated[k]! - look.bare[k]! + wet * (look.wet[k]! - look.coated[k]!));
  }
  return { slope, rough, shine, under };
}

/**
 * A panel as an eye or a film map shows it: light tubes in its surface, displaced by its slopes, wet parts clear and dark, what has set with its texture,
 * what has not closed dull. The whole box of cells: beside the part it goes on as its edge is.
 * @param scale pixels to a cell @throws RangeError for a picture too large
 */
export function seenPanel(film: PanelFilm, look: Look, scale: number): SeenPicture {
  requireInteger("scale", scale, { min: 1, max: 8 });
  requireInteger("setSlope", look.setSlope.length, { min: 1, max: 1000 });
  const { columns, rows } = film;
  const width = columns * scale;
  const height = rows * scale;
  requireInteger("pixels", width * height, { max: MOST_PIXELS });
  const rgba = new Uint8ClampedArray(width * height * 4);
  const near = nearestOn(film);
  if (look.ramp) inRamp(rgba, film, look.ramp, { near, scale });
  else inLight(rgba, film, look, { near, scale });
  return { width, height, rgba };
}

interface Drawn {
  near: Int32Array;
  scale: number;
}

/** Light tubes in the surface: each pixel shows what its slope and its waves turn towards the eye. */
function inLight(rgba: Uint8ClampedArray, film: PanelFilm, look: Look, { near, scale }: Drawn): void {
  const { columns, rows, cell_m } = film;
  const { slope, rough, shine, under } = surfaceOf(film, look, near);
  const tile = waves();
  const { upright = false, grazing = 1 } = look;
  const tubes = look.tubes.map((t) => t * (upright ? columns : rows) * cell_m);
  const [lightR, lightG, lightB] = look.light;
  const reach = 2 * TUBE.distance_m * requireNumber("grazing", grazing, { min: 1, max: 10 });
  const width = columns * scale;
  for (let py = 0; py < rows * scale; py++) {
    const j = floor(py / scale);
    const y_m = ((py + 0.5) / scale) * cell_m;
    const waveRow = (py % NOISE) * NOISE;
    for (let px = 0; px < width; px++) {
      const i = floor(px / scale);
      const c = j * columns + i;
      // Between the middles of two cells the slope goes over from one to the other.
      const t = (px + 0.5) / scale - 0.5 - i;
      const beside = t < 0 ? (i > 0 ? c - 1 : c) : i + 1 < columns ? c + 1 : c;
      const tilt = slope[c]! + abs(t) * (slope[beside]! - slope[c]!);
      const x_m = ((px + 0.5) / scale) * cell_m;
      const turned = reach * (tilt + rough[c]! * tile[waveRow + (px % NOISE)]!);
      const v = turned + (upright ? x_m + look.lean * y_m : y_m + look.lean * x_m);
      let light = 0;
      for (let k = 0; k < tubes.length; k++) light = max(light, (TUBE.half_m - abs(v - tubes[k]!)) / TUBE.edge_m + 0.5);
      light = min(1, light) * shine[c]!;
      const at = (py * width + px) * 4;
      rgba[at] = under[3 * c]! + light * (lightR - under[3 * c]!);
      rgba[at + 1] = under[3 * c + 1]! + light * (lightG - under[3 * c + 1]!);
      rgba[at + 2] = under[3 * c + 2]! + light * (lightB - under[3 * c + 2]!);
      rgba[at + 3] = 255;
    }
  }
}

/** Film in colours, dry: what it will be when every solvent has gone. */
function inRamp(rgba: Uint8ClampedArray, film: PanelFilm, { colours, most_m }: NonNullable<Look["ramp"]>, { near, scale }: Drawn): void {
  const width = film.columns * scale;
  for (let py = 0; py < film.rows * scale; py++)
    for (let px = 0; px < width; px++) {
      const c = near[floor(py / scale) * film.columns + floor(px / scale)]!;
      const where = (dryFilm(film, c) / most_m) * (colours.length - 1);
      const k = min(colours.length - 2, max(0, floor(where)));
      const t = min(1, max(0, where - k));
      const at = (py * width + px) * 4;
      for (let n = 0; n < 3; n++) rgba[at + n] = colours[k]![n]! * (1 - t) + colours[k + 1]![n]! * t;
      rgba[at + 3] = 255;
    }
}
