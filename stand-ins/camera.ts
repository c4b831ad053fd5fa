import { requireNumber } from "#core/kernel/guard";
import { normals, seededRandom } from "#core/kernel/stats/random";
import { blurred } from "#core/models/photo/picture";

/** An sRGB picture, four bytes a pixel, as a browser's canvas gives it. */
export interface RenderedPicture {
  width: number;
  height: number;
  rgba: Uint8ClampedArray;
  simulated: true;
}
export interface TrueNib {
  x: number;
  y: number;
  diameter_m: number;
  contrast: number;
}

const srgb = (l: number) => (l <= 0.0031308 ? 12.92 * l : 1.055 * Math.max(0, l) ** (1 / 2.4) - 0.055);

/** Light to an sRGB picture, clipped and rounded. */
function develop(light: Float64Array, width: number, height: number): RenderedPicture {
  const rgba = new Uint8ClampedArray(4 * width * height);
  for (let i = 0; i < light.length; i++) {
    const v = Math.round(255 * srgb(Math.min(1, Math.max(0, light[i]!))));
    rgba[4 * i] = rgba[4 * i + 1] = rgba[4 * i + 2] = v;
    rgba[4 * i + 3] = 255;
  }
  return { width, height, rgba, simulated: true };
}

function noisy(light: Float64Array, width: number, height: number, noise: number, normal: () => number): void {
  const grain = blurred(Float64Array.from(light, normal), width, height, 0.5);
  const spread = Math.sqrt(grain.reduce((a, g) => a + g * g, 0) / grain.length);
  for (let i = 0; i < light.length; i++) light[i]! += (grain[i]! / spread) * noise * Math.sqrt(Math.max(0, light[i]!) + 0.02);
}

/**
 * A picture of a panel in diffuse light with nibs that are known: shading, mottle, peel, camera noise. The stand-in of a camera above the panel.
 * @param grid 1: the light is a grid of tubes, in which counting fails
 */
export function photographNibs(o: {
  seed: number;
  width: number;
  height: number;
  scale_m_px: number;
  nibs: number;
  diameters_m?: readonly number[];
  contrasts?: readonly number[];
  noise?: number;
  grid?: boolean;
}): { picture: RenderedPicture; nibs: TrueNib[] } {
  const { width, height, scale_m_px, noise = 0.01, diameters_m = [0.5e-3, 0.7e-3, 1e-3, 1.5e-3], contrasts = [0.2, 0.25, 0.3] } = o;
  requireNumber("scale_m_px", scale_m_px, { above: 0, max: 1e-2 });
  const random = seededRandom(o.seed);
  const normal = normals(random);
  const n = width * height;
  const light = new Float64Array(n);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const [u, v] = [x / width - 0.5, y / height - 0.5];
      light[y * width + x] = 0.35 * (1 + 0.5 * u + 0.3 * v) * (1 - 0.6 * (u * u + v * v));
    }
  // Slow mottle and peel, both as blurred noise.
  for (const [sigma, depth] of [
    [12, 0.012],
    [5, 0.004],
  ] as const) {
    const wave = blurred(Float64Array.from(light, normal), width, height, sigma);
    const spread = Math.sqrt(wave.reduce((a, w) => a + w * w, 0) / n);
    for (let i = 0; i < n; i++) light[i]! *= 1 + (depth * wave[i]!) / spread;
  }
  if (o.grid)
    for (let y = 0; y < height; y++)
      for (let x = 0; x < width; x++) {
        const g = Math.min(1, Math.max(0, 14 * Math.sin((2 * Math.PI * (x + 0.15 * y + 6 * Math.sin(y / 160))) / 140) + 0.5));
        light[y * width + x]! *= 0.35 + 0.65 * g;
      }
  const nibs: TrueNib[] = [];
  for (let tries = 0; nibs.length < o.nibs && tries < 5000; tries++) {
    const diameter_m = diameters_m[Math.floor(random() * diameters_m.length)]!;
    const contrast = contrasts[Math.floor(random() * contrasts.length)]! * (random() < 0.5 ? -1 : 1);
    const [cx, cy] = [40 + random() * (width - 80), 40 + random() * (height - 80)];
    if (nibs.some((t) => (t.x - cx) ** 2 + (t.y - cy) ** 2 < 50 ** 2)) continue;
    const r = diameter_m / scale_m_px / 2;
    const [long, turn] = [0.85 + 0.35 * random(), Math.PI * random()];
    const reach = Math.ceil(r * 1.6 + 3);
    for (let y = Math.floor(cy) - reach; y <= cy + reach; y++)
      for (let x = Math.floor(cx) - reach; x <= cx + reach; x++) {
        if (x < 0 || y < 0 || x >= width || y >= height) continue;
        let inside = 0;
        for (let a = -2; a <= 2; a++)
          for (let b = -2; b <= 2; b++) {
            const [dx, dy] = [x + a / 5 - cx, y + b / 5 - cy];
            const [p, q] = [dx * Math.cos(turn) + dy * Math.sin(turn), -dx * Math.sin(turn) + dy * Math.cos(turn)];
            if ((p / long) ** 2 + (q * long) ** 2 < r * r) inside++;
          }
        light[y * width + x]! *= 1 + (contrast * inside) / 25;
      }
    nibs.push({ x: cx, y: cy, diameter_m, contrast });
  }
  const seen = blurred(light, width, height, 0.8);
  noisy(seen, width, height, noise, normal);
  return { picture: develop(seen, width, height), nibs };
}

