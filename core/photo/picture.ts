import { requireInteger } from "../guard";

/** A picture of linear light, row-major, 0 … 1. */
export interface Picture {
  width: number;
  height: number;
  light: Float32Array;
}

const SRGB = Float32Array.from({ length: 256 }, (_, i) => {
  const a = i / 255;
  return a <= 0.04045 ? a / 12.92 : ((a + 0.055) / 1.055) ** 2.4;
});

/** Largest picture that is looked at, pixels. */
export const MOST_PIXELS = 40e6;

/**
 * Linear light of an sRGB picture (IEC 61966-2-1): grey by the green-heavy sum of BT.709.
 * @param rgba four bytes a pixel @throws RangeError for a size that does not fit the bytes
 */
export function pictureOf(rgba: Uint8Array | Uint8ClampedArray, width: number, height: number): Picture {
  requireInteger("width", width, { min: 1, max: 20_000 });
  requireInteger("height", height, { min: 1, max: 20_000 });
  if (width * height > MOST_PIXELS)
    throw new RangeError(`the picture must have at most ${MOST_PIXELS / 1e6} megapixels, got ${((width * height) / 1e6).toFixed(0)}`);
  if (rgba.length !== 4 * width * height) throw new RangeError(`rgba must hold ${4 * width * height} bytes, got ${rgba.length}`);
  const light = new Float32Array(width * height);
  for (let i = 0; i < light.length; i++)
    light[i] = 0.2126 * SRGB[rgba[4 * i]!]! + 0.7152 * SRGB[rgba[4 * i + 1]!]! + 0.0722 * SRGB[rgba[4 * i + 2]!]!;
  return { width, height, light };
}

/** The picture made smaller by a whole factor, each pixel the mean of factor × factor. */
export function shrink({ width, height, light }: Picture, factor: number): Picture {
  if (factor <= 1) return { width, height, light };
  const [w, h] = [Math.floor(width / factor), Math.floor(height / factor)];
  const out = new Float32Array(w * h);
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++) {
      let sum = 0;
      for (let j = 0; j < factor; j++) for (let i = 0; i < factor; i++) sum += light[(y * factor + j) * width + x * factor + i]!;
      out[y * w + x] = sum / factor ** 2;
    }
  return { width: w, height: h, light: out };
}

/** Gaussian blur, edges mirrored, kernel cut at 3.5 standard deviations. Doubles inside: mixing widths costs more than it saves. */
export function blurred(values: Float64Array, width: number, height: number, sigma: number): Float64Array {
  const radius = Math.max(1, Math.ceil(3.5 * sigma));
  const half = new Float64Array(radius + 1);
  for (let i = 0; i <= radius; i++) half[i] = Math.exp(-0.5 * (i / sigma) ** 2);
  const sum = 2 * half.reduce((a, b) => a + b, 0) - 1;
  for (let i = 0; i <= radius; i++) half[i]! /= sum;
  const along = new Float64Array(width * height);
  const line = new Float64Array(width + 2 * radius);
  const h0 = half[0]!;
  for (let y = 0; y < height; y++) {
    const row = y * width;
    for (let x = 0; x < width; x++) line[radius + x] = values[row + x]!;
    for (let i = 1; i <= radius; i++) {
      line[radius - i] = line[radius + mirror(-i, width)]!;
      line[radius + width - 1 + i] = line[radius + mirror(width - 1 + i, width)]!;
    }
    for (let x = 0; x < width; x++) {
      const c = x + radius;
      let s = h0 * line[c]!;
      for (let k = 1; k <= radius; k++) s += half[k]! * (line[c - k]! + line[c + k]!);
      along[row + x] = s;
    }
  }
  // Down the picture row by row: whole rows are added, so that memory is read in its order.
  const out = new Float64Array(width * height);
  for (let y = 0; y < height; y++) {
    const to = y * width;
    for (let x = 0; x < width; x++) out[to + x] = h0 * along[to + x]!;
    for (let k = 1; k <= radius; k++) {
      const up = mirror(y - k, height) * width;
      const down = mirror(y + k, height) * width;
      const w = half[k]!;
      for (let x = 0; x < width; x++) out[to + x] = out[to + x]! + w * (along[up + x]! + along[down + x]!);
    }
  }
  return out;
}

/** Every second row and column of a picture that has been blurred enough for it. */
export function everySecond(values: Float64Array, width: number, height: number): { values: Float64Array; width: number; height: number } {
  const [w, h] = [Math.floor(width / 2), Math.floor(height / 2)];
  const out = new Float64Array(w * h);
  for (let y = 0; y < h; y++) for (let x = 0; x < w; x++) out[y * w + x] = values[2 * y * width + 2 * x]!;
  return { values: out, width: w, height: h };
}

/** The same along one line of values. */
export function blurredLine(values: Float64Array, sigma: number): Float64Array {
  const n = values.length;
  const radius = Math.max(1, Math.ceil(4 * sigma));
  const kernel = Float64Array.from({ length: 2 * radius + 1 }, (_, i) => Math.exp(-0.5 * ((i - radius) / sigma) ** 2));
  const sum = kernel.reduce((a, b) => a + b, 0);
  return Float64Array.from({ length: n }, (_, x) => {
    let s = 0;
    for (let k = 0; k < kernel.length; k++) s += kernel[k]! * values[mirror(x + k - radius, n)]!;
    return s / sum;
  });
}

function mirror(i: number, n: number): number {
  let at = i;
  while (at < 0 || at >= n) at = at < 0 ? -at - 1 : 2 * n - at - 1;
  return at;
}

/** Value below which a share of a list lies (a copy is sorted). */
export function shareOf(values: ArrayLike<number>, share: number): number {
  const sorted = Float64Array.from(values).sort();
  return sorted.length ? sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))]! : NaN;
}
