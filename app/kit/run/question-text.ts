/** Texts of parts of a question that are large and change seldom, by the very object. */
const known = new WeakMap<object, string>();

function textOfPart(part: unknown): string | undefined {
  if (typeof part !== "object" || part === null) return JSON.stringify(part);
  const text = known.get(part) ?? JSON.stringify(part);
  known.set(part, text);
  return text;
}

/**
 * A question as its JSON text, which says whether it has changed. A part that is the same object as before is not written out again: while one
 * figure is typed, the panel it is asked of stays the same.
 */
export function questionText(question: object | null): string {
  if (question === null) return "null";
  const parts = Object.entries(question).flatMap(([name, part]) => {
    const text = textOfPart(part);
    return text === undefined ? [] : [`${JSON.stringify(name)}:${text}`];
  });
  return `{${parts.join(",")}}`;
}

/** A short name of a text, for telling two apart: two 32-bit sums (FNV-1a, with two starts) and the length. */
export function textName(text: string): string {
  let a = 0x811c9dc5;
  let b = 0x01000193;
  for (let i = 0; i < text.length; i++) {
    const c = text.charCodeAt(i);
    a = Math.imul(a ^ c, 0x01000193);
    b = Math.imul(b ^ c, 0x85ebca6b);
  }
  return `${(a >>> 0).toString(36)} ${(b >>> 0).toString(36)} ${text.length}`;
}
