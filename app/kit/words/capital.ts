/** A text with its first letter small, for going on in a sentence. */
export const lower = (text: string): string => text.charAt(0).toLowerCase() + text.slice(1);
/** A text with its first letter large. */
export const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);
