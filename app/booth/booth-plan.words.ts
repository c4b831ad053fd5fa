import type { BoothAnswer, BoothPlan, Relaxation } from "#core/models/schedule/booth-plan";
import type { BoothProblem } from "#core/models/schedule/booth-problem";
import { showTimeOfDay, showWait } from "#core/kernel/units/format";
import type { Working } from "~/kit/ui/figure";

const count = (n: number, one: string, many = `${one}s`) => `${n} ${n === 1 ? one : many}`;

const DAY_S = 86_400;
/** Whether a time is of another day than the one that the plan begins on. @param s since the midnight before it */
const dayLater = (s: number): string => {
  const days = Math.floor(s / DAY_S);
  return days === 0 ? "" : days === 1 ? " tomorrow" : `, ${days} days on`;
};

/** The plan in one sentence: what, until when, and how good it is. */
export function boothSentence(plan: BoothPlan, zero_s: number): { main: string; rest: string } {
  const n = plan.sprays.length;
  if (n === 0) return { main: "Every coat is on.", rest: "Nothing is left to plan." };
  const pots = plan.pots.filter((p) => p.mixed).length;
  const main = `${n === 1 ? "The last coat is" : `All ${n} coats are`} on at ${showTimeOfDay(zero_s + plan.end_s)}${dayLater(zero_s + plan.end_s)}.`;
  const good = plan.exact
    ? "No plan within these rules is shorter."
    : `No plan can be more than ${showWait(plan.end_s - plan.bound_s)} shorter.`;
  return { main, rest: `${showWait(plan.end_s)} from the start, ${count(pots, "pot")} to mix. ${good}` };
}

/** A rule that would have to give way, with what it would have to be. */
export function relaxWords({ rule, needed }: Relaxation, zero_s: number): string {
  switch (rule) {
    case "end":
      return `Let the day end at ${showTimeOfDay(zero_s + (needed ?? 0))} or later.`;
    case "flash":
      return `Let a coat wait up to ${showWait(needed ?? 0)}: beyond the sheet's window, so scuff before the next coat.`;
    case "pots":
      return `Mix ${count(needed ?? 0, "pot")} of a product.`;
    case "potLife":
      return `A slower hardener: the pot would have to live ${showWait(needed ?? 0)}.`;
    case "places":
      return `Room for ${count(needed ?? 0, "part")} in the booth at a time.`;
    case "painters":
      return `${count(needed ?? 0, "painter")} at the same time.`;
    case "fixed":
      return "Let go of the times fixed by hand.";
  }
}

export function infeasibleSentence(answer: Extract<BoothAnswer, { kind: "infeasible" }>): string {
  return answer.relax.length > 0
    ? "No plan keeps every rule. One of these would have to give way:"
    : "No plan keeps every rule, and no single rule giving way would help: take parts out, or change two.";
}

export function boothWorking(plan: BoothPlan, problem: BoothProblem): Working {
  const spray_s = plan.sprays.reduce((a, s) => a + s.end_s - s.start_s, 0);
  return {
    title: "How the plan was found",
    formula:
      "Every order of the coats is timed so that no flash, pot, place or painter is broken, and an early coat is held back where the next would miss its window. Orders that cannot beat the best one are left out.",
    inputs: [
      { name: "Coats still to spray", shown: String(plan.sprays.length) },
      { name: "Time at the gun in all", shown: showWait(spray_s) },
      { name: "Painters, places", shown: `${problem.rules.painters}, ${problem.rules.places}` },
      { name: "Least any plan can take", shown: showWait(plan.bound_s) },
      { name: "Steps searched", shown: String(plan.nodes) },
    ],
    sources: ["product-sheet", "yakamoz-default"],
    changesMost: "A second painter, or parts sprayed in rounds that fill each other's flash.",
  };
}
