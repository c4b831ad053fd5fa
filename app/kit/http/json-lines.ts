import type { z } from "zod";

/** Reads one JSON value a line; the first wrong line refuses the whole, with its number. */
export function jsonLines<S extends z.ZodType>(
  text: string,
  schema: S,
  wanted: string,
): { ok: true; values: z.infer<S>[] } | { ok: false; message: string } {
  const values: z.infer<S>[] = [];
  for (const [i, line] of text.split("\n").entries()) {
    if (line.trim() === "") continue;
    const parsed = schema.safeParse(jsonOf(line));
    if (!parsed.success) return { ok: false, message: `line ${i + 1}: wanted ${wanted}` };
    values.push(parsed.data);
  }
  return { ok: true, values };
}

/** The value of a JSON text, or null where it is none. */
export function jsonOf(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return null;
  }
}
