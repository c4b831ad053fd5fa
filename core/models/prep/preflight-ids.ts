/** What is looked at before the gun is filled, by name: for whoever needs no reasons. */
export const PREFLIGHT_IDS = ["wiped", "tack", "static", "path", "light", "clothing", "inside", "air", "breathing"] as const;
