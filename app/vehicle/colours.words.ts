import { showWait } from "#core/kernel/units/format";
import { type Shade, shadesOf } from "#core/models/colour/job-colours";
import type { Joint, JointWhy } from "#core/vehicle/joints";
import type { ColourOrder } from "#core/vehicle/two-colours";
import type { ColoursView } from "#server/views/vehicle-view";
import { capital } from "~/kit/words/capital";
import { counted } from "~/kit/words/when";

const WHY: Record<JointWhy, string> = {
  matte: "matte is never blended: the whole part to its edges",
  trim: "trim over the gap hides a small difference",
  turn: "nobody looks along that edge",
  effect: "metallic and pearl show the smallest difference at a gap",
  notSaid: "how light falls on the colour is not said: taken as metallic",
  light: "a light colour shows a small difference in daylight",
  solidDark: "a dark solid colour that matches needs no blend",
};

/** How a colour ends at an edge, and why. Common practice; painters disagree. */
export function jointWords(joint: Joint): { where: string; what: string; why: string } {
  const [one, two] = joint.parts;
  switch (joint.how) {
    case "gap":
      return { where: `${one} – ${two!.toLowerCase()}`, what: "Each masked at the gap", why: "two colours; both edges turn into the gap" };
    case "fineLine":
      return two
        ? { where: `${one} – ${two.toLowerCase()}`, what: "Fine line along the seam", why: "two colours on one surface" }
        : { where: one, what: "Fine line across it", why: "it has both colours; along a body line it is hidden best" };
    case "goOn":
      return {
        where: `${one} – ${joint.neighbour.toLowerCase()}`,
        what: "Clear on over it too",
        why: "one surface: clear that ends in the open peels there later",
      };
    case "blend":
      return {
        where: `${one} – ${joint.neighbour.toLowerCase()}`,
        what: "Blend into it, and clear all of it",
        why: WHY[joint.why],
      };
    case "butt":
      return { where: `${one} – ${joint.neighbour.toLowerCase()}`, what: "Butt at the edge", why: WHY[joint.why] };
  }
}

export const nameOf = ({ name }: Shade, n: 1 | 2) => name || (n === 1 ? "the first colour" : "the second colour");

/** What goes on when, of two colours. */
export function orderSteps(order: ColourOrder, shades: readonly Shade[]): string[] {
  const [first, second] = [nameOf(shades[0]!, 1), nameOf(shades[1]!, 2)];
  const [one, two] = order.goesFirst === "first" ? [first, second] : [second, first];
  return [
    `${capital(one)}, past the line by a hand, its edge soft`,
    `${showWait(order.tape_s)} later it bears tape${order.fromSheet ? ", by its sheet" : ": an hour at 20 °C where its sheet says nothing; try it on a scrap"}`,
    "Fine line where the colours meet, the lower masked below it",
    `${capital(two)}, light coats away from the tape`,
    "Tape off while the edge still gives, back over itself",
    order.together ? "One clear over both in one go" : "No clear over them: each colour is sprayed to its end",
  ];
}

/** Of each panel: which colour it has, in a field of its own. */
export const PART_FIELD = "colour-";
export const partField = (panelId: string) => `${PART_FIELD}${panelId}` as const;

/** All of it in a sentence. */
export function coloursSentence({ job, joints, order }: Pick<ColoursView, "job" | "joints" | "order">): { says: string; then: string } {
  const n = (...how: Joint["how"][]) => joints.filter((j) => how.includes(j.how)).length;
  const edges = [
    n("blend") > 0 && `${counted(n("blend"), "edge", "edges")} to blend`,
    n("butt") > 0 && `${n("butt")} to butt`,
    n("goOn") > 0 && `${n("goOn")} without a gap`,
  ].filter(Boolean);
  const old = edges.length === 0 ? "" : `To old paint: ${edges.join(", ")}.`;
  if (!job.colours.second) return { says: "One colour.", then: old || "Nothing beside its parts is known." };
  if (!order) return { says: "Two colours.", then: "Say which part has which." };
  const first = nameOf(shadesOf(job)[order.goesFirst === "first" ? 0 : 1]!, order.goesFirst === "first" ? 1 : 2);
  return { says: `${capital(first)} first${order.lower ? ": it lies lower" : ""}.`, then: old };
}
