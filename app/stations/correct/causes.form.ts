import { DEFECT_KINDS } from "#core/models/defects/kinds";
import { z } from "zod";
import { CAUSE_IDS } from "#core/models/defects/causes";
import { OBSERVATION_IDS } from "#core/models/defects/observations";
import type { DefectKind } from "#core/record/kinds";

const kind = z.enum(Object.keys(DEFECT_KINDS) as [DefectKind, ...DefectKind[]]);

/** One answer to a question about a defect; "unknown" takes an answer back. */
export const causeAnswerForm = z
  .object({ kind, id: z.enum(OBSERVATION_IDS), answer: z.enum(["yes", "no", "unknown"]) })
  .transform(({ answer, ...rest }) => ({ ...rest, so: answer === "unknown" ? null : answer === "yes" }));

/** The painter's final word. */
export const causeWordForm = z.object({ kind, causeId: z.enum(CAUSE_IDS) });

/** A kind of defect out of an address; null when it is none. */
export function defectKindOf(text: string | null): DefectKind | null {
  const parsed = kind.safeParse(text);
  return parsed.success ? parsed.data : null;
}
