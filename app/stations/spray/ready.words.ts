import type { Standing } from "#core/course/standing";
import { type ClimateCheck, stillCounts } from "#core/models/prep/preflight";
import { showWait } from "#core/kernel/units/format";
import { actionWords, coatMayGoOn, isPast } from "~/kit/words/step-words";

/** What the page says first; only its middle is in colour. */
export interface ReadySentence {
  before: string;
  main: string;
  tone: "good" | "look" | "stop";
  after: string;
}

/**
 * Whether the gun may be filled: by the climate, by what was looked at, and by the course, which knows of waits and of what holds the coat back.
 * @param read_ms when the climate was read; null: never @param left points of the list not ticked yet
 */
export function readySentence({
  checks,
  read_ms,
  left,
  standing,
  now_ms,
}: {
  checks: readonly ClimateCheck[];
  read_ms: number | null;
  left: number;
  standing: Standing;
  now_ms: number;
}): ReadySentence {
  const say = (before: string, main: string, tone: ReadySentence["tone"], after = ""): ReadySentence => ({ before, main, tone, after });
  const stop = checks.find((c) => c.state === "stop");
  if (stop) return say("", `${stop.what}:`, "stop", `${stop.why}.`);
  if (read_ms === null) return say("Read the climate first.", "", "look");
  if (!stillCounts(read_ms, now_ms)) return say(`The climate is ${showWait((now_ms - read_ms) / 1000)} old.`, "Read it again.", "look");
  if (left > 0) return say("The climate is right.", `${left} left to look at.`, "look");
  const next = actionWords(standing, now_ms);
  if (coatMayGoOn(standing, now_ms)) return say("", "Ready.", "good", "Fill the gun.");
  // What is looked at is right; the coat is not due, or something says no to it.
  return standing.action?.kind === "coat"
    ? say("Climate and booth are right.", isPast(standing, now_ms) ? "Look first:" : "Not yet:", "look", `${next}.`)
    : say("Climate and booth are right.", "", "good", `Next: ${next}.`);
}
