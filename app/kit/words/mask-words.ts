import { airClears_s } from "#core/models/climate/air-changes";
import { showWait } from "#core/kernel/units/format";
import { whenText } from "./when";

/** Nobody is told any more so long after the last coat: the air has cleared in any booth that is one. */
const TOLD_MS = 3 * 3600_000;

/** How long the mask stays on after a coat, by how often the booth changes its air; null when no coat is so new. */
export function maskWords(lastCoat_ms: number | null, airChanges_1_h: number | null, now_ms: number): string | null {
  if (lastCoat_ms === null || now_ms - lastCoat_ms > TOLD_MS) return null;
  if (airChanges_1_h === null)
    return "Mask on until the booth's air has changed five times (how often: House). The data sheet and local rules come first.";
  const clear_s = airClears_s(airChanges_1_h);
  const until_ms = lastCoat_ms + 1000 * clear_s;
  if (until_ms <= now_ms) return null;
  return `Mask on until ${whenText(until_ms, now_ms)}: at ${airChanges_1_h} air changes an hour the mist needs ${showWait(clear_s)} to leave. The data sheet and local rules come first.`;
}
