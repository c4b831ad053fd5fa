import { requireNumber } from "../../kernel/guard";
import { type Picture, blurInto, blurred, everySecond, logOf, shareOf, shrink } from "./picture";

export interface Inclusion {
  /** Place in the picture, px of the picture as given. */
  x: number;
  y: number;
  diameter_m: number;
  /** Too small for its size to be told: the diameter is at most this. */
  atMost: boolean;
  /** Light there against its surroundings: −0.3 is 30 % darker. */
  contrast: number;
  /** How far it stands out of the noise, standard deviations. */
  strength: number;
}
export type InclusionAnswer = { ok: true; found: Inclusion[]; scale_m_px: number; smallest_m: number } | { ok: false; reason: string };

/** The search; published scale space of a difference of Gaussians (Lowe 2004, from memory), its figures defaults of ours. */
const SEARCH = {
  least_m: 0.1e-3,
  most_m: 2e-3,
  strength: 6,
  contrast: 0.02,
  ringNoise: 3,
  axisRatio: 0.35,
  /** A finer picture is made smaller to about this first: it shows no smaller nib, and takes four times as long. */
  finest_m_px: 0.1e-3,
} as const;
/** A spot's standard deviation in pixels above which the picture may be halved. */
const COARSEN_AT = 1.75;
const BLOCK_VALUES = 500;
const LIGHT_SHRINK = 3;
/** The light is judged by every seventh pixel. */
const EVERY = 7;
const LEAST_NOISE = 4e-4;
interface Candidate {
  x: number;
  y: number;
  s: number;
  z: number;
}
/** A nib's size is told from this many pixels on. */
const SIZE_PX = 3.5;
/** Light that makes a count worthless: clipped, dark, or a grid of tubes. Defaults of ours. */
const REFUSE = { clipped: 0.03, clippedAt: 0.985, dark: 0.01, gridSlope: 0.055, gridShare: 0.02, leastPixels: 200 } as const;

/**
 * Inclusions in a picture of a panel in even, diffuse light: what stands out of its surroundings as a spot of 0.1 to 2 mm, against the noise of
 * its own neighbourhood. Grid light is refused: most nibs drown in it. The painter confirms, adds or strikes marks; the count is theirs.
 * @param scale_m_px size of a pixel on the panel @throws RangeError
 */
export function findInclusions(
  given: Picture,
  scale_m_px: number,
  { onProgress }: { onProgress?: (share: number) => void } = {},
): InclusionAnswer {
  requireNumber("scale_m_px", scale_m_px, { above: 0, max: 5e-3 });
  if (Math.min(given.width, given.height) < REFUSE.leastPixels)
    return { ok: false, reason: `The picture is too small: at least ${REFUSE.leastPixels} px a side are needed` };
  const factor = Math.max(1, Math.round(SEARCH.finest_m_px / scale_m_px));
  const picture = shrink(given, factor);
  const scale = scale_m_px * factor;
  const { width, height } = picture;
  const refused = lightRefused(picture);
  if (refused) return { ok: false, reason: refused };
  onProgress?.(0.1);
  const log = logOf(picture.light);
  const sigmas: number[] = [];
  for (let s = Math.max(0.8, SEARCH.least_m / scale / 2.83); s <= (SEARCH.most_m / scale / 2.83) * 1.01; s *= 1.5) sigmas.push(s);
  const candidates: Candidate[] = [];
  let level: { values: Float64Array; width: number; height: number; step: number; done: number } = {
    values: log,
    width,
    height,
    step: 1,
    done: 0,
  };
  const [narrow, wide] = [new Float64Array(log.length), new Float64Array(log.length)];
  sigmas.forEach((s, k) => {
    // A wide spot needs no fine picture: once the blur has taken the detail away every second row and column is left out.
    while (s / level.step > COARSEN_AT) {
      const pre = Math.sqrt(Math.max(0, (0.5 * s) ** 2 - level.done ** 2)) / level.step;
      const smoother = pre > 0.5 ? blurred(level.values, level.width, level.height, pre) : level.values;
      level = { ...everySecond(smoother, level.width, level.height), step: 2 * level.step, done: pre > 0.5 ? 0.5 * s : level.done };
    }
    const rest = (sigma: number) => Math.sqrt(sigma ** 2 - level.done ** 2) / level.step;
    const n = level.values.length;
    const d = blurInto(narrow.subarray(0, n), level.values, level.width, level.height, rest(s));
    // The wider blur is the narrow one blurred on: variances add, and the kernel is a third shorter.
    const wider = blurInto(wide.subarray(0, n), d, level.width, level.height, (Math.sqrt(1.6 ** 2 - 1) * s) / level.step);
    for (let i = 0; i < n; i++) d[i] = d[i]! - wider[i]!;
    candidates.push(...peaks(d, level.width, level.height, { sigma: s, step: level.step }));
    onProgress?.(0.1 + (0.8 * (k + 1)) / sigmas.length);
  });
  candidates.sort((a, b) => Math.abs(b.z) - Math.abs(a.z));
  const smooth = blurInto(narrow, log, width, height, 0.7);
  const taken: { x: number; y: number; s: number }[] = [];
  const found: Inclusion[] = [];
  for (const { x, y, s, z } of candidates) {
    if (taken.some((t) => (x - t.x) ** 2 + (y - t.y) ** 2 < (1.6 * Math.max(s, t.s) * 1.414 + 2) ** 2)) continue;
    if (x < 3 || y < 3 || x > width - 4 || y > height - 4) continue;
    taken.push({ x, y, s });
    const spot = measureSpot(smooth, width, height, { x, y, s, sign: Math.sign(z) });
    if (!spot) continue;
    const px = Math.sqrt(Math.max((4 * spot.area) / Math.PI - 1.5, 0.5));
    if (scale * px > SEARCH.most_m * 1.3) continue;
    found.push({
      x: (spot.x + 0.5) * factor - 0.5,
      y: (spot.y + 0.5) * factor - 0.5,
      diameter_m: scale * Math.max(px, SIZE_PX),
      atMost: px < SIZE_PX,
      contrast: Math.sign(z) * (Math.exp(spot.peak) - 1),
      strength: Math.abs(z),
    });
    if (!found.at(-1)!.atMost) found.at(-1)!.diameter_m = scale * px;
  }
  onProgress?.(1);
  return { ok: true, found: found.sort((a, b) => b.strength - a.strength), scale_m_px, smallest_m: SIZE_PX * scale };
}

