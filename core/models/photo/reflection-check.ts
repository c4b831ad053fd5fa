import { requireNumber } from "../../kernel/guard";
import { normalQuantile } from "../../kernel/stats/normal";
import { type Picture, blurred, blurredLine, shareOf } from "./picture";

export interface ReflectionSetup {
  /** Width of the tube, and its distance from the panel; the camera's distance from the panel. */
  tube_m: number;
  light_m: number;
  camera_m: number;
}
export interface ReflectionReading {
  /** Slope of the surface across the tube, rms over waves of 1.2 to 12 mm, rad: in the picture's own trace, for ratios between two panels. */
  long_rad: number;
  /** Panel seen along the tube, and size of a pixel on it. */
  length_m: number;
  scale_m_px: number;
  /** Share of columns whose edge folds over itself. */
  folds: number;
  tubeWidth_px: number;
}
export type ReflectionAnswer = { ok: true; reading: ReflectionReading } | { ok: false; reason: string };

/** Bands and guards; ISO 16610-21 Gaussian cut-offs, the rest defaults of ours. */
const ALPHA = Math.sqrt(Math.LN2 / Math.PI);
const LONG_M = [1.2e-3, 12e-3] as const;
const OPTICS_PX = 0.85;
const LEAST_LENGTH_M = 0.12;
const CLIPPED = 0.985;
const LEAST_TUBE_PX = 24;
const MOST_FOLDS = 0.35;
/** A change of ratio beyond this is a difference: sd 11 to 14 % from one photograph each. */
export const RATIO_DIFFERS = 0.3;
const RATIO_SD = 0.125;

/**
 * Waviness of a glossy surface from the photograph of a straight light tube reflected in it: where the edge of the tube is blurred over a few
 * pixels, the light along a row near that edge goes up and down with the slope of the surface. Its autocovariance C gives that of the slope by
 * (kσ_T)²·sin 2πC, the blurred-edge form of the arcsine law (Van Vleck & Middleton 1966, from memory); the spectrum of that, freed of the optics'
 * own blur, gives the band. All evidence is synthetic: check against your eye.
 * @throws RangeError for a set-up out of range
 */
export function readReflection(picture: Picture, setup: ReflectionSetup): ReflectionAnswer {
  const tube = requireNumber("tube_m", setup.tube_m, { above: 0, max: 0.3 });
  const light = requireNumber("light_m", setup.light_m, { above: 0.05, max: 10 });
  const camera = requireNumber("camera_m", setup.camera_m, { above: 0.05, max: 10 });
  const found = findTube(picture);
  if (typeof found === "string") return { ok: false, reason: found };
  const strip = resample(picture, found);
  const scale_m_px = (tube * camera) / ((camera + light) * strip.width_px);
  const length_m = strip.columns * scale_m_px;
  if (length_m < LEAST_LENGTH_M)
    return {
      ok: false,
      reason: `Only ${Math.round(1000 * length_m)} mm of panel is seen; at least ${1000 * LEAST_LENGTH_M} mm are needed`,
    };
  const edges = ([-1, 1] as const).map((side) => edgeOf(strip, side));
  const folds = (edges[0]!.folds + edges[1]!.folds) / 2;
  if (folds > MOST_FOLDS) return { ok: false, reason: "The tube's edge breaks up: too rough for this check, or out of focus" };
  const perPixel = tube / (2 * light * strip.width_px);
  const lags = Math.min(Math.floor(strip.columns / 3), Math.floor(24e-3 / scale_m_px));
  const slope = new Float64Array(lags + 1);
  for (const e of edges) {
    const c = slopeCovariance(e, strip.columns, lags);
    if (!c) return { ok: false, reason: "The edge of the tube cannot be followed: is it straight, whole and in focus?" };
    for (let l = 0; l <= lags; l++) slope[l]! += (perPixel ** 2 * c[l]!) / edges.length;
  }
  return {
    ok: true,
    reading: { long_rad: Math.sqrt(bandVariance(slope, scale_m_px, LONG_M)), length_m, scale_m_px, folds, tubeWidth_px: strip.width_px },
  };
}

/** How much wavier one panel is than another, with its 95 % interval, and whether that is a difference at all. @throws RangeError */
export function compareReflections(
  own: readonly number[],
  other: readonly number[],
): { ratio: number; low: number; high: number; differs: boolean } {
  const mean = (name: string, list: readonly number[]) => {
    if (list.length === 0) throw new RangeError(`${name} must have at least 1 member, got 0`);
    return list.reduce((a, v, i) => a + Math.log(requireNumber(`${name}[${i}]`, v, { above: 0 })), 0) / list.length;
  };
  const log = mean("own", own) - mean("other", other);
  const sd = RATIO_SD * Math.sqrt(1 / own.length + 1 / other.length);
  const ratio = Math.exp(log);
  return {
    ratio,
    low: Math.exp(log - 1.96 * sd),
    high: Math.exp(log + 1.96 * sd),
    differs: Math.abs(log) > Math.max(1.96 * sd, Math.log(1 + RATIO_DIFFERS)),
  };
}

