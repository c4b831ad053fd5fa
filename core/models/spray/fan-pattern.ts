import { requireNumber } from "../../kernel/guard";

/** How a fan lies that is not even: balance of air and fluid (0 even; above, too much air for the fluid: split; below: a wet middle), and which end is heavier, −1 to 1. */
export interface FanPattern {
  balance: number;
  end: number;
}
/** Of the balance: what air and fluid weigh in it, and how far it moves the material. Made to look as it does on paper; defaults of ours. */
const BALANCE = { air: 0.9, fluid: 0.6, reach: 2.4, least: 0.02 } as const;
/** Share of an even fan's square that is its own: E ξ² of Beta(2, 2). */
const EVEN_SQUARE = 0.2;

/** Balance of a gun beside one that sprays even: air and fluid over that one's. @throws RangeError */
export const fanBalance = (air: number, fluid: number): number =>
  BALANCE.air * Math.log(requireNumber("air", air, { above: 0 })) - BALANCE.fluid * Math.log(requireNumber("fluid", fluid, { above: 0 }));

/** Material at a place across the fan, ξ from −1 to 1, as its density over ξ; an even one is ¾(1 − ξ²). Its whole is 1 but where much is at its least: {@link fanWhole}. */
export const fanShape = (xi: number, { balance, end }: FanPattern): number =>
  0.75 * (1 - xi * xi) * Math.max(BALANCE.least, 1 + BALANCE.reach * balance * (xi * xi - EVEN_SQUARE)) * (1 + end * xi);

const STEPS = 64;
const sumOf = (pattern: FanPattern): number => {
  let sum = 0;
  for (let k = 0; k < STEPS; k++) sum += fanShape((2 * (k + 0.5)) / STEPS - 1, pattern);
  return sum;
};
const EVEN = sumOf({ balance: 0, end: 0 });
/** All that lies across the fan, over that of an even one. */
export const fanWhole = (pattern: FanPattern): number => sumOf(pattern) / EVEN;
