import { yearDayText } from "./when";
import type { JobBrief } from "#core/panel/job-brief";

/** What a job was told beside its parts, each by its name; what was not told is left away. */
export const briefTold = (b: JobBrief): [what: string, text: string][] =>
  (
    [
      ["Customer", b.customer],
      ["Plate", b.plate],
      ["Colour code", b.colourCode],
      ["Promised for", b.promised_ms === null ? "" : yearDayText(b.promised_ms)],
    ] as [string, string][]
  ).filter(([, text]) => text !== "");
