/** So many cards a row has room for. */
export const ROW = 5;
/** The field of a card in its row. @param n from 1 */
export const rowField = (what: "share" | "gloss", n: number): string => `${what}-${n}`;
