import { colourFlash } from "../models/prep/colour-coats";
import { BASE_OPEN_S } from "../models/prep/under-clear";
import type { PanelFacts } from "../panel/derive-panel";
import { coatsOn } from "../panel/coats-on";
import type { EntryOf } from "../record/entry";
import { throughFrom } from "../coat/air-log";
import { airOf } from "../coat/next-wait";

/** The wait after the newest coat below the clear: until the next of them, until clear, and when it must be scuffed first. */
export interface ColourWait {
  entry: EntryOf<"colourCoat">;
  colour_ms: number;
  clear_ms: number;
  scuff_ms: number;
}

const MS = 1000;

/** Null where none was logged, and once clear is on. @throws RangeError */
export function colourWait(facts: Pick<PanelFacts, "colourCoats" | "climates" | "coats" | "backCoats" | "handedOver">): ColourWait | null {
  const entry = facts.colourCoats.at(-1);
  if (!entry || coatsOn(facts) > 0 || facts.handedOver) return null;
  const through = throughFrom(airOf(facts), entry.at_ms);
  const after = (before: "colour" | "clear") => entry.at_ms + through((T) => colourFlash(entry.body.coat, before, T)) * MS;
  return { entry, colour_ms: after("colour"), clear_ms: after("clear"), scuff_ms: entry.at_ms + BASE_OPEN_S * MS };
}