interface Tube {
  angle_rad: number;
  middle_px: number;
  width_px: number;
}

/** Why no tube can be followed in a picture; null: there is one. A small frame tells as well, and sooner. */
export function tubeRefused(picture: Picture): string | null {
  const found = findTube(picture);
  return typeof found === "string" ? found : null;
}

/** The tube as a straight bright band across the picture, or why there is none. */
function findTube({ width, height, light }: Picture): Tube | string {
  if (Math.min(width, height) < 120) return "The picture is too small";
  const clipped = light.reduce((a, v) => a + (v > CLIPPED ? 1 : 0), 0) / light.length;
  if (clipped > 0.02) return "The tube is clipped: lower the exposure until it is grey, not white";
  const soft = blurred(Float64Array.from(light), width, height, 2);
  const some = soft.filter((_, i) => i % 8 === 0);
  const [low, high] = [shareOf(some, 0.05), shareOf(some, 0.995)];
  if (!(high > 2.5 * low) || high < 0.08) return "No bright tube is seen against the panel";
  const limit = (low + high) / 2;
  const at: { u: number; v: number; count: number }[] = [];
  for (let u = 0; u < width; u += 8) {
    let [count, sum] = [0, 0];
    for (let v = 0; v < height; v++)
      if (soft[v * width + u]! > limit) {
        count++;
        sum += v;
      }
    if (count > 5) at.push({ u, v: sum / count, count });
  }
  if (at.length < width / 10) return "The tube does not run across the picture";
  const mu = at.reduce((a, p) => a + p.u, 0) / at.length;
  const mv = at.reduce((a, p) => a + p.v, 0) / at.length;
  const rise = at.reduce((a, p) => a + (p.u - mu) * (p.v - mv), 0) / at.reduce((a, p) => a + (p.u - mu) ** 2, 0);
  const angle_rad = Math.atan(rise);
  const width_px =
    shareOf(
      at.map((p) => p.count),
      0.5,
    ) * Math.cos(angle_rad);
  const counts = at.filter((p) => Math.abs(p.count - width_px) > 0.4 * width_px).length / at.length;
  if (counts > 0.3) return "There is more than one light in the picture: only one straight tube may be seen";
  if (width_px < LEAST_TUBE_PX) return `The tube is only ${Math.round(width_px)} px wide; go closer or use a wider one`;
  return { angle_rad, middle_px: mv + rise * (width / 2 - mu), width_px };
}

interface Strip {
  columns: number;
  /** Rows −half … half about the tube's middle. */
  half: number;
  rows: number;
  width_px: number;
  values: Float64Array;
}

/** The tube turned level: columns along it, rows across. */
function resample({ width, height, light }: Picture, { angle_rad, middle_px, width_px }: Tube): Strip {
  const half = Math.floor(1.3 * width_px);
  const [c, s] = [Math.cos(angle_rad), Math.sin(angle_rad)];
  const inside = (t: number, v: number) => {
    const [x, y] = [width / 2 + t * c - v * s, middle_px + t * s + v * c];
    return x >= 0 && x < width - 1 && y >= 0 && y < height - 1;
  };
  const reach = Math.floor(width / c / 2);
  const ts: number[] = [];
  for (let t = -reach; t <= reach; t++) if (inside(t, -half) && inside(t, half)) ts.push(t);
  const rows = 2 * half + 1;
  const values = new Float64Array(rows * ts.length);
  for (let r = 0; r < rows; r++)
    ts.forEach((t, k) => {
      const v = r - half;
      const [x, y] = [width / 2 + t * c - v * s, middle_px + t * s + v * c];
      const [i, j] = [Math.floor(x), Math.floor(y)];
      const [fx, fy] = [x - i, y - j];
      const at = j * width + i;
      values[r * ts.length + k] =
        (light[at]! * (1 - fx) + light[at + 1]! * fx) * (1 - fy) + (light[at + width]! * (1 - fx) + light[at + width + 1]! * fx) * fy;
    });
  return { columns: ts.length, half, rows, width_px, values };
}

interface Edge {
  /** Offsets outward from the edge, −reach … reach; light there between background 0 and tube 1, row by row. */
  offsets: number[];
  light: Float64Array;
  mean: Float64Array;
  folds: number;
}

