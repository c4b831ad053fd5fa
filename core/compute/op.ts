import type { z } from "zod";

export const UM = 1e-6;
export const fromUm = (film_m: number) => film_m / UM;

export interface Op {
  run(input: unknown): { ok: true; output: unknown } | { ok: false; field: string; message: string };
}

/** One scripted operation: its input is checked first, a RangeError of the core is answered by name. */
export function op<S extends z.ZodType>(schema: S, compute: (input: z.infer<S>) => unknown): Op {
  return {
    run(input) {
      const parsed = schema.safeParse(input);
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

export type OpsTable = (id: string) => Op | undefined;

/** Finds an operation by the longest key that starts the case id. */
export function opsTable(ops: Record<string, Op>): OpsTable {
  const names = Object.keys(ops).sort((a, b) => b.length - a.length);
  return (id) => {
    const name = names.find((n) => id.startsWith(n));
    return name === undefined ? undefined : ops[name];
  };
}
