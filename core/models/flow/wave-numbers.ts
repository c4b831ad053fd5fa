import { BANDS_M } from "./constants";

export type Band = keyof typeof BANDS_M;

/** Nodes of the texture's spectrum: wave number k, weight of the integral ∫S·k·dk/2π, and whether the node lies in the long band. */
export interface WaveNumbers {
  k: Float64Array;
  weight: Float64Array;
  long: Uint8Array;
}

/** Gauss–Legendre nodes and weights on −1…1 by Newton on the Legendre polynomial (Abramowitz & Stegun 25.4.29, from memory). */
export function gaussLegendre(n: number): { x: number[]; w: number[] } {
  const x: number[] = [];
  const w: number[] = [];
  for (let i = 0; i < n; i++) {
    let t = Math.cos((Math.PI * (n - 1 - i + 0.75)) / (n + 0.5));
    let derivative = 1;
    for (let step = 0; step < 100; step++) {
      let p0 = 1;
      let p1 = t;
      for (let j = 2; j <= n; j++) [p0, p1] = [p1, ((2 * j - 1) * t * p1 - (j - 1) * p0) / j];
      derivative = (n * (t * p1 - p0)) / (t * t - 1);
      const move = p1 / derivative;
      t -= move;
      if (Math.abs(move) < 1e-15) break;
    }
    x.push(t);
    w.push(2 / ((1 - t * t) * derivative * derivative));
  }
  return { x, w };
}

/** Nodes in ln k over both bands, `perBand` each: 16 for figures, 8 for a sweep. */
export function waveNumbers(perBand: 8 | 16): WaveNumbers {
  const { x, w } = gaussLegendre(perBand);
  const k: number[] = [];
  const weight: number[] = [];
  const long: number[] = [];
  for (const band of ["short", "long"] as const) {
    const [from, to] = BANDS_M[band];
    const a = Math.log((2 * Math.PI) / to);
    const b = Math.log((2 * Math.PI) / from);
    x.forEach((node, i) => {
      const kk = Math.exp(0.5 * (b - a) * node + 0.5 * (a + b));
      k.push(kk);
      weight.push((0.5 * (b - a) * w[i]! * kk * kk) / (2 * Math.PI));
      long.push(band === "long" ? 1 : 0);
    });
  }
  return { k: Float64Array.from(k), weight: Float64Array.from(weight), long: Uint8Array.from(long) };
}

/** Constant spectral density that gives an rms height in a band. */
export function whiteDensity(rms_m: number, band: Band): number {
  const [from, to] = BANDS_M[band];
  return (4 * Math.PI * rms_m * rms_m) / (((2 * Math.PI) / from) ** 2 - ((2 * Math.PI) / to) ** 2);
}
