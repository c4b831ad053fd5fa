import { nice, ticks } from "d3-array";

/** A straight scale from figures to places on a drawing. */
export interface LinearScale {
  (value: number): number;
  /** The figure at a place. */
  invert(place: number): number;
  /** Round figures within the domain, about so many. */
  ticks(count: number): number[];
  /** The same scale that never leaves its range (nor, inverted, its domain). */
  clamp(on: boolean): LinearScale;
  /** The same scale with its domain widened to round figures. */
  nice(): LinearScale;
}

/** What D3 widens a domain for. */
const NICE_TICKS = 10;

/**
 * A linear scale with D3's own ticks. `d3-scale` brings the mixing of colours, times and names along, ten kilobytes on pages that only ask where
 * 40 µm lie.
 */
export function scaleLinear(domain: Iterable<number>, range: Iterable<number>, clamped = false): LinearScale {
  const [d0 = 0, d1 = 1] = domain;
  const [r0 = 0, r1 = 1] = range;
  const held = (v: number, a: number, b: number) => (clamped ? Math.min(Math.max(v, Math.min(a, b)), Math.max(a, b)) : v);
  // A domain of one figure lies in the middle, as in D3.
  const share = (v: number, a: number, b: number) => (a === b ? 0.5 : (v - a) / (b - a));
  const scale = (value: number) => held(r0 + share(value, d0, d1) * (r1 - r0), r0, r1);
  return Object.assign(scale, {
    invert: (place: number) => held(d0 + share(place, r0, r1) * (d1 - d0), d0, d1),
    ticks: (count: number) => ticks(d0, d1, count),
    clamp: (on: boolean) => scaleLinear([d0, d1], [r0, r1], on),
    nice: () => scaleLinear(d0 <= d1 ? nice(d0, d1, NICE_TICKS) : nice(d1, d0, NICE_TICKS).reverse(), [r0, r1], clamped),
  });
}

/** A scale on which equal ratios are equally far apart, held to its range. @throws RangeError where the domain is not above zero */
export function scaleLog(domain: readonly [number, number], range: Iterable<number>): (value: number) => number {
  if (!(domain[0] > 0 && domain[1] > 0)) throw new RangeError(`domain must be above 0, got ${domain.join(", ")}`);
  const place = scaleLinear(domain.map(Math.log), range, true);
  return (value) => place(Math.log(value));
}
