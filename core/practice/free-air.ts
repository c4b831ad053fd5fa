/** Air that a bench may hang in. Ours to offer: a cold booth to a hot one. */
export const FREE_AIR_K = [285.15, 289.15, 294.15, 298.15, 303.15] as const;
