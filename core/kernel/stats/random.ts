export type Random = () => number;

/** Seeded generator of uniforms in [0, 1): mulberry32 (public domain, T. Ettinger). The same seed gives the same draws everywhere. */
export function seededRandom(seed: number): Random {
  let a = seed >>> 0;
  return () => {
    a = (a + 0x6d2b79f5) >>> 0;
    let t = Math.imul(a ^ (a >>> 15), a | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

/** Standard normals by Box–Muller from a uniform generator. */
export function normals(random: Random): Random {
  let spare: number | null = null;
  return () => {
    if (spare !== null) {
      const value = spare;
      spare = null;
      return value;
    }
    const r = Math.sqrt(-2 * Math.log(1 - random()));
    const angle = 2 * Math.PI * random();
    spare = r * Math.sin(angle);
    return r * Math.cos(angle);
  };
}
