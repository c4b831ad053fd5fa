/** What a device says with what it sends: a key made once, how long ago it happened, seconds, and who entered it. */
export const KEY_HEADER = "yakamoz-key";
export const AGE_HEADER = "yakamoz-age";
export const PERSON_HEADER = "yakamoz-person";
