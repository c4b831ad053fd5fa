import { type BlockedBy, stops } from "#core/judge/blocked-by";

/** What says no, whatever the film; null where nothing does. */
export function stopWords(held: readonly BlockedBy[]): string | null {
  const no = held.find(stops);
  if (!no) return null;
  return no.by === "fault" ? `Stop. ${no.fault.name} first.` : "Stop. Matte is not worked, it is sprayed again.";
}
