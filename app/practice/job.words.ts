import { show, showFilm } from "#core/kernel/units/format";
import type { UnitPreferences } from "#core/kernel/units/quantities";
import { counted } from "~/kit/words/when";
import type { Cause, FaultJudged, JobJudged, JobSlip, Mark, MarkKind } from "#core/practice/job/judged";

export const KIND_WORDS: Record<MarkKind, string> = { run: "Run", thin: "Thin", nib: "Dust" };
/** A mark as it is called beside the panel and in the list: by what it is and its number. */
export const markName = ({ kind }: Pick<Mark, "kind">, n: number): string => `${n + 1} ${KIND_WORDS[kind]}`;

const RAN: Partial<Record<Cause, string>> = {
  pace: "the hand stood or was slow",
  distance: "the gun was too near",
  overlap: "rows lay too close",
  wait: "the coat went on too soon",
};
const THIN: Partial<Record<Cause, string>> = {
  pace: "the hand was too fast",
  distance: "the gun was too far",
  overlap: "rows lay too far apart",
  trigger: "the trigger came too late",
  edges: "no row along the edge",
};
/** What a fault came of, in the words of the trade. */
export const causeWords = (kind: MarkKind, cause: Cause): string =>
  (kind === "run" ? RAN[cause] : kind === "thin" ? THIN[cause] : undefined) ?? "dust from the air";

const film = (m: number, units: UnitPreferences) => `${showFilm(m, units).text} ${showFilm(m, units).unit}`;
const area = (m2: number, units: UnitPreferences) => `${show("area", m2, units).text} ${show("area", m2, units).unit}`;

/** One thing to change, with what it came to. */
export function jobSlipWords({ slip, amount }: JobSlip, { least }: Pick<JobJudged, "least">, units: UnitPreferences): string {
  const many = (one: string, more: string) => (amount === 1 ? `One ${one}` : `${amount} ${more}`);
  switch (slip) {
    case "through":
      return `Sanded through the clear on ${area(amount, units)}. Read beside a run before the block goes on, and stop while it still stands out a little.`;
    case "left":
      return `A run still stands ${film(amount, units)} out. Take it on until the light goes straight over it.`;
    case "worn":
      return `On ${area(amount, units)} less clear is left than has to stay. A hard block touches the run alone; a soft one the film beside it.`;
    case "missed":
      return `${many("fault was", "faults were")} not marked. Look along the light from both sides before anything is sanded.`;
    case "cause":
      return `${many("cause", "causes")} named wrongly. What went before it says it: rows, edge, distance, wait.`;
    case "least":
      return least.said_m === null
        ? "Nothing was said of the thinnest place. Read along the edges and between the rows."
        : `The thinnest was misjudged by ${film(amount, units)}. Read where rows end and along the edges.`;
    case "needless":
      return `${area(amount, units)} sanded where nothing stood out.`;
    case "marked":
      return `${many("mark", "marks")} where nothing was wrong.`;
  }
}

/** A fault that was there: whether it was found, what it came of, and what is left of it. */
export function faultWords({ kind, cause, found, named, height_m, left_m }: FaultJudged, units: UnitPreferences): string {
  const said = !found
    ? "not marked"
    : cause === null || named === cause
      ? "marked"
      : named === null
        ? "marked, no cause named"
        : `marked, said: ${causeWords(kind, named)}`;
  const of = cause === null ? "" : `: ${causeWords(kind, cause)}`;
  const stands =
    height_m === null || left_m === null
      ? ""
      : ` ${film(height_m, units)} high, ${left_m > 1e-6 ? `${film(left_m, units)} left` : "gone"}.`;
  return `${KIND_WORDS[kind]}${of}; ${said}.${stands}`;
}

/** The judgement in a sentence. */
export function judgedWords({ faults, slips }: JobJudged, passes: boolean): string {
  const found = faults.filter((f) => f.found).length;
  const all = faults.length === 0 ? "Nothing was wrong with it" : `${found} of ${counted(faults.length, "fault", "faults")} found`;
  const through = slips.some((s) => s.slip === "through") ? ", and through the clear" : "";
  return `${all}${through}. ${passes ? "That passes." : "Not passed yet."}`;
}