/**
 * Why a count in this light would be worth nothing; null when it may be made.
 * @param times how many pixels of what is counted one pixel stands for: a small frame of it tells as well, and sooner @throws RangeError
 */
export function lightRefused({ width, height, light }: Picture, times = 1): string | null {
  requireNumber("times", times, { min: 1, max: 100 });
  const some = Float32Array.from({ length: Math.floor(light.length / EVERY) }, (_, i) => light[i * EVERY]!);
  const clipped = some.reduce((a, v) => a + (v > REFUSE.clippedAt ? 1 : 0), 0) / some.length;
  if (clipped > REFUSE.clipped) return `The picture is too bright: ${Math.round(100 * clipped)} % of it is clipped. Lower the exposure`;
  if (shareOf(some, 0.5) < REFUSE.dark) return "The picture is too dark to count in";
  // Edges of tubes are seen as well in a smaller picture.
  const by = Math.max(1, Math.round(LIGHT_SHRINK / times));
  const small = shrink({ width, height, light }, by);
  const log = blurred(logOf(small.light), small.width, small.height, 1.2);
  let steep = 0;
  let all = 0;
  for (let y = 2; y < small.height - 2; y++)
    for (let x = 2; x < small.width - 2; x++) {
      const i = y * small.width + x;
      const slope = Math.hypot(log[i + 1]! - log[i - 1]!, log[i + small.width]! - log[i - small.width]!) / (2 * by * times);
      all++;
      if (slope > REFUSE.gridSlope) steep++;
    }
  return steep / all > REFUSE.gridShare
    ? "The light is a grid of tubes or full of edges: nibs drown in it. Take the picture in even, diffuse light"
    : null;
}

/** Noise of a band by the median of its absolute values in blocks, smoothed over 3 × 3 blocks: block counts and figures. */
function localNoise(d: Float64Array, width: number, height: number, block: number): { nx: number; ny: number; noise: Float64Array } {
  const [nx, ny] = [Math.max(2, Math.floor(width / block)), Math.max(2, Math.floor(height / block))];
  const raw = new Float64Array(nx * ny);
  for (let p = 0; p < ny; p++)
    for (let q = 0; q < nx; q++) {
      const [y0, y1] = [Math.floor((p * height) / ny), Math.floor(((p + 1) * height) / ny)];
      const [x0, x1] = [Math.floor((q * width) / nx), Math.floor(((q + 1) * width) / nx)];
      const step = Math.max(1, Math.floor(Math.sqrt(((y1 - y0) * (x1 - x0)) / BLOCK_VALUES))); // a part of them tells the median as well
      const values: number[] = [];
      for (let y = y0; y < y1; y += step) for (let x = x0; x < x1; x += step) values.push(Math.abs(d[y * width + x]!));
      raw[p * nx + q] = shareOf(values, 0.5);
    }
  const usual = shareOf(raw, 0.5);
  const noise = raw.map((_, i) => {
    const [p, q] = [Math.floor(i / nx), i % nx];
    const near: number[] = [];
    for (let a = -1; a <= 1; a++)
      for (let b = -1; b <= 1; b++) near.push(raw[Math.min(ny - 1, Math.max(0, p + a)) * nx + Math.min(nx - 1, Math.max(0, q + b))]!);
    return Math.max(shareOf(near, 0.5), 0.6 * usual, LEAST_NOISE) * 1.4826;
  });
  return { nx, ny, noise };
}

