/** A texture on the scale 1 glass … 5 heavy, in a word. */
export const textureWords = (t: number) => (t < 1.7 ? "glass" : t < 2.7 ? "fine" : t < 3.7 ? "usual" : t < 4.5 ? "coarse" : "heavy peel");
