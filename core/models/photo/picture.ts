import { requireInteger } from "../../kernel/guard";

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
export const blurred = (values: Float64Array, width: number, height: number, sigma: number): Float64Array =>
  blurInto(new Float64Array(width * height), values, width, height, sigma);

/**
 * The same into an array that is there already (not the values' own): a large picture is blurred many times, and fresh memory costs more than the
 * sums. Rows blurred along are kept only while rows below and above still need them.
 */
export function blurInto(out: Float64Array, values: Float64Array, width: number, height: number, sigma: number): Float64Array {
  const half = halfKernel(sigma);
  const radius = half.length - 1;
  const kept = Math.min(height, 2 * radius + 1);
  const rows = Array.from({ length: kept }, () => new Float64Array(width));
  const line = new Float64Array(width + 2 * radius);
  let next = 0;
  for (let y = 0; y < height; y++) {
    for (const last = Math.min(height - 1, y + radius); next <= last; next++) blurRow(rows[next % kept]!, values, next * width, line, half);
    const to = out.subarray(y * width, (y + 1) * width);
    const own = rows[y % kept]!;
    const h0 = half[0]!;
    for (let x = 0; x < width; x++) to[x] = h0 * own[x]!;
    // Two rows on either side at a time: the sum is read and written half as often.
    for (let k = 1; k <= radius; k += 2) {
      const [w1, w2] = [half[k]!, half[k + 1] ?? 0];
      const a = rows[mirror(y - k, height) % kept]!;
      const b = rows[mirror(y + k, height) % kept]!;
      const further = k < radius ? k + 1 : k;
      const c = rows[mirror(y - further, height) % kept]!;
      const d = rows[mirror(y + further, height) % kept]!;
      for (let x = 0; x < width; x++) to[x] = to[x]! + w1 * (a[x]! + b[x]!) + w2 * (c[x]! + d[x]!);
    }
  }
  return out;
}

/** Weights of a Gaussian from its middle outwards, together with the other side adding up to 1. */
function halfKernel(sigma: number): Float64Array {
  const radius = Math.max(1, Math.ceil(3.5 * sigma));
  const half = Float64Array.from({ length: radius + 1 }, (_, i) => Math.exp(-0.5 * (i / sigma) ** 2));
  const sum = 2 * half.reduce((a, b) => a + b, 0) - 1;
  return half.map((w) => w / sum);
}

/** One row blurred along itself. @param line room for the row with its mirrored ends */
function blurRow(out: Float64Array, values: Float64Array, from: number, line: Float64Array, half: Float64Array): void {
  const width = out.length;
  const radius = half.length - 1;
  for (let x = 0; x < width; x++) line[radius + x] = values[from + x]!;
  for (let i = 1; i <= radius; i++) {
    line[radius - i] = line[radius + mirror(-i, width)]!;
    line[radius + width - 1 + i] = line[radius + mirror(width - 1 + i, width)]!;
  }
  const [h0, h1, h2, h3] = [half[0]!, half[1]!, half[2] ?? 0, half[3] ?? 0];
  // The three nearest on either side are written out: small kernels are the ones that go over the whole picture.
  const [near, far] = [Math.min(radius, 2), Math.min(radius, 3)];
  for (let x = 0; x < width; x++) {
    const c = x + radius;
    let s =
      h0 * line[c]! +
      h1 * (line[c - 1]! + line[c + 1]!) +
      h2 * (line[c - near]! + line[c + near]!) +
      h3 * (line[c - far]! + line[c + far]!);
    for (let k = 4; k <= radius; k++) s += half[k]! * (line[c - k]! + line[c + k]!);
    out[x] = s;
  }
}

/** Logarithm of light, a little added so that black is not endless. */
export function logOf(light: Float32Array): Float64Array {
  const log = new Float64Array(light.length);
  for (let i = 0; i < log.length; i++) log[i] = Math.log(light[i]! + 0.004);
  return log;
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
