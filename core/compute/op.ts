import { z } from "zod";

export const UM = 1e-6;
export const fromUm = (film_m: number) => film_m / UM;

/** Names that only tell a reader of the file something; they change nothing. */
const REMARKS = ["ref", "cols", "note"];

export interface Op {
  /** @param inherited what a case referred to brings along: its other names are that case's own matter */
  run(
    input: unknown,
    inherited?: Readonly<Record<string, unknown>>,
  ): { ok: true; output: unknown } | { ok: false; field: string; message: string };
}

/**
 * One scripted operation: its input is checked first, a RangeError of the core is answered by name.
 * @param table its cases are rows of a table that holds results beside the inputs
 * @param fixed inputs of the reference that are constants here: taken with their own value only
 */
export function op<S extends z.ZodType>(
  schema: S,
  compute: (input: z.infer<S>) => unknown,
  { fixed = {}, table = false }: { fixed?: Readonly<Record<string, number>>; table?: boolean } = {},
): Op {
  return {
    run(input, inherited = {}) {
      const strange = table ? null : strangerIn(input, schema, fixed);
      if (strange) return strange;
      const parsed = schema.safeParse(typeof input === "object" && input !== null ? { ...inherited, ...input } : input);
      if (!parsed.success) {
        const [issue] = parsed.error.issues;
        return { ok: false, field: issue?.path.join(".") || "input", message: issue?.message ?? "not understood" };
      }
      try {
        return { ok: true, output: compute(parsed.data) };
      } catch (error) {
        if (!(error instanceof RangeError)) throw error;
        return { ok: false, field: error.message.split(" ")[0] ?? "input", message: error.message };
      }
    },
  };
}

/** A name that means nothing here is told, not dropped: what it was to change would be missing from the answer unseen. */
function strangerIn(input: unknown, schema: z.ZodType, fixed: Readonly<Record<string, number>>) {
  if (!(schema instanceof z.ZodObject) || typeof input !== "object" || input === null) return null;
  const known = new Set([...REMARKS, ...Object.keys(schema.shape)]);
  for (const [name, value] of Object.entries(input)) {
    if (known.has(name)) continue;
    if (!(name in fixed)) return { ok: false as const, field: name, message: "no such input here" };
    if (value !== fixed[name]) return { ok: false as const, field: name, message: `is ${fixed[name]} here and cannot be changed` };
  }
  return null;
}

export type OpsTable = (id: string) => Op | undefined;

/** Finds an operation by the longest key that starts the case id. */
export function opsTable(ops: Record<string, Op>): OpsTable {
  const names = Object.keys(ops).sort((a, b) => b.length - a.length);
  return (id) => {
    const name = names.find((n) => id.startsWith(n));
    return name === undefined ? undefined : ops[name];
  };
}
