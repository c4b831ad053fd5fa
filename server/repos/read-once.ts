import { LRUCache } from "lru-cache";
import type { z } from "zod";

/**
 * Reads a text with a schema, each text once: the same text gives the same object, which nobody changes.
 * @param bytes of texts that are remembered together
 * @throws as the schema does, and SyntaxError for what is no JSON
 */
export function readOnce<T>(schema: z.ZodType<T>, bytes = 8e6): (text: string) => T {
  const known = new LRUCache<string, { value: T }>({ maxSize: bytes, sizeCalculation: (_value, text) => text.length + 1 });
  return (text) => {
    const found = known.get(text);
    if (found) return found.value;
    const value = schema.parse(JSON.parse(text));
    known.set(text, { value });
    return value;
  };
}
