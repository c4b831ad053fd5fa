/** What comes by chance at the bench, another time otherwise: a seed for it. */
export const anySeed = (): number => Math.floor(Math.random() * 2 ** 31);
