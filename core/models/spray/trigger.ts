/** The trigger between strokes. */
export const TRIGGERS = { released: "let go at each end", held: "held through the turns" } as const;
export type Trigger = keyof typeof TRIGGERS;
