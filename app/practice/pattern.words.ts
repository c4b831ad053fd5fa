import type { Mend, PatternFault } from "#core/practice/pattern";

/** What can be done with a gun that was tried on paper. */
export const MEND_WORDS: Record<Mend, string> = {
  spray: "Even: spray with it",
  cleanTip: "Clean tip and needle",
  cleanCap: "Clean the air cap",
  lessAir: "Less air, or more fluid",
  lessFluid: "Less fluid, or more air",
  tighten: "Tighten the nozzle",
};

/** What it was, and how it is told. */
export const FAULT_WORDS: Record<PatternFault, string> = {
  even: "An even, tight ellipse: nothing is wrong with it.",
  tip: "One end is heavy and stays where it is when the cap turns: dirt at the tip or on the needle.",
  cap: "One end is heavy and turns with the cap: dirt in a hole of the cap.",
  horn: "Bowed, and it turns with the cap: a horn hole of the cap is blocked, the other one blows it over.",
  air: "Thin in the middle, heavy at both ends: too much air for this fluid.",
  fluid: "All of it in the middle: too little air for this fluid, or too thick a mix.",
  loose: "It spits: air gets in past a loose nozzle or dry packing.",
};
