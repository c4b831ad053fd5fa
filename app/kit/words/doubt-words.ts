import type { DoubtfulFilm } from "#core/judge/doubtful";

/** What to look at again where a film cannot be as it was read. */
export const DOUBT_WORDS: Record<DoubtfulFilm["why"], string> = {
  apart: "Its readings lie far apart: one is a slip. Take it out, or read the spot again.",
  below: "Less over the clear than below it: one of its readings is wrong, or the spot was another place.",
  none: "Less than no clear comes out there: a reading near it is wrong, or it is sanded through. Read it again.",
};
