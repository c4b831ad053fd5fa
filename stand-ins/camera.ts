import { requireNumber } from "#core/guard";
import { normals, seededRandom } from "#core/stats/random";
import { blurred } from "#core/photo/picture";

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