/** Places of a band that stand out of its noise and above their 7 × 7 surroundings, in pixels of the finest level. */
function peaks(d: Float64Array, width: number, height: number, { sigma, step }: { sigma: number; step: number }): Candidate[] {
  const { nx, ny, noise } = localNoise(d, width, height, Math.max(48, Math.floor((10 * sigma) / step)));
  const least = Math.min(...noise) * SEARCH.strength;
  const out: Candidate[] = [];
  for (let y = 0; y < height; y++) {
    const v = (y * (ny - 1)) / (height - 1);
    const j = Math.min(ny - 2, Math.floor(v));
    for (let x = 0; x < width; x++) {
      const own = Math.abs(d[y * width + x]!);
      if (own <= least || own <= SEARCH.contrast * 0.25) continue;
      let top = true;
      for (let b = Math.max(0, y - 3); top && b <= Math.min(height - 1, y + 3); b++)
        for (let a = Math.max(0, x - 3); a <= Math.min(width - 1, x + 3); a++)
          if (Math.abs(d[b * width + a]!) > own) {
            top = false;
            break;
          }
      if (!top) continue;
      const u = (x * (nx - 1)) / (width - 1);
      const i = Math.min(nx - 2, Math.floor(u));
      const [fu, fv, at] = [u - i, v - j, j * nx + i];
      const here = (noise[at]! * (1 - fu) + noise[at + 1]! * fu) * (1 - fv) + (noise[at + nx]! * (1 - fu) + noise[at + nx + 1]! * fu) * fv;
      if (own > SEARCH.strength * here) out.push({ x: x * step, y: y * step, s: sigma, z: d[y * width + x]! / here });
    }
  }
  return out;
}

/** Area above half its height around a peak, against the ring about it; null when it is no spot. */
function measureSpot(
  log: Float64Array,
  width: number,
  height: number,
  { x, y, s, sign }: { x: number; y: number; s: number; sign: number },
): { x: number; y: number; area: number; peak: number } | null {
  const r = Math.floor(4.5 * s + 4);
  const [x0, x1, y0, y1] = [Math.max(0, x - r), Math.min(width - 1, x + r), Math.max(0, y - r), Math.min(height - 1, y + r)];
  const ring: number[] = [];
  for (let b = y0; b <= y1; b++)
    for (let a = x0; a <= x1; a++) {
      const d = Math.hypot(a - x, b - y);
      if (d > 2.9 * s + 2 && d <= 4.5 * s + 4) ring.push(log[b * width + a]!);
    }
  const background = shareOf(ring, 0.5);
  const ringNoise =
    1.4826 *
    shareOf(
      ring.map((v) => Math.abs(v - background)),
      0.5,
    );
  const raised = (a: number, b: number) => sign * (log[b * width + a]! - background);
  const core: number[] = [];
  let most = -Infinity;
  for (let b = y0; b <= y1; b++)
    for (let a = x0; a <= x1; a++) {
      most = Math.max(most, raised(a, b));
      if (Math.hypot(a - x, b - y) <= Math.max(1, 0.7 * s)) core.push(raised(a, b));
    }
  const peak = core.length > 4 ? shareOf(core, 0.5) : most;
  if (peak < SEARCH.contrast || peak < SEARCH.ringNoise * ringNoise) return null;
  if (raised(x, y) <= 0.5 * peak) return null;
  const seen = new Set<number>([y * width + x]);
  const open: number[] = [y * width + x];
  let [area, sx, sy, sxx, syy, sxy] = [0, 0, 0, 0, 0, 0];
  while (open.length > 0) {
    const at = open.pop()!;
    const [a, b] = [at % width, Math.floor(at / width)];
    if (a === x0 || a === x1 || b === y0 || b === y1) return null; // it runs out of its surroundings: no spot
    area++;
    sx += a;
    sy += b;
    sxx += a * a;
    syy += b * b;
    sxy += a * b;
    for (const to of [at - 1, at + 1, at - width, at + width]) {
      if (seen.has(to)) continue;
      seen.add(to);
      if (raised(to % width, Math.floor(to / width)) > 0.5 * peak) open.push(to);
    }
  }
  const [cx, cy] = [sx / area, sy / area];
  const n = Math.max(1, area - 1);
  const [vx, vy, vxy] = [(sxx - area * cx * cx) / n + 1 / 12, (syy - area * cy * cy) / n + 1 / 12, (sxy - area * cx * cy) / n];
  const half = (vx + vy) / 2;
  const root = Math.sqrt(Math.max(0, ((vx - vy) / 2) ** 2 + vxy ** 2));
  if (area > 3 && Math.sqrt((half - root) / (half + root)) < SEARCH.axisRatio) return null;
  return { x: cx, y: cy, area, peak };
}
