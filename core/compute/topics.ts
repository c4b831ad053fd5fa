import { z } from "zod";
import { FILM_OPS } from "./film-topic";
import { FLOW_OPS, flowCases } from "./flow-topic";
import { OPTICS_OPS, opticsCases } from "./optics-topic";
import type { OpsTable } from "./op";
import { SPRAY_PANEL_OPS, sprayPanelCases } from "./spray-panel-topic";

/** Topics grow with the core: one table of operations each. */
export const TOPICS: Record<string, OpsTable> = { film: FILM_OPS, optics: OPTICS_OPS, flow: FLOW_OPS, "spray-panel": SPRAY_PANEL_OPS };

const caseSchema = z.looseObject({ id: z.string().min(1), input: z.record(z.string(), z.unknown()) });
const fileSchema = z.union([z.array(caseSchema), z.object({ cases: z.array(caseSchema) }).transform((f) => f.cases)]);

export interface Answered {
  ok: true;
  results: { id: string; output: unknown }[];
  /** Cases with something wrong in their input, each with the field and why; the others are answered all the same. */
  refused: { id: string; field: string; message: string }[];
  skipped: string[];
}
export type ComputeResult = Answered | { ok: false; message: string };

/** Files that hold results by name are read as lists of cases. */
const LISTED: Record<string, (json: unknown) => unknown> = { optics: opticsCases, flow: flowCases, "spray-panel": sprayPanelCases };
const asCases = (topic: string, json: unknown) => LISTED[topic]?.(json) ?? json;

/**
 * Answers a list of cases ({ id, input }) on a topic. A case whose `input.ref` names an earlier case takes that case's input first.
 * Ids that no operation of the topic answers are listed in `skipped`; a case with something wrong in its input in `refused`, by field.
 */
export function computeCases(topic: string, json: unknown): ComputeResult {
  const find = TOPICS[topic];
  if (!find) return { ok: false, message: `topic: must be one of ${Object.keys(TOPICS).join(", ")}, got "${topic}"` };
  const parsed = fileSchema.safeParse(asCases(topic, json));
  if (!parsed.success) return { ok: false, message: "cases: wanted a list of { id, input } or { cases: [...] }" };
  const inputs = new Map(parsed.data.map((c) => [c.id, c.input]));
  const results: { id: string; output: unknown }[] = [];
  const refused: Answered["refused"] = [];
  const skipped: string[] = [];
  for (const { id, input } of parsed.data) {
    const operation = find(id);
    if (!operation) {
      skipped.push(id);
      continue;
    }
    const { ref } = input;
    if (typeof ref === "string" && !inputs.has(ref)) {
      refused.push({ id, field: "ref", message: `no case "${ref}"` });
      continue;
    }
    const answer = operation.run(input, typeof ref === "string" ? inputs.get(ref) : {});
    if (answer.ok) results.push({ id, output: answer.output });
    else refused.push({ id, field: answer.field, message: answer.message });
  }
  return { ok: true, results, refused, skipped };
}
