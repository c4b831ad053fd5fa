/** What a file of ours holds at the most: far above the largest job, far below what would hold a computer up. */
export const JSON_BOUNDS = { depth: 24, things: 3_000_000 } as const;

const QUOTE = 0x22;
const BACKSLASH = 0x5c;
const OPEN = new Set([0x5b, 0x7b]);
const CLOSE = new Set([0x5d, 0x7d]);
const COMMA = 0x2c;

/**
 * Why bytes of JSON are not to be parsed: nested too deep, or of too many things. One pass over the bytes, nothing is made of them: two million
 * empty objects weigh six megabytes on the disk and hundreds in memory.
 * @returns null for JSON within the bounds, and for what is no JSON, which the parser tells
 */
export function beyondBounds(bytes: Uint8Array, { depth, things }: { depth: number; things: number } = JSON_BOUNDS): string | null {
  let level = 0;
  let count = 0;
  for (let i = 0; i < bytes.length; i++) {
    const byte = bytes[i]!;
    if (byte === QUOTE) {
      i = endOfString(bytes, i + 1);
      continue;
    }
    if (OPEN.has(byte)) {
      count++;
      if (++level > depth) return `It is nested more than ${depth} deep`;
    } else if (CLOSE.has(byte)) level--;
    else if (byte === COMMA) count++;
    if (count > things) return `It holds more than ${things.toLocaleString("en")} things`;
  }
  return null;
}

/** Where a string ends that began before `from`: its closing quotation mark, or the end. A photograph is one string, searched by the runtime itself. */
function endOfString(bytes: Uint8Array, from: number): number {
  let at = from;
  for (;;) {
    const end = bytes.indexOf(QUOTE, at);
    if (end < 0) return bytes.length;
    let slashes = 0;
    while (end - 1 - slashes >= from && bytes[end - 1 - slashes] === BACKSLASH) slashes++;
    if (slashes % 2 === 0) return end;
    at = end + 1;
  }
}
