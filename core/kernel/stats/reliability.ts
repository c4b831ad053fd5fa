/** One forecast and what came of it. */
export interface Said {
  probability: number;
  right: boolean;
}

/** Mean squared distance between what was said and what came of it: 0 sure and right, 1 sure and wrong. Brier 1950. */
export function brier(said: readonly Said[]): number {
  return said.reduce((a, s) => a + (s.probability - (s.right ? 1 : 0)) ** 2, 0) / Math.max(1, said.length);
}

export interface Tenth {
  from: number;
  n: number;
  /** Mean of what was said, and how often it came true. */
  said: number;
  right: number;
}

/** By tenths of what was said: how often it came true; tenths without any are left away. */
export function reliability(said: readonly Said[]): Tenth[] {
  return Array.from({ length: 10 }, (_, i) => i / 10).flatMap((from) => {
    const here = said.filter((s) => Math.min(9, Math.floor(s.probability * 10 + 1e-9)) === Math.round(from * 10));
    if (here.length === 0) return [];
    const mean = (of: (s: Said) => number) => here.reduce((a, s) => a + of(s), 0) / here.length;
    return [{ from, n: here.length, said: mean((s) => s.probability), right: mean((s) => (s.right ? 1 : 0)) }];
  });
}
