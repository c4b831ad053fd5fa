import type { HardenerToday } from "#core/models/flow/hardener-today";
import { CLASS_WORDS } from "./flow-class-words";

/** What a hardener does today, in a line. */
export function hardenerWords({ name, inWindow, class: flows, best }: HardenerToday): string {
  const why = [
    inWindow === false ? "not meant for this temperature" : "",
    flows === null ? "outside the flow model" : CLASS_WORDS[flows].word.toLowerCase(),
  ].filter(Boolean);
  return `${name}: ${why.join(", ")}${best ? "; the one for today" : ""}`;
}
