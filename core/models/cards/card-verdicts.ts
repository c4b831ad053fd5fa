/** How a card dried: what moves matte gloss most after the mix itself. */
export const CARD_CURES = { air: "air-dried", forced: "forced, baked" } as const;
export const CARD_ORIENTATIONS = { vertical: "upright", horizontal: "lying" } as const;
export const CARD_VERDICTS = { match: "match", lighter: "lighter", darker: "darker", off: "off", open: "not judged" } as const;
export const TEXTURE_VERDICTS = { match: "match", smoother: "smoother", rougher: "rougher", open: "not judged" } as const;
export const GLOSS_VERDICTS = { match: "match", brighter: "brighter", duller: "duller", open: "not judged" } as const;