/** The light across one edge of the tube, straightened along a cubic and normalised between tube and background. */
function edgeOf(strip: Strip, side: -1 | 1): Edge {
  const { columns: n, half, width_px } = strip;
  const reach = Math.floor(0.4 * width_px);
  const offsets = Array.from({ length: 2 * reach + 1 }, (_, i) => i - reach);
  const q = Math.max(3, Math.floor(0.12 * width_px));
  let centre = new Float64Array(n).fill((side * width_px) / 2);
  let light = new Float64Array(0);
  let mean = new Float64Array(0);
  for (let turn = 0; turn < 3; turn++) {
    const raw = new Float64Array(offsets.length * n);
    offsets.forEach((o, r) => {
      for (let t = 0; t < n; t++) {
        const row = Math.min(strip.rows - 1.001, Math.max(0, half + centre[t]! + side * o));
        const i = Math.floor(row);
        const f = row - i;
        raw[r * n + t] = strip.values[i * n + t]! * (1 - f) + strip.values[Math.min(strip.rows - 1, i + 1) * n + t]! * f;
      }
    });
    const level = (rows: number[]) =>
      blurredLine(
        Float64Array.from({ length: n }, (_, t) =>
          shareOf(
            rows.map((r) => raw[r * n + t]!),
            0.5,
          ),
        ),
        0.3 * width_px,
      );
    const inner = level(Array.from({ length: q }, (_, i) => i));
    const outer = level(Array.from({ length: q }, (_, i) => offsets.length - 1 - i));
    light = raw.map((v, i) => (v - outer[i % n]!) / Math.max(1e-6, inner[i % n]! - outer[i % n]!));
    mean = Float64Array.from(offsets, (_, r) => light.subarray(r * n, r * n + n).reduce((a, b) => a + b, 0) / n);
    if (turn === 2) break;
    const window = Math.min(reach, Math.max(4, Math.ceil(3.5 * spreadOf(mean, offsets) + 2)));
    // Where the edge lies in each column, by the light inside a window about it; its slow trend is taken out.
    const edge = Float64Array.from({ length: n }, (_, t) => {
      let sum = 0;
      offsets.forEach((o, r) => {
        if (Math.abs(o) <= window) sum += light[r * n + t]!;
      });
      return sum - window - 0.5;
    });
    const trend = cubic(edge);
    centre = centre.map((v, t) => v + side * trend[t]!);
  }
  let folded = 0;
  const window = Math.min(reach, Math.max(4, Math.ceil(3.5 * spreadOf(mean, offsets) + 2)));
  for (let t = 0; t < n; t++) {
    const column = blurredLine(
      Float64Array.from(
        offsets.filter((o) => Math.abs(o) <= window),
        (o) => light[(o + reach) * n + t]!,
      ),
      1,
    );
    let crossings = 0;
    for (let i = 1; i < column.length; i++) if ((column[i]! - 0.5) * (column[i - 1]! - 0.5) < 0) crossings++;
    if (crossings > 1) folded++;
  }
  return { offsets, light, mean, folds: folded / n };
}

/** Half the distance between 84 and 16 % of a mean edge: its spread. */
function spreadOf(mean: Float64Array, offsets: readonly number[]): number {
  const cross = (level: number) => {
    for (let i = 1; i < mean.length; i++)
      if ((mean[i - 1]! - level) * (mean[i]! - level) <= 0 && mean[i - 1]! !== mean[i]!)
        return offsets[i - 1]! + (mean[i - 1]! - level) / (mean[i - 1]! - mean[i]!);
    return 0;
  };
  return Math.max(0.5, Math.abs(cross(0.16) - cross(0.84)) / 2);
}

/** Least-squares cubic through a line of values, outliers weighed down (Tukey). */
function cubic(values: Float64Array): Float64Array {
  const n = values.length;
  const x = (t: number) => (2 * t) / (n - 1) - 1;
  let weight = new Float64Array(n).fill(1);
  let fit = new Float64Array(n);
  for (let round = 0; round < 5; round++) {
    const a = Array.from({ length: 4 }, () => new Float64Array(5));
    for (let t = 0; t < n; t++) {
      const p = [1, x(t), x(t) ** 2, x(t) ** 3];
      for (let i = 0; i < 4; i++) {
        for (let j = 0; j < 4; j++) a[i]![j]! += weight[t]! * p[i]! * p[j]!;
        a[i]![4]! += weight[t]! * p[i]! * values[t]!;
      }
    }
    for (let i = 0; i < 4; i++) {
      const pivot = a[i]![i]! || 1e-12;
      for (let k = 0; k < 4; k++) {
        if (k === i) continue;
        const f = a[k]![i]! / pivot;
        for (let j = i; j < 5; j++) a[k]![j]! -= f * a[i]![j]!;
      }
    }
    const c = a.map((row, i) => row[4]! / (row[i]! || 1e-12));
    fit = Float64Array.from({ length: n }, (_, t) => c[0]! + x(t) * (c[1]! + x(t) * (c[2]! + x(t) * c[3]!)));
    const s =
      1.4826 *
        shareOf(
          values.map((v, t) => Math.abs(v - fit[t]!)),
          0.5,
        ) +
      1e-9;
    weight = values.map((v, t) => Math.max(0, 1 - ((v - fit[t]!) / (6 * s)) ** 2) ** 2);
  }
  return fit;
}