/** Where the stand-in camera, the panel and the tube are: usual distances of such a photograph. */
export const TUBE_SETUP = { tube_m: 0.038, light_m: 0.75, camera_m: 0.5, field_m: 0.15 } as const;
const WAVES = 42;
const MAP_STEP_M = 0.15e-3;

/**
 * A straight tube reflected in a wavy, glossy panel that is known: each pixel's ray is mirrored at the panel's own slope and asked how much of the
 * tube it meets. Waves of 2 to 10 mm with random directions; camera blur and noise.
 * @param slope_rad rms slope across the tube @returns the picture and the slope's rms in the band of 1.2 to 12 mm, as the waves have it along the tube
 */
export function photographTube(o: { seed: number; slope_rad: number; width?: number; height?: number; noise?: number }): {
  picture: RenderedPicture;
  long_rad: number;
} {
  const { width = 1100, noise = 0.01 } = o;
  requireNumber("slope_rad", o.slope_rad, { min: 0, max: 0.02 });
  const { tube_m, light_m, camera_m, field_m } = TUBE_SETUP;
  const random = seededRandom(o.seed);
  const normal = normals(random);
  const scale = field_m / width;
  const imageWidth_m = (tube_m * camera_m) / (camera_m + light_m);
  const height = o.height ?? Math.ceil((3.1 * imageWidth_m) / scale);
  const waves = Array.from({ length: WAVES }, () => {
    const k = (2 * Math.PI) / (4.5e-3 * Math.exp(0.4 * normal()));
    const turn = 2 * Math.PI * random();
    return { kx: k * Math.cos(turn), ky: k * Math.sin(turn), phase: 2 * Math.PI * random(), size: Math.exp(0.3 * normal()) };
  });
  const across = Math.sqrt(waves.reduce((a, w) => a + 0.5 * (w.size * Math.sin(Math.atan2(w.ky, w.kx))) ** 2, 0));
  const gain = across > 0 ? o.slope_rad / across : 0;
  const alpha = Math.sqrt(Math.LN2 / Math.PI);
  const long2 = waves.reduce((a, w) => {
    const f = Math.abs(w.kx) / (2 * Math.PI);
    const band = Math.exp(-Math.PI * (alpha * 1.2e-3 * f) ** 2) - Math.exp(-Math.PI * (alpha * 12e-3 * f) ** 2);
    const slope = gain * w.size * Math.sin(Math.atan2(w.ky, w.kx));
    return a + 0.5 * (slope * band) ** 2;
  }, 0);
  // Slopes on a fine map of the panel, once; a pixel reads them between its points.
  const [nx, ny] = [Math.ceil(field_m / MAP_STEP_M) + 3, Math.ceil((height * scale * 1.2) / MAP_STEP_M) + 3];
  const slope = new Float64Array(nx * ny);
  for (const w of waves) {
    const amplitude = gain * w.size * Math.sin(Math.atan2(w.ky, w.kx));
    for (let j = 0; j < ny; j++)
      for (let i = 0; i < nx; i++) slope[j * nx + i]! += amplitude * Math.cos(w.kx * i * MAP_STEP_M + w.ky * j * MAP_STEP_M + w.phase);
  }
  const light = new Float64Array(width * height);
  const tilt = 0.012;
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const [px, py] = [x * scale, y * scale];
      const [u, v] = [px / MAP_STEP_M, py / MAP_STEP_M];
      const [i, j] = [Math.floor(u), Math.min(ny - 2, Math.floor(v))];
      const [fu, fv] = [u - i, v - j];
      const at = j * nx + i;
      const s = (slope[at]! * (1 - fu) + slope[at + 1]! * fu) * (1 - fv) + (slope[at + nx]! * (1 - fu) + slope[at + nx + 1]! * fu) * fv;
      // Across the tube the ray meets its plane where the mirror image lies, moved by twice the slope times the distance.
      const from = (py - (height * scale) / 2 - tilt * (px - field_m / 2)) * ((camera_m + light_m) / camera_m);
      const meets = from + 2 * light_m * s;
      const half = tube_m / 2;
      const soft = 0.7e-3;
      const edge = (d: number) => 1 / (1 + Math.exp(-d / soft));
      light[y * width + x] = 0.04 + 0.62 * edge(half - meets) * edge(half + meets);
    }
  const seen = blurred(light, width, height, 0.8);
  noisy(seen, width, height, noise, normal);
  return { picture: develop(seen, width, height), long_rad: Math.sqrt(long2) };
}