/** Autocovariance of the edge's place along the tube, px², by the row method; null when the edge cannot be followed. */
function slopeCovariance({ offsets, light, mean }: Edge, n: number, lags: number): Float64Array | null {
  // Spread of the mean edge by its probit near the middle.
  const middle = mean.reduce((best, v, i) => (Math.abs(v - 0.5) < Math.abs(mean[best]! - 0.5) ? i : best), 0);
  const near = Math.max(2, Math.round(0.35 * spreadOf(mean, offsets)));
  const points = offsets.flatMap((o, i) =>
    Math.abs(i - middle) <= near ? [{ o, z: -normalQuantile(Math.min(0.99, Math.max(0.01, mean[i]!))) }] : [],
  );
  const mo = points.reduce((a, p) => a + p.o, 0) / points.length;
  const mz = points.reduce((a, p) => a + p.z, 0) / points.length;
  const steep = points.reduce((a, p) => a + (p.o - mo) * (p.z - mz), 0) / points.reduce((a, p) => a + (p.o - mo) ** 2, 0);
  if (!(steep > 1e-3)) return null;
  const spread = 1 / steep;
  const edge = mo - mz / steep;
  const rows = offsets.flatMap((o, i) => (Math.abs(o - edge) <= 0.3 * spread ? [i] : []));
  if (rows.length === 0) rows.push(middle);
  const covariance = new Float64Array(lags + 1);
  for (const r of rows) {
    const row = light.subarray(r * n, r * n + n);
    const m = row.reduce((a, b) => a + b, 0) / n;
    for (let l = 0; l <= lags; l++) {
      let s = 0;
      for (let t = 0; t + l < n; t++) s += (row[t]! - m) * (row[t + l]! - m);
      covariance[l]! += s / (n - l) / rows.length;
    }
  }
  // The camera's noise, from where the light should be even.
  const q = Math.max(3, Math.floor(0.1 * offsets.length));
  const quiet = [...Array(q).keys()].flatMap((i) => [i, offsets.length - 1 - i]);
  for (let l = 0; l < 5 && l <= lags; l++) {
    let noise = 0;
    for (const r of quiet) {
      const row = light.slice(r * n, r * n + n);
      const slow = blurredLine(row, 6);
      let s = 0;
      for (let t = 0; t + l < n; t++) s += (row[t]! - slow[t]!) * (row[t + l]! - slow[t + l]!);
      noise += s / (n - l);
    }
    covariance[l]! -= (1.12 * noise) / quiet.length;
  }
  return covariance.map((c) => spread ** 2 * Math.sin(2 * Math.PI * Math.min(0.25, Math.max(-0.25, c))));
}

/** Variance of a band of waves from an autocovariance: Hann window, cosine transform, the optics' blur undone at most fourfold. */
function bandVariance(covariance: Float64Array, scale_m: number, [short_m, long_m]: readonly [number, number]): number {
  const last = covariance.length - 1;
  const windowed = covariance.map((c, l) => c * Math.cos((Math.PI * l) / (2 * last)) ** 2);
  const df = 1 / (2 * last * scale_m);
  let variance = 0;
  for (let k = 0; k <= last; k++) {
    let s = windowed[0]! + windowed[last]! * (k % 2 ? -1 : 1);
    for (let l = 1; l < last; l++) s += 2 * windowed[l]! * Math.cos((Math.PI * k * l) / last);
    const f = k * df;
    const band = Math.exp(-Math.PI * (ALPHA * short_m * f) ** 2) - Math.exp(-Math.PI * (ALPHA * long_m * f) ** 2);
    variance += 2 * s * scale_m * Math.min(4, Math.exp((2 * Math.PI * f * scale_m * OPTICS_PX) ** 2)) * band ** 2 * df;
  }
  return Math.max(0, variance);
}
